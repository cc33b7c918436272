import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { reportHtml } from '../handoff/report';
import { entryOf } from '../log/entries';
import { foldLog } from '../log/fold';
import { Inspector } from './inspect';
import { profileOf, type Profile } from './profile';

const profile = async (cells: (string | number)[], asDate = false): Promise<Profile> => {
  const dig = new Inspector(extractOf({ when: cells }));
  if (asDate)
    dig.lay(
      foldLog([
        entryOf({ type: 'confirm-kind', kinds: [{ variable: 'when', kind: 'date' }] }, 'e', new Date(0)),
      ]),
    );
  // The report draws every variable too.
  expect(await reportHtml(dig, [], ['when'], new Date(0))).toContain('when');
  const profile = await profileOf(dig, 'when');
  if (!profile) throw new Error('when');
  return profile;
};
const days = (...texts: string[]): string[] => texts.flatMap((text) => [text, text, text]);

describe('rows per period', () => {
  it('stand with what lies between, and gaps are counted out', async () => {
    const { picture, gaps } = await profile(days('2021-02-27', '2021-02-28', '2021-03-03', '2021-03-04'));
    expect(picture).toMatchObject({
      form: 'periods',
      by: 'day',
      periods: [
        { name: '2021-02-27', count: 3 },
        { name: '2021-02-28', count: 3 },
        { name: '2021-03-01', count: 0 },
        { name: '2021-03-02', count: 0 },
        { name: '2021-03-03', count: 3 },
        { name: '2021-03-04', count: 3 },
      ],
    });
    expect(gaps).toEqual([{ from: '2021-03-01', to: '2021-03-02', periods: 2 }]);
  });

  it('do not break where one lies at the end of time', async () => {
    const { picture, gaps } = await profile(
      days('2021-01-05', '2021-01-06', '2021-01-08', '9999-12-31', '0001-01-01'),
    );
    expect(picture.form === 'periods' && picture.periods).toHaveLength(5);
    expect(gaps).toMatchObject([
      { from: '0001-01-02', to: '2021-01-04' },
      { from: '2021-01-07', to: '2021-01-07', periods: 1 },
      { from: '2021-01-09', to: '9999-12-30' },
    ]);
  });

  it('do not break where numbers of two digits are confirmed as dates', async () => {
    const { picture, gaps } = await profile(
      Array.from({ length: 60 }, (_, i) => 10 + (i % 30)),
      true,
    );
    expect(picture).toMatchObject({ form: 'periods', by: 'year' });
    expect(gaps).toEqual([]);
  });
});
