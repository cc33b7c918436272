import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { couldBeNumber, guessNumberForm, PLAIN, readNumber, type NumberForm } from './number';

const german: NumberForm = { decimal: ',', thousands: '.', implied: 0 };
const english: NumberForm = { decimal: '.', thousands: ',', implied: 0 };
const french: NumberForm = { decimal: ',', thousands: ' ', implied: 0 };

describe('a number as it is written', () => {
  it.each<[string, NumberForm, number | null]>([
    ['12', PLAIN, 12],
    ['-0.5', PLAIN, -0.5],
    ['.5', PLAIN, 0.5],
    ['5.', PLAIN, 5],
    ['+7', PLAIN, 7],
    ['1e3', PLAIN, 1000],
    ['-2.5E-2', PLAIN, -0.025],
    ['  8 ', PLAIN, 8],
    ['1.234,56', german, 1234.56],
    ['1.234', german, 1234],
    ['0,5', german, 0.5],
    ['-12,25', german, -12.25],
    ['1.23', german, null],
    ['1,234.56', english, 1234.56],
    ['1,23', english, null],
    ['12,345,678', english, 12345678],
    ['1234,567', english, null],
    ['1 234,5', french, 1234.5],
    ['1\u00a0234\u202f567', french, 1234567],
    ["1'234.5", { decimal: '.', thousands: "'", implied: 0 }, 1234.5],
    ['(1,200)', english, -1200],
    ['(12)', PLAIN, -12],
    ['12-', PLAIN, -12],
    ['\u22123', PLAIN, -3],
    ['- 5', PLAIN, -5],
    ['(-5)', PLAIN, null],
    ['(5', PLAIN, null],
    ['$1,200.50', english, 1200.5],
    ['€ 12', PLAIN, 12],
    ['12 €', PLAIN, 12],
    ['-£3', PLAIN, -3],
    ['£-3', PLAIN, -3],
    ['EUR 5', PLAIN, 5],
    ['45%', PLAIN, 45],
    ['4.5 %', PLAIN, 4.5],
    ['', PLAIN, null],
    ['.', PLAIN, null],
    ['-', PLAIN, null],
    ['12 yrs', PLAIN, null],
    ['1.2.3', PLAIN, null],
    ['0x10', PLAIN, null],
    ['Infinity', PLAIN, null],
    ['NaN', PLAIN, null],
    ['1e999', english, null],
    ['١٢', PLAIN, null],
  ])('%j under %j', (text, form, value) => {
    expect(readNumber(text, form)).toBe(value);
  });

  it('has decimals that the file leaves out, unless a point stands there', () => {
    const implied = { ...PLAIN, implied: 2 };
    expect(['1234', '5', '-70', '12.5'].map((text) => readNumber(text, implied))).toEqual([
      12.34, 0.05, -0.7, 12.5,
    ]);
  });

  it('reads back whatever a form writes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1_000_000_000, max: 1_000_000_000 }),
        fc.constantFrom(english, german, french),
        (cents, form) => {
          const [whole, rest] = [
            Math.trunc(Math.abs(cents) / 100),
            String(Math.abs(cents) % 100).padStart(2, '0'),
          ];
          const grouped = String(whole).replace(/\B(?=(\d{3})+$)/g, form.thousands);
          expect(readNumber(`${cents < 0 ? '-' : ''}${grouped}${form.decimal}${rest}`, form)).toBeCloseTo(
            cents / 100,
            9,
          );
        },
      ),
    );
  });

  it('is nothing but what it says: any text gives a finite number or none', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const value = readNumber(text, english);
        expect(value === null || Number.isFinite(value)).toBe(true);
        if (value !== null) expect(couldBeNumber(text)).toBe(true);
      }),
    );
  });
});

describe('the form of a column', () => {
  const guess = (texts: string[], mark: '.' | ',' | null = null) =>
    guessNumberForm(
      texts,
      texts.map(() => 1),
      mark,
    );

  it('is told by cells that only one form reads', () => {
    expect(guess(['1.234,50', '12,00', '3.000,25'])).toMatchObject({ form: german, cells: 3, open: false });
    expect(guess(['1,234.50', '12.00'])).toMatchObject({ form: english, cells: 2, open: false });
    expect(guess(['1 234,50', '12,00'])).toMatchObject({ form: french, open: false });
    expect(guess(['12,5', '3,25']).form).toMatchObject({ decimal: ',' });
  });

  it('is open where a thousand may be a little more than one, and then a word from elsewhere decides', () => {
    expect(guess(['1,234', '5,678'])).toMatchObject({ open: true, form: english });
    expect(guess(['1,234', '5,678'], ',')).toMatchObject({ open: true, form: { decimal: ',' } });
    expect(guess(['1,234', '5,678'], ',').because).toContain('the rest of the extract says');
  });
});
