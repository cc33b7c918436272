import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { DECISIONS, dig, ENTRIES, handedOff, HOMES } from '../../testing/homes';
import { linkCodebooks } from '../codebook/link';
import { Inspector } from '../inspect/inspect';
import type { Inspection } from '../inspect/schema';
import { bring } from '../intake/bring';
import type { Handed } from '../intake/brought';
import { readExtract } from '../intake/receive';
import type { Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { digLogOf } from '../log/migrate';
import { returned } from '../log/returned';
import { sourceOf } from '../read/source';
import type { HandoffForm } from './handoff-forms';

const MORE: Decision[] = [
  { type: 'note', variable: 'town', text: 'Spelt by hand' },
  { type: 'sign-off', variables: ['town', 'rent'], done: true },
  { type: 'ask-archive', variables: ['rent'], codes: ['-8'], rule: 'sentinel-code', question: 'What is -8?' },
  { type: 'confirm-role', roles: [{ variable: 'hhid', role: 'identifier' }] },
  { type: 'make-recode', recode: { name: 'tenure2', of: 'tenure', only: ['1', '2'] } },
  {
    type: 'make-sieve',
    sieve: 'v',
    name: 'owners',
    parts: [{ id: 'p', condition: { variable: 'tenure', codes: ['1'] }, on: true }],
    use: false,
  },
  { type: 'view-sets', sets: ['s'] },
  { type: 'weigh', by: null },
];

async function broughtBack(handed: Handed[]) {
  const { brought, notices } = await bring(handed);
  expect(brought.filter(({ what }) => what === 'problem')).toEqual([]);
  const log = brought.find((one) => one.what === 'log');
  if (!log?.variables) throw new Error('no log of a handoff');
  const read = await readExtract(
    brought.flatMap((one) =>
      one.what === 'data' ? [{ source: one.source, look: one.look, layout: one.layout }] : [],
    ),
  );
  const back = returned(
    read,
    brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
    digLogOf(log.name, log.log),
    log.variables,
  );
  const inspector = new Inspector(linkCodebooks(back.extract, back.codebooks));
  inspector.lay(foldLog(back.entries));
  return { ...back, inspector, brought, notices };
}

/** A handoff as one zip, or as the files of a folder. */
async function leftBehind(
  from: ReturnType<typeof dig>,
  form: HandoffForm,
  how: 'zip' | 'folder',
): Promise<Handed[]> {
  const { files, manifest } = await handedOff(from, [form, 'report']);
  files.set('manifest.json', manifest);
  if (how === 'zip') return [{ key: 'z', source: sourceOf('made.zip', zipSync(Object.fromEntries(files))) }];
  return [...files].map(([name, bytes]) => ({ key: name, source: sourceOf(name, bytes) }));
}

/** What is told of an extract and its variables, numbers by value; other spellings went out as what they count for. */
const told = ({ source: _, ...document }: Inspection): unknown =>
  JSON.parse(JSON.stringify(document), (key, value: unknown) =>
    key === 'spellings'
      ? undefined
      : typeof value === 'string' && /^-?\d+\.\d+$/.test(value)
        ? String(Number(value))
        : value,
  );

describe('a handoff that comes back', () => {
  const forms = ['data-package', 'csvw', 'ddi', 'workbook', 'parquet'] as const;
  it.each(forms.map((form, i) => [form, i % 2 ? ('folder' as const) : ('zip' as const)]))(
    'as %s in a %s is the extract with its rulings',
    async (form, how) => {
      const from = dig(HOMES, [...DECISIONS, ...MORE], ENTRIES);
      const { inspector, entries, stands, brought } = await broughtBack(await leftBehind(from, form, how));
      expect(brought.filter(({ what }) => what === 'data')).toHaveLength(1);
      expect(inspector.extract.name).toBe('made');
      expect(stands).toEqual(['trial recode tenure2 made of tenure: only 1, 2']);
      expect(entries.map(({ type }) => type)).toEqual(
        [...DECISIONS, ...MORE].map(({ type }) => type).filter((type) => type !== 'make-recode'),
      );
      // The recode is a column now; everything else is told as before.
      const [before, after] = [from.inspector.document(), inspector.document()];
      const without = (document: Inspection): Inspection => ({
        ...document,
        variables: document.variables.filter(({ name }) => name !== 'tenure2'),
        flags: document.flags.filter(({ variables }) => !variables.includes('tenure2')),
        sets: document.sets.map((set) => ({
          ...set,
          variables: set.variables.filter((name) => name !== 'tenure2'),
        })),
      });
      expect(told(without(after))).toEqual(told(without(before)));
      expect(inspector.decided.called.get('town')).toEqual({ name: 'place', label: 'Nearest town' });
    },
  );

  it('has neither the rows that stayed behind nor what was corrected twice', async () => {
    const from = dig(HOMES, [
      ...DECISIONS,
      {
        type: 'make-sieve',
        sieve: 'v',
        name: 'owners',
        parts: [{ id: 'p', condition: { variable: 'tenure', codes: ['1'] }, on: true }],
        use: true,
      },
    ]);
    from.inspector.lay(foldLog(from.log));
    const [row] = from.inspector.nameRows([4]);
    const more = dig(HOMES, [
      ...from.log,
      {
        type: 'correct-cells',
        cells: [{ row, variable: 'rent', from: HOMES.rent[4], to: '77' }],
        rule: null,
      },
    ] as Decision[]);
    const { inspector, stands, entries } = await broughtBack(await leftBehind(more, 'data-package', 'zip'));
    expect(stands).toHaveLength(1);
    expect(stands[0]).toMatch(/rent/);
    expect(entries.some(({ type }) => type === 'make-sieve')).toBe(true);
    expect(inspector.rowCounts).toEqual({ all: 24, aside: 0, kept: 24 });
    expect(inspector.extract.variables.find(({ name }) => name === 'rent')?.column.text(1)).toBe('77');
  });

  it('says that a file was changed since, and is read all the same', async () => {
    const handed = await leftBehind(dig(HOMES, DECISIONS, ENTRIES), 'data-package', 'folder');
    const at = handed.findIndex(({ source }) => source.name === 'made.csv');
    const bytes: Uint8Array[] = [];
    for await (const piece of handed[at].source.open()) bytes.push(piece);
    handed[at] = {
      key: 'made.csv',
      source: sourceOf('made.csv', Buffer.concat([...bytes, bytes[0].slice(-60)])),
    };
    const { brought, notices } = await bring(handed);
    expect(notices).toEqual([
      'made.csv has another size than its manifest says: it was changed after the handoff',
    ]);
    expect(brought.filter(({ what }) => what === 'data')).toHaveLength(1);
  });

  it('with a damaged log says so, and which', async () => {
    const handed = await leftBehind(dig(HOMES, DECISIONS, ENTRIES), 'csvw', 'folder');
    const damaged = handed.map((one) =>
      one.source.name === 'made-dig-log.json'
        ? { ...one, source: sourceOf(one.source.name, '{ "format": "dig-first-log", "version": 5, ') }
        : one,
    );
    const { brought } = await bring(damaged);
    expect(brought.find(({ what }) => what === 'problem')).toMatchObject({
      name: 'made-dig-log.json',
      problem: { file: 'made-dig-log.json' },
    });
  });
});
