import { describe, expect, it } from 'vitest';
import { linkCodebooks } from '../codebook/link';
import { digLog } from '../log/entries';
import { sourceOf } from '../read/source';
import { bring } from './bring';
import type { Brought } from './brought';
import { readExtract } from './receive';
import { asBefore, stepsOf, waveFromSteps, type Steps } from './steps';

type Data = Extract<Brought, { what: 'data' }>;
const latin = (text: string): Uint8Array => Uint8Array.from(text, (sign) => sign.charCodeAt(0));

/** How files are read of themselves, with what a person chose. */
async function stepsFor(
  files: Record<string, string | Uint8Array>,
  chosen: Record<string, object> = {},
): Promise<Steps> {
  const { brought } = await bring(
    Object.entries(files).map(([name, content]) => ({ key: name, source: sourceOf(name, content) })),
    { chosen: new Map(Object.entries(chosen)) },
  );
  const extract = await readExtract(
    brought.flatMap((one) =>
      one.what === 'data' ? [{ source: one.source, look: one.look, layout: one.layout }] : [],
    ),
    {},
    { marks: { decimal: ',' } },
  );
  return stepsOf(
    linkCodebooks(
      extract,
      brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
    ),
  );
}
async function next(name: string, content: string | Uint8Array, steps: Steps): Promise<Data> {
  const { brought } = await bring([{ key: 'n', source: sourceOf(name, content) }], { steps });
  const data = brought.find((one) => one.what === 'data');
  if (!data) throw new Error('no data');
  return data;
}

const rows = (of: (i: number) => string): string => Array.from({ length: 30 }, (_, i) => of(i)).join('');

describe('how an extract was read', () => {
  it('is read off its files, and is how the next of their form is read', async () => {
    const steps = await stepsFor(
      { 'a_2020.csv': latin(`"x";"y"\n${rows((i) => `${i};caf\xe9\n`)}`) },
      { 'a_2020.csv': { header: false, quote: '' } },
    );
    expect(steps).toMatchObject({
      files: [
        {
          name: 'a_2020.csv',
          form: 'delimited',
          delimiter: ';',
          quote: '',
          header: false,
          encoding: 'windows-1252',
        },
      ],
      marks: { decimal: ',' },
      wave: null,
    });
    const { look } = await next('b_2021.csv', `x;y\n${rows((i) => `${i};plain\n`)}`, steps);
    expect(look.reading).toMatchObject({
      delimiter: ';',
      header: false,
      quote: '',
      encoding: 'windows-1252',
    });
    expect(asBefore(look)).toEqual([
      'quotes: none, as the earlier extract was read',
      'encoding windows-1252, as the earlier extract was read',
      'first row: is data, as the earlier extract was read',
    ]);
  });

  it('gives way to what the bytes say, to columns, and to what a person chose', async () => {
    const steps = await stepsFor({ 'a.csv': latin(`x;y\n${rows((i) => `${i};caf\xe9\n`)}`) });
    // Valid UTF-8 beyond ASCII is no other encoding.
    expect((await next('b.csv', `x;y\n${rows((i) => `${i};café\n`)}`, steps)).look.reading.encoding).toBe(
      'utf-8',
    );
    // A semicolon would make one column of all.
    const comma = await next('b.csv', `x,y\n${rows((i) => `${i},2\n`)}`, steps);
    expect([comma.look.reading.delimiter, comma.look.names, asBefore(comma.look)]).toEqual([
      ',',
      ['x', 'y'],
      [],
    ]);
    const { brought } = await bring(
      [{ key: 'n', source: sourceOf('b.csv', `x;y\n${rows(() => '1;2\n')}`) }],
      {
        steps,
        chosen: new Map([['n', { encoding: 'utf-8' }]]),
      },
    );
    expect(brought[0]).toMatchObject({ look: { reading: { encoding: 'utf-8' } } });
  });

  it('keeps where columns stand, so that the next fixed-width file needs no codebook', async () => {
    const book =
      '<codeBook><dataDscr><var name="id"><location StartPos="1" EndPos="3"/></var>' +
      '<var name="code"><location StartPos="4" EndPos="5"/></var></dataDscr></codeBook>';
    const line = (i: number): string => `${String(i).padStart(3, '0')}${String(i % 7).padStart(2)}\n`;
    const steps = await stepsFor({ 'a.dat': rows(line), 'a.xml': book });
    const { look, layoutFrom } = await next('b.dat', rows(line), steps);
    expect([look.names, look.reading.form, layoutFrom]).toEqual([
      ['id', 'code'],
      'fixed-width',
      'a.dat, read earlier',
    ]);
  });

  it('comes along in a dig log that is brought with the files', async () => {
    const steps = await stepsFor({ 'a.csv': 'x;y\n1;2\n3;4\n' }, { 'a.csv': { header: false } });
    const log = { ...digLog({ name: 'a', files: [] }, []), reading: steps };
    const { brought } = await bring([
      { key: 'd', source: sourceOf('b.csv', 'x;y\n1;2\n3;4\n') },
      { key: 'l', source: sourceOf('a-dig-log.json', JSON.stringify(log)) },
    ]);
    expect(brought).toMatchObject([
      { what: 'data', look: { reading: { header: false } } },
      { what: 'log', variables: null },
    ]);
  });

  it('says how waves were told', async () => {
    const years = { 'h_2019.csv': 'a,b\n1,2\n', 'h_2020.csv': 'a,b\n3,4\n' };
    const steps = await stepsFor(years);
    expect([steps.wave, waveFromSteps(steps)]).toEqual(['none', 'none']);
    expect(waveFromSteps({ ...steps, wave: null })).toBe('found');
  });
});
