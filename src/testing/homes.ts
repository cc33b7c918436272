import { linkCodebooks } from '../core/codebook/link';
import { bareEntry, type CodebookEntry } from '../core/extract/extract';
import { handoffOf } from '../core/handoff/handoff';
import type { HandoffForm } from '../core/handoff/handoff-forms';
import type { LeavingAsk } from '../core/handoff/leaving';
import { Inspector } from '../core/inspect/inspect';
import { entryOf, type Decision } from '../core/log/entries';
import { foldLog } from '../core/log/fold';
import { extractOf } from './made';

export const ALL: LeavingAsk = {
  variables: null,
  cells: 'codes',
  missing: 'keep',
  harmless: false,
  alone: false,
};

/** Some columns with decisions laid over them, and what a codebook says of them. */
export const dig = (
  columns: Record<string, string[]>,
  decisions: readonly Decision[] = [],
  entries: readonly CodebookEntry[] = [],
): { inspector: Inspector; log: ReturnType<typeof entryOf>[] } => {
  const made = extractOf(columns);
  const inspector = new Inspector(
    entries.length
      ? linkCodebooks(made, [
          {
            name: 'b',
            form: 'ddi-codebook',
            title: 'Homes',
            cases: null,
            entries: [...entries],
            groups: [],
            notices: [],
          },
        ])
      : made,
  );
  const log = decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)));
  inspector.lay(foldLog(log));
  return { inspector, log };
};

/** The files of a handoff, by name, without its manifest. */
export async function written(
  from: ReturnType<typeof dig>,
  forms: HandoffForm[],
  ask: Partial<LeavingAsk> = {},
): Promise<Map<string, Uint8Array>> {
  return (await handedOff(from, forms, ask)).files;
}

/** A handoff as it lies on disk: its files by name, and the manifest beside them. */
export async function handedOff(
  from: ReturnType<typeof dig>,
  forms: HandoffForm[],
  ask: Partial<LeavingAsk> = {},
): Promise<{ files: Map<string, Uint8Array>; manifest: Uint8Array }> {
  const { files, manifest } = handoffOf(from.inspector, from.log, { ...ALL, ...ask }, forms, new Date(0));
  const made = new Map<string, Uint8Array>();
  for (const file of files) {
    const pieces: Uint8Array[] = [];
    for await (const piece of file.pieces()) pieces.push(piece);
    made.set(file.name, Uint8Array.from(Buffer.concat(pieces)));
  }
  const listed = [...made].map(([name, { length }]) => ({ name, bytes: length, sha256: '' }));
  return { files: made, manifest: new TextEncoder().encode(JSON.stringify(manifest(listed))) };
}

const N = 60;
export const column = (of: (i: number) => string | number): string[] =>
  Array.from({ length: N }, (_, i) => String(of(i)));
/** Homes with what is hard to write: leading zeros, long integers, quotes, line breaks, blanks, other spellings. */
export const HOMES = {
  hhid: column((i) => `H${1000 + i}`),
  tenure: column((i) => [1, 2, 3, 9, 1][i % 5]),
  zero: column((i) => `0${i % 7}`),
  long: column((i) => `90071992547409${10 + i}`),
  rent: column((i) => (i % 8 === 0 ? -8 : (i * 12.5).toFixed(2))),
  remark: column((i) => ['plain', 'a "quoted", one', 'two\nlines', '=1+1', ' blanks ', '🏠 Ø', ''][i % 7]),
  town: column((i) => ['Fenwater', 'fenwater', 'Hawmoor'][i % 3]),
  asked: column((i) => (i % 5 === 0 || i % 5 === 4 ? 1 + (i % 2) : '')),
  day: column((i) => `2020-0${1 + (i % 9)}-1${i % 10}`),
};
export const ENTRIES: CodebookEntry[] = [
  {
    ...bareEntry('tenure'),
    label: 'Tenure <of> the "home"',
    question: 'Do you own, or rent?',
    universe: 'All & sundry',
    notes: ['First line\nsecond line'],
    categories: [
      { code: '1', label: 'Owned', missing: false, reason: null, frequency: null },
      { code: '2', label: 'Rented', missing: false, reason: null, frequency: null },
      { code: '3', label: 'Rented', missing: false, reason: null, frequency: null },
      { code: '4', label: 'Nobody has this', missing: false, reason: null, frequency: null },
    ],
  },
  { ...bareEntry('rent'), label: 'Rent', units: 'crowns', validRanges: [{ min: 0, max: 5000 }] },
];
export const DECISIONS: Decision[] = [
  {
    type: 'declare-missing',
    variables: ['tenure', 'rent'],
    codes: [
      { code: '9', reason: 'refused' },
      { code: '-8', reason: 'not-asked' },
    ],
    rule: null,
  },
  { type: 'label-codes', variables: ['tenure'], labels: [{ code: '9', label: 'Would not say' }] },
  {
    type: 'confirm-kind',
    kinds: [
      { variable: 'tenure', kind: 'ordinal' },
      { variable: 'zero', kind: 'nominal' },
      { variable: 'rent', kind: 'continuous' },
    ],
  },
  { type: 'order-codes', variables: ['tenure'], codes: ['3', '1', '2'] },
  { type: 'merge-codes', variables: ['town'], codes: ['fenwater'], into: 'Fenwater', rule: null },
  { type: 'rename', variable: 'town', name: 'place', label: 'Nearest town' },
  { type: 'accept-universe', variable: 'asked', by: 'tenure', shut: ['2', '3', '9'] },
  { type: 'make-set', set: 's', name: 'Housing', variables: ['tenure', 'rent'] },
];
