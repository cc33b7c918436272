import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tallyTexts } from '../tally/tally';
import { dateOrdersOf, dayNumber, isoText, readDate, writtenLikeDate, zoneOf, type DateForm } from './dates';
import { inferStorage } from './storage';

const iso = (text: string, form: DateForm, utc = false): string | null => {
  const date = readDate(text, form, utc);
  return date && isoText(date.value, date.storage);
};

describe('a date or time as it is written', () => {
  it.each<[string, DateForm, string | null]>([
    ['2021-06-30', 'ymd', '2021-06-30'],
    ['2021/6/3', 'ymd', '2021-06-03'],
    ['2021-06-31', 'ymd', null],
    ['2021-02-29', 'ymd', null],
    ['2020-02-29', 'ymd', '2020-02-29'],
    ['2021-06/30', 'ymd', null],
    ['31/12/1999', 'dmy', '1999-12-31'],
    ['12/31/1999', 'mdy', '1999-12-31'],
    ['12/31/1999', 'dmy', null],
    ['1.2.2003', 'dmy', '2003-02-01'],
    ['03-04-05', 'dmy', '2005-04-03'],
    ['01/02/70', 'dmy', '1970-02-01'],
    ['01/02/68', 'dmy', '2068-02-01'],
    ['20210630', 'compact', '2021-06-30'],
    ['20211330', 'compact', null],
    ['3 March 2021', 'named', '2021-03-03'],
    ['03-Mar-21', 'named', '2021-03-03'],
    ['March 3, 2021', 'named', '2021-03-03'],
    ['1. März 2021', 'named', '2021-03-01'],
    ['2 août 2020', 'named', '2020-08-02'],
    ['5 de mayo de 2019', 'named', '2019-05-05'],
    ['3rd Foo 2021', 'named', null],
    ['09:30', 'ymd', '09:30:00'],
    ['9:30 pm', 'ymd', '21:30:00'],
    ['12:05 AM', 'ymd', '00:05:00'],
    ['25:00', 'ymd', null],
    ['13:00 pm', 'ymd', null],
    ['2021-06-30T23:15:07', 'ymd', '2021-06-30T23:15:07'],
    ['30/06/2021 7:05', 'dmy', '2021-06-30T07:05:00'],
    ['2021-06-30 23:15:07.250', 'ymd', '2021-06-30T23:15:07'],
    ['', 'ymd', null],
    ['soon', 'ymd', null],
    ['2021', 'ymd', null],
    ['1-2', 'dmy', null],
  ])('%j as %s', (text, form, expected) => {
    expect(iso(text, form)).toBe(expected);
  });

  it('is compared as UTC where zones differ', () => {
    expect(iso('2021-06-30T23:15:00+02:00', 'ymd', true)).toBe('2021-06-30T21:15:00');
    expect(iso('2021-06-30T23:15:00Z', 'ymd', true)).toBe('2021-06-30T23:15:00');
    expect([zoneOf('2021-06-30T23:15:00+02:00'), zoneOf('10:00 UTC'), zoneOf('10:00')]).toEqual([
      '+02:00',
      'Z',
      null,
    ]);
  });

  it('says which orders make a day of it', () => {
    expect([
      dateOrdersOf('03/04/2021'),
      dateOrdersOf('31/04/2021'),
      dateOrdersOf('13/04/2021'),
      dateOrdersOf('04/13/2021'),
    ]).toEqual([['dmy', 'mdy'], [], ['dmy'], ['mdy']]);
  });

  it('reads back every day that it writes, and no other text of that shape is a day', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9999 }),
        fc.integer({ min: 0, max: 13 }),
        fc.integer({ min: 0, max: 32 }),
        (year, month, day) => {
          const number = dayNumber(year, month, day);
          const text = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
          expect(iso(text, 'ymd')).toBe(number === null ? null : text);
          expect(writtenLikeDate(text)).toBe(true);
        },
      ),
    );
  });
});

describe('dates of a column', () => {
  const infer = (texts: string[], hints = {}) => inferStorage(tallyTexts(texts), hints);

  it('is no length of time: hours beyond a day make it text, a slip among times of day does not', () => {
    const lasted = Array.from({ length: 40 }, (_, i) => `${10 + i}:15`);
    expect(infer(lasted).storage).toBe('text');
    const times = Array.from({ length: 60 }, (_, i) => `${String(i % 24).padStart(2, '0')}:${10 + (i % 50)}`);
    expect(infer([...times, '31:10']).storage).toBe('time');
  });

  it('have the order that some cell decides', () => {
    expect(infer(['03/04/2021', '25/04/2021', '01/02/2021'])).toMatchObject({
      storage: 'date',
      dateForm: 'dmy',
      open: null,
    });
    expect(infer(['03/04/2021', '04/25/2021', '01/02/2021'])).toMatchObject({
      storage: 'date',
      dateForm: 'mdy',
      open: null,
    });
  });

  it('leave their order open where no cell decides, and a word from elsewhere decides', () => {
    expect(infer(['03/04/2021', '05/06/2021'])).toMatchObject({ dateForm: 'dmy', open: 'date-order' });
    expect(infer(['03/04/2021', '05/06/2021'], { order: 'mdy' })).toMatchObject({
      dateForm: 'mdy',
      open: 'date-order',
    });
  });

  it('have zones that are taken into account only where they differ', () => {
    expect(infer(['2021-01-01T10:00+01:00', '2021-01-01T10:00+01:00'])).toMatchObject({
      storage: 'datetime',
      utc: false,
    });
    expect(infer(['2021-01-01T10:00+01:00', '2021-01-01T10:00Z'])).toMatchObject({
      storage: 'datetime',
      utc: true,
    });
  });

  it('are not what is merely numbers, years or codes with points', () => {
    expect(infer(['2019', '2020', '2021']).storage).toBe('integer');
    expect(infer(['1.5', '2.5', '11.5']).storage).toBe('decimal');
    expect(infer(['1-2', '3-4', '1-9']).storage).toBe('text');
  });

  it('are codes, and no numbers, where nearly all are padded to one width', () => {
    const padded = Array.from({ length: 40 }, (_, i) => String(100 + i * 7).padStart(4, '0'));
    expect(infer([...padded, '107', '114']).storage).toBe('text');
    expect(infer(['01', '1', '2', '12']).storage).toBe('integer');
  });
});
