import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { reasonOfLabel } from './missing-words';
import { isAmbiguous, readsAsNoAnswer } from './no-answer';

const SURE = [
  'Refused',
  "Don't know",
  'No answer',
  'Not in universe',
  'Not applicable',
  'Not stated',
  'Keine Angabe',
  'Verweigert',
  'Ne sait pas',
  'Sans réponse',
  'No contesta',
  'Suppressed',
  'Weet niet',
  'Vet ikke',
  'Illegible',
];
const ALONE = [
  'Refuse',
  'Unknown',
  'Missing',
  'Blank',
  'Filter',
  'Skipped',
  'Not sure',
  'Confidential',
  'Unspecified',
  'No data',
];

describe('words for no answer', () => {
  it.each(SURE)('“%s” says so in a short label, however it is written', (label) => {
    expect(reasonOfLabel(label)).not.toBeNull();
    for (const written of [
      label,
      label.toUpperCase(),
      `(${label})`,
      `${label}.`,
      `9 - ${label}`,
      `  ${label}  `,
    ])
      expect(readsAsNoAnswer(written), written).toBe(true);
  });

  it.each(ALONE)('“%s” says so alone, and not among other words', (label) => {
    expect(isAmbiguous(label)).toBe(true);
    expect(readsAsNoAnswer(label)).toBe(true);
    expect(readsAsNoAnswer(`${label} of the household garden`)).toBe(false);
  });

  it('a long label talks of something else too', () => {
    expect(readsAsNoAnswer('Respondents who refused to let the boiler be inspected in person')).toBe(false);
  });

  it('are words, not parts of words', () => {
    for (const label of [
      'Refusenik',
      'Danish',
      'Nagoya',
      'Unknowingly',
      'Dkhar',
      'Nrich',
      'Blanket',
      'Missingham',
    ])
      expect(readsAsNoAnswer(label), label).toBe(false);
  });

  it('and no text at all throws or is both an answer by its reason and none', () => {
    fc.assert(
      fc.property(fc.string(), (label) => {
        if (readsAsNoAnswer(label)) expect(reasonOfLabel(label)).not.toBeNull();
      }),
    );
  });
});
