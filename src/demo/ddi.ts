import type { Item } from './item';
import { MISPUBLISHED } from './panel';

const escape = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** Where each item stands in a line of fixed-width text: one-based columns, both included. */
export type Places = ReadonlyMap<string, { start: number; end: number }>;

export interface Described {
  title: string;
  files: readonly string[];
  items: readonly Item[];
  /** Raw texts of all observations. */
  rows: readonly (readonly string[])[];
  /** For fixed-width text. */
  places?: Places;
}

/** The codebook of one or several waves as a DDI-Codebook 2.5 document. */
export function codebookXml({ title, files, items, rows, places }: Described): string {
  const groups = new Map<string, string[]>();
  items.forEach(({ group }, i) => groups.set(group, [...(groups.get(group) ?? []), `V${i + 1}`]));
  return `<?xml version="1.0" encoding="UTF-8"?>
<codeBook xmlns="ddi:codebook:2_5" version="2.5">
  <stdyDscr><citation><titlStmt><titl>${escape(title)}</titl><IDNo>QA-4417</IDNo></titlStmt>
    <prodStmt><producer>Quillmere Archive (made up)</producer></prodStmt></citation></stdyDscr>
${files.map((file) => `  <fileDscr><fileTxt><fileName>${file}</fileName>${files.length === 1 ? `<dimensns><caseQnty>${rows.length}</caseQnty><varQnty>${items.length}</varQnty></dimensns>` : ''}</fileTxt></fileDscr>`).join('\n')}
  <dataDscr>
${[...groups].map(([name, ids], i) => `    <varGrp ID="G${i + 1}" var="${ids.join(' ')}"><labl>${escape(name)}</labl></varGrp>`).join('\n')}
${items.map((item, i) => variableXml(item, i, rows, places)).join('\n')}
  </dataDscr>
</codeBook>
`;
}

function variableXml(
  item: Item,
  index: number,
  rows: readonly (readonly string[])[],
  places: Places | undefined,
): string {
  const place = places?.get(item.name);
  const attributes = [
    `ID="V${index + 1}"`,
    `name="${item.name}"`,
    item.interval && `intrvl="${item.interval === 'continuous' ? 'contin' : 'discrete'}"`,
    item.weight && 'wgt="wgt"',
    item.units && `measUnit="${escape(item.units)}"`,
    place && item.decimals && `dcml="${item.decimals}"`,
  ].filter(Boolean);
  const parts = [
    place &&
      `<location StartPos="${place.start}" EndPos="${place.end}" width="${place.end - place.start + 1}" RecSegNo="1"/>`,
    `<labl>${escape(item.label)}</labl>`,
    item.question && `<qstn><qstnLit>${escape(item.question)}</qstnLit></qstn>`,
    item.universe && `<universe>${escape(item.universe)}</universe>`,
    item.range && `<valrng><range min="${item.range[0]}" max="${item.range[1]}"/></valrng>`,
    ...categoriesXml(item, index, rows),
  ].filter(Boolean);
  return `    <var ${attributes.join(' ')}>\n${parts.map((part) => `      ${part}`).join('\n')}\n    </var>`;
}

function categoriesXml(
  { name, codes = [] }: Item,
  column: number,
  rows: readonly (readonly string[])[],
): string[] {
  if (codes.length === 0) return [];
  const counts = new Map(codes.map(([code]) => [String(code), 0]));
  for (const row of rows) {
    const count = counts.get(row[column]);
    if (count !== undefined) counts.set(row[column], count + 1);
  }
  const off = MISPUBLISHED.find(({ variable }) => variable === name);
  return codes.map(([code, label, missing]) => {
    const moved = off?.codes.indexOf(String(code)) ?? -1;
    const published =
      (counts.get(String(code)) ?? 0) +
      (moved === 0 ? -(off?.rows ?? 0) : moved === 1 ? (off?.rows ?? 0) : 0);
    return `<catgry${missing ? ' missing="Y"' : ''}><catValu>${code}</catValu><labl>${escape(label)}</labl><catStat type="freq">${published}</catStat></catgry>`;
  });
}
