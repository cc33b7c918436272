export const DAY = 86_400_000;
const day = (text: string): number => Date.parse(`${text}T00:00:00Z`) / DAY;

/** Days since 1970 that stand for no day: the first or last that a program knows, or that a form begins with. */
export const PLACEHOLDERS = new Set(
  [
    '1111-11-11',
    '1582-10-15',
    '1753-01-01',
    '1800-01-01',
    '1899-12-30',
    '1899-12-31',
    '1900-01-01',
    '1901-01-01',
    '1904-01-01',
    '1960-01-01',
    '1970-01-01',
    '1980-01-01',
    '1999-12-31',
    '2000-01-01',
    '2049-12-31',
    '2050-12-31',
    '2079-06-06',
    '2099-01-01',
    '2099-12-31',
    '2100-01-01',
    '2222-02-22',
    '2999-12-31',
    '3000-01-01',
    '9999-01-01',
    '9999-12-31',
  ].map(day),
);
