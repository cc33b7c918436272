import { entryCarried } from '../../codebook/handed';
import { HANDED } from '../../extract/carried';
import type { CodebookEntry, CodeRange } from '../../extract/extract';
import { isCategorical, isMeasure, isNumericStorage } from '../../extract/words';
import { validOf } from '../../infer/levels';
import { documented } from '../../inspect/inspected';
import { largest, smallest } from '../../tally/extent';
import type { Leaving, LeavingVariable } from '../leaving';
import { escapeXml } from '../words';
import { bytesOf, type FileOut } from './file';

const NATURES: Partial<Record<string, string>> = {
  nominal: 'nominal',
  ordinal: 'ordinal',
  continuous: 'ratio',
  count: 'ratio',
};

/**
 * DDI-Codebook 2.5: study, files, groups, and per variable label, question, universe, ranges, categories with published
 * frequencies, summary figures, notes. Elements stand in the order that the schema asks for.
 */
export function ddiFile(leaving: Leaving): FileOut {
  const { name, title, variables, groups, rows } = leaving;
  const ids = new Map(variables.map((one, i) => [one.name, `V${i + 1}`]));
  const groupIds = new Map(groups.map((group, i) => [group.name, `G${i + 1}`]));
  return {
    name: `${name}.xml`,
    *pieces() {
      yield bytesOf(`<?xml version="1.0" encoding="UTF-8"?>
<codeBook xmlns="ddi:codebook:2_5" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xsi:schemaLocation="ddi:codebook:2_5 http://www.ddialliance.org/Specification/DDI-Codebook/2.5/XMLSchema/codebook.xsd" version="2.5">
<stdyDscr><citation><titlStmt><titl>${text(title)}</titl></titlStmt></citation></stdyDscr>
<fileDscr ID="F1" URI="${attribute(encodeURI(`${name}.csv`))}"><fileTxt><fileName>${text(`${name}.csv`)}</fileName><dimensns><caseQnty>${rows.count}</caseQnty><varQnty>${variables.length}</varQnty></dimensns><fileType>text/csv; charset=utf-8</fileType></fileTxt></fileDscr>
<dataDscr>
`);
      for (const group of groups) {
        const parts = groups
          .filter(({ within }) => within === group.name)
          .map((one) => groupIds.get(one.name));
        const inParts = new Set(
          groups.filter(({ within }) => within === group.name).flatMap((one) => one.variables),
        );
        const own = group.variables.filter((one) => !inParts.has(one)).flatMap((one) => ids.get(one) ?? []);
        yield bytesOf(
          `<varGrp ID="${groupIds.get(group.name)}" type="subject"${own.length ? ` var="${own.join(' ')}"` : ''}${parts.length ? ` varGrp="${parts.join(' ')}"` : ''}><labl>${text(group.name)}</labl></varGrp>\n`,
        );
      }
      for (const variable of variables)
        yield bytesOf(`${variableXml(variable, ids.get(variable.name) ?? '')}\n`);
      yield bytesOf('</dataDscr>\n</codeBook>\n');
    },
  };
}

function variableXml({ name, storage, entry, inspected }: LeavingVariable, id: string): string {
  const { kind } = inspected;
  const { counts, statistics } = documented(inspected);
  const invalid = [
    ...entry.missingRanges.map(rangeXml),
    ...entry.categories.flatMap(({ code, missing }) =>
      missing && Number.isFinite(Number(code)) && code.trim() !== ''
        ? [`<item VALUE="${attribute(code)}"/>`]
        : [],
    ),
  ];
  const ranges = entry.validRanges.length ? entry.validRanges : observed(storage, inspected);
  const figure = (type: string, value: number | string | null): string =>
    value === null || typeof value === 'string' ? '' : `<sumStat type="${type}">${value}</sumStat>`;
  const figures = [
    figure('vald', counts.valid),
    figure('invd', counts.all - counts.valid),
    ...(isMeasure(kind)
      ? [
          figure('min', statistics.min),
          figure('max', statistics.max),
          figure('mean', statistics.mean),
          figure('stdev', statistics.sd),
        ]
      : []),
  ].join('');
  const attributes = [
    `ID="${id}"`,
    `name="${attribute(name)}"`,
    'files="F1"',
    ...(entry.isWeight ? ['wgt="wgt"'] : []),
    ...(entry.interval ? [`intrvl="${entry.interval === 'continuous' ? 'contin' : 'discrete'}"`] : []),
    ...(entry.units ? [`measUnit="${attribute(entry.units)}"`] : []),
    ...(inspected.confirmed && NATURES[kind] ? [`nature="${NATURES[kind]}"`] : []),
  ];
  const type =
    isNumericStorage(storage) && counts.unreadable === 0
      ? `<varFormat type="numeric"/>`
      : '<varFormat type="character"/>';
  return `<var ${attributes.join(' ')}>${entry.label === null ? '' : `<labl>${text(entry.label)}</labl>`}${
    entry.question ? `<qstn><qstnLit>${text(entry.question)}</qstnLit></qstn>` : ''
  }${ranges.length ? `<valrng>${ranges.map(rangeXml).join('')}</valrng>` : ''}${
    invalid.length ? `<invalrng>${invalid.join('')}</invalrng>` : ''
  }${entry.universe ? `<universe>${text(entry.universe)}</universe>` : ''}${figures}${categoriesOf(
    entry,
    inspected,
  )
    .map(categoryXml)
    .join(
      '',
    )}${type}${entry.notes.map((note) => `<notes>${text(note)}</notes>`).join('')}<notes type="${HANDED}">${text(
    JSON.stringify(entryCarried(entry)),
  )}</notes></var>`;
}

/** The range of the valid numbers, where the archive gives none. */
function observed(
  storage: LeavingVariable['storage'],
  { levels }: LeavingVariable['inspected'],
): CodeRange[] {
  const { values } = validOf(levels);
  return isNumericStorage(storage) && values.length > 0
    ? [{ min: smallest(values), max: largest(values) }]
    : [];
}

/** Codes without a label beyond so many are no list of categories. */
const MOST_CATEGORIES = 1000;
/** Categories with their frequencies, those without a label too where codes are what a variable is made of. */
function categoriesOf(
  { categories }: CodebookEntry,
  { kind, levels }: LeavingVariable['inspected'],
): CodebookEntry['categories'] {
  if (!isCategorical(kind)) return categories;
  const known = new Set(categories.map(({ code }) => code));
  const { levels: valid } = validOf(levels);
  if (valid.length > MOST_CATEGORIES) return categories;
  const bare = [...valid]
    .filter(({ code, label }) => label === null && !known.has(code))
    .map(({ code, count }) => ({ code, label: null, missing: false, reason: null, frequency: count }));
  if (bare.length === 0) return categories;
  const place = new Map([...valid].map(({ code }, i) => [code, i]));
  const rank = ({ code, missing }: CodebookEntry['categories'][number]): number =>
    place.get(code) ?? (missing ? Infinity : place.size);
  return [...categories, ...bare].sort((a, b) => (rank(a) === rank(b) ? 0 : rank(a) - rank(b)));
}

const rangeXml = ({ min, max }: CodebookEntry['validRanges'][number]): string =>
  `<range${min === null ? '' : ` min="${min}"`}${max === null ? '' : ` max="${max}"`}/>`;

const categoryXml = ({
  code,
  label,
  missing,
  reason,
  frequency,
}: CodebookEntry['categories'][number]): string =>
  `<catgry${missing ? ` missing="Y"${reason ? ` missType="${reason}"` : ''}` : ''}><catValu>${text(code)}</catValu>${label === null ? '' : `<labl>${text(label)}</labl>`}${frequency === null ? '' : `<catStat type="freq">${frequency}</catStat>`}</catgry>`;

/** Signs that XML has no room for are told in the notes alone. */
const text = (value: string): string => escapeXml(value).replaceAll('\r', '&#13;');
const attribute = (value: string): string => text(value).replace(/\n/g, '&#10;').replace(/\t/g, '&#9;');
