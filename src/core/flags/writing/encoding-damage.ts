import { validOf } from '../../infer/levels';
import { LOOK } from '../../read/text-looks';
import { rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/** Text that was decoded wrongly somewhere: replacement characters, UTF-8 read as Windows-1252, control characters. */
export const encodingDamage: VariableRule = {
  rule: 'encoding-damage',
  needs: 'tally',
  answers: 'whole',
  look,
};

/** UTF-8 bytes taken for Windows-1252 or ISO 8859-1: a letter of the first half, then one that stands for a trailing byte. */
const TWICE =
  /[ÃÂ][\u0080-\u00bf\u20ac\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u017d\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u017e\u0178]|â€[\u0080-\u00bf\u2122\u0153\u009d\u201c\u201d\u0161\u02dc\u2039\u00a6]|ï»¿|Å[\u0080-\u00bf“”]/u;
const LOST = /\ufffd/;
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]/;
const isDamaged = (text: string): boolean => LOST.test(text) || TWICE.test(text) || CONTROL.test(text);

function look({ name, written, levels }: Subject): Flag[] {
  if (written.storage !== 'text') return [];
  const found = [...validOf(levels).levels.whereCode(isDamaged, { none: LOOK.plain })];
  if (found.length === 0) return [];
  const rows = found.reduce((sum, { count }) => sum + count, 0);
  const [{ code }] = found;
  const what = LOST.test(code)
    ? 'characters that were lost (\ufffd)'
    : TWICE.test(code)
      ? 'text decoded twice'
      : 'control characters';
  return [
    {
      rule: 'encoding-damage',
      variables: [name],
      codes: found.length <= 20 ? found.map((level) => level.code) : [],
      rows,
      severity: 'medium',
      certainty: 0.95,
      says: `${rowsHold(rows)} ${what}, such as “${code.replace(/[\u0000-\u001f\u007f-\u009f]/g, '·').slice(0, 60)}”`,
    },
  ];
}
