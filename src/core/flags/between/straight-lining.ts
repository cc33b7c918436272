import { spellingsOf, validOf } from '../../infer/levels';
import { batteriesOf } from './batteries';
import { percentOf, type ExtractRule, type Flag, type Whole } from '../rule';

/**
 * Rows that give one and the same answer to every item of a battery: read, or only ticked through? Some are honest, so it is
 * a remark, and only where they are far more than independent answers would make.
 */
export const straightLining: ExtractRule = {
  rule: 'straight-lining',
  needs: 'rows',
  answers: 'rows',
  look,
};

/** With fewer items the same answer to all is nothing unusual. */
const LEAST_ITEMS = 6;
const LEAST_ROWS = 10;
const LEAST_SHARE = 0.005;
/** A battery that more rows answer alike is one in which everybody agrees. */
const MOST_SHARE = 0.3;
const TIMES_EXPECTED = 4;

function look({ extract, subjects, studied = subjects }: Whole): Flag[] {
  return batteriesOf(studied)
    .filter((items) => items.length >= LEAST_ITEMS)
    .flatMap((items): Flag[] => {
      const columns = items.map((i) => extract.variables[i].column);
      const valid = items.map((i) => validOf(studied[i].levels));
      const values = valid.map(
        ({ levels }) =>
          new Map(levels.flatMap((level) => spellingsOf(level).map((text) => [text, level.value] as const))),
      );
      const read = columns.map((column, n) => column.lift((text) => values[n].get(text) ?? null));
      const at: number[] = [];
      let answered = 0;
      for (let row = 0; row < extract.rows; row++) {
        const first = read[0](row);
        if (first === null) continue;
        let [whole, alike] = [true, true];
        for (let n = 1; n < read.length && whole; n++) {
          const value = read[n](row);
          if (value === null) whole = false;
          else if (value !== first) alike = false;
        }
        if (!whole) continue;
        answered++;
        if (alike) at.push(row);
      }
      const codes = [...new Set(valid.flatMap((one) => [...one.values]))];
      const expected =
        answered *
        codes.reduce(
          (sum, code) =>
            sum +
            valid.reduce(
              (product, { levels, rows }) =>
                product * ((levels.find(({ value }) => value === code)?.count ?? 0) / Math.max(1, rows)),
              1,
            ),
          0,
        );
      if (
        at.length < LEAST_ROWS ||
        at.length < answered * LEAST_SHARE ||
        at.length > answered * MOST_SHARE ||
        at.length < expected * TIMES_EXPECTED
      )
        return [];
      return [
        {
          rule: 'straight-lining',
          variables: items.map((i) => studied[i].name),
          codes: [],
          rows: at.length,
          severity: 'note',
          certainty: 0.7,
          at,
          says: `${at.length} of ${answered} rows (${percentOf(at.length, answered)} of 100) give the same answer to all ${items.length} items, where answers that hang on nothing would make about ${Math.round(expected)}`,
        },
      ];
    });
}
