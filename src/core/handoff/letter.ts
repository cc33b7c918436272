import type { Entry } from '../log/entries';
import { inForce } from '../log/fold';

/** The questions to the archive, numbered, as a letter to be filled in and sent; `null` where there are none. */
export function letterText(
  extract: string,
  codebooks: readonly string[],
  log: readonly Entry[],
): string | null {
  const questions = inForce(log).filter((entry) => entry.type === 'ask-archive');
  if (questions.length === 0) return null;
  const about = ({ variables, codes }: (typeof questions)[number]): string =>
    [
      variables.length
        ? `Variable${variables.length > 1 ? 's' : ''} ${variables.join(', ')}`
        : 'The rows and files',
      codes.length ? `code${codes.length > 1 ? 's' : ''} ${codes.join(', ')}` : '',
    ]
      .filter(Boolean)
      .join(', ');
  return [
    `Questions about the extract ${extract}${codebooks.length ? ` (codebook: ${codebooks.join(', ')})` : ''}`,
    '',
    'Dear colleagues,',
    '',
    `while going through the extract named above we came upon ${questions.length === 1 ? 'one thing' : `${questions.length} things`} that the documentation does not explain. We should be grateful for a word on each.`,
    '',
    ...questions.flatMap((entry, i) => [
      `${i + 1}. ${about(entry)}`,
      `   ${entry.question.replace(/\n/g, '\n   ')}`,
      '',
    ]),
    'With kind regards',
    '',
  ].join('\n');
}
