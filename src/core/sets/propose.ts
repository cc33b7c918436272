import type { Codebook } from '../extract/extract';
import type { Subject } from '../flags/rule';
import { stemOf } from '../infer/stem';

/** A thematic set that might be made, with the reason. */
export interface ProposedSet {
  name: string;
  variables: string[];
  because: string;
}

/** Fewer variables than this make no set. */
const LEAST_MEMBERS = 3;

/** Proposals: the codebook's own groups, then neighbours with the same stem and the same codes. */
export function proposeSets(subjects: readonly Subject[], codebooks: readonly Codebook[]): ProposedSet[] {
  const here = new Set(subjects.map(({ name }) => name));
  const grouped = codebooks
    .flatMap((codebook) =>
      codebook.groups.map((group) => ({
        name: group.name,
        variables: group.variables.filter((name) => here.has(name)),
        because: `a group of the codebook ${codebook.name}`,
      })),
    )
    .filter(({ variables }) => variables.length > 0);
  const known = new Set(grouped.map(({ variables }) => variables.join('\n')));
  return [...grouped, ...batteries(subjects).filter(({ variables }) => !known.has(variables.join('\n')))];
}

function batteries(subjects: readonly Subject[]): ProposedSet[] {
  const families = new Map<string, Subject[]>();
  for (const subject of subjects) {
    const stem = stemOf(subject.name);
    if (!stem) continue;
    const key = `${stem}\n${codeList(subject)}`;
    families.set(key, [...(families.get(key) ?? []), subject]);
  }
  return [...families]
    .filter(([, members]) => members.length >= LEAST_MEMBERS)
    .map(([key, members]) => ({
      name: commonWords(members) ?? key.split('\n')[0].replace(/[_.]+$/, ''),
      variables: members.map(({ name }) => name),
      because: 'same stem, same codes',
    }));
}

/** The codes that a variable may take: the codebook's labels where it has them, else kind and storage. */
function codeList({ entry, kind, written }: Subject): string {
  const labels =
    entry?.categories.filter(({ missing }) => !missing).map(({ code, label }) => `${code} ${label}`) ?? [];
  return labels.length ? labels.join('|') : `${kind} ${written.storage}`;
}

/** Words that all labels begin with, if they say something. */
function commonWords(members: readonly Subject[]): string | null {
  const labels = members.map(({ label }) => (label ?? '').split(/[\s:,–-]+/));
  let shared = 0;
  while (labels.every((words) => words.length > shared + 1 && words[shared] === labels[0][shared])) shared++;
  const words = labels[0].slice(0, shared).join(' ').trim();
  return words.length >= 4 ? words : null;
}
