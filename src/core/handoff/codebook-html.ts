import type { Reason } from '../extract/words';
import type { Entry } from '../log/entries';
import { entryText } from '../log/entry-text';
import { foldLog, inForce, namesIn } from '../log/fold';
import type { Inspector } from '../inspect/inspect';
import { profileOf, type Profile } from '../inspect/profile';
import { baseSays } from './base';
import { chartSvg } from './chart';
import { calledIn, type Leaving } from './leaving';
import { definitionsHtml } from './definitions';
import { counted, escapeHtml, figure, percentHtml, whole } from './words';

/** More codes of one variable than these are cut short, and it says so. */
const MOST_CODES = 200;

/** More codes without labels than these stand one after the other, and not in rows of a table. */
const MOST_IN_ROWS = 12;

const STYLE = `
:root{--ink:#25231f;--soft:#6b665c;--line:#d8d2c4;--bar:#5d6f63;--paper:#fffdf8}
*{box-sizing:border-box}body{margin:2.2rem auto;max-width:52rem;padding:0 1.5rem;background:var(--paper);color:var(--ink);font:15px/1.45 "Source Sans 3","Segoe UI",system-ui,sans-serif}
h1{font-size:1.7rem;margin:0 0 .2rem}h2{font-size:1.2rem;margin:2.2rem 0 .6rem;border-bottom:2px solid var(--ink)}h3{font-size:1.05rem;margin:0 0 .2rem}
.soft{color:var(--soft)}.code{font-family:"Source Code Pro",ui-monospace,Consolas,monospace;font-size:.92em}
table{border-collapse:collapse;font-variant-numeric:tabular-nums}th,td{text-align:left;padding:.12rem .6rem .12rem 0;border-bottom:1px solid var(--line);vertical-align:top}
th{font-weight:600;color:var(--soft);font-size:.86em}td.n,th.n{text-align:right;white-space:nowrap}tr.missing td{font-style:italic}
ol.contents{columns:2;column-gap:1.4rem;padding:0}ol.contents li{margin-left:2.8rem;break-inside:avoid}section.variable{border-top:1px solid var(--ink);padding:.8rem 0 1.1rem}section.variable h3,section.variable>p{break-after:avoid}svg.chart,p.codes{break-inside:avoid}p{margin:.2rem 0}
svg.chart{max-width:24rem;height:auto;font:11px "Source Sans 3",system-ui,sans-serif}svg.chart rect{fill:var(--bar)}svg.chart text{fill:var(--ink)}svg.chart line{stroke:var(--soft)}
p.codes .one{white-space:nowrap}a{color:inherit}@media print{body{margin:0;max-width:none;font-size:10pt;background:#fff}h2{break-after:avoid}thead{display:table-header-group}tr{break-inside:avoid}a{text-decoration:none}@page{margin:16mm}}`;

/**
 * The annotated codebook: what a colleague reads instead of asking. Contents, an index by set, and for each variable that goes
 * out its names, question, universe, kind, codes with counts, why codes are no answer, figures, rulings and notes. One file
 * that needs nothing else: no script, no font, no request.
 */
export async function* codebookHtml(
  inspector: Inspector,
  log: readonly Entry[],
  leaving: Leaving,
  madeAt: Date,
): AsyncGenerator<string> {
  const { variables, groups, title, name } = leaving;
  const place = new Map(variables.map((one, i) => [one.name, i + 1]));
  const link = (one: string): string =>
    `<a href="#v${place.get(one)}"><span class="code">${escapeHtml(one)}</span></a>`;
  const { weighting } = inspector;
  yield `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; img-src data:"><meta name="viewport" content="width=device-width"><title>${escapeHtml(name)}: codebook</title><style>${STYLE}</style></head><body>
<h1>${escapeHtml(title)}</h1>
<p class="soft">Codebook of ${escapeHtml(name)}, made with Dig First, ${madeAt.toISOString().slice(0, 10)}. ${counted(variables.length, 'variable')}; all counts are of ${escapeHtml(baseSays(inspector))}${weighting ? ', plain counts of rows' : ', unweighted'}. <a href="#definitions">How figures are defined</a></p>
<h2>Contents</h2><ol class="contents">${variables.map((one) => `<li>${link(one.name)} ${escapeHtml(one.entry.label ?? '')}</li>`).join('')}</ol>
`;
  if (groups.length)
    yield `<h2>By set</h2>${groups
      .map(
        (group) =>
          `<p><strong>${escapeHtml(group.name)}</strong>${group.within ? ` <span class="soft">in ${escapeHtml(group.within)}</span>` : ''}: ${group.variables.map(link).join(', ')}</p>`,
      )
      .join('')}\n`;
  yield '<h2>Variables</h2>\n';
  const flags = inspector.flags;
  const names = namesIn(foldLog(log));
  const rulings = inForce(log);
  for (const [i, variable] of variables.entries()) {
    const archive = variable.inspected.name;
    const profile = await profileOf(inspector, archive, {}, flags);
    if (!profile) continue;
    const own = rulings.filter((entry) => isAbout(entry, archive));
    yield `<section class="variable" id="v${i + 1}"><h3><span class="code">${escapeHtml(variable.name)}</span>${calledIn(inspector, archive) === archive ? '' : ` <span class="soft">(${escapeHtml(archive)} in the archive)</span>`} ${escapeHtml(variable.entry.label ?? '')}</h3>
${variablePart(profile, variable.entry)}${
      own.length
        ? `<p><strong>Rulings</strong></p><ul>${own.map((entry) => `<li>${escapeHtml(entryText(entry, names))}${entry.why ? `: ${escapeHtml(entry.why)}` : ''}</li>`).join('')}</ul>`
        : ''
    }</section>\n`;
  }
  yield `${definitionsHtml()}
</body></html>
`;
}

/** Whether a ruling is about a variable. */
function isAbout(entry: Entry, name: string): boolean {
  if (entry.type === 'sign-off' || entry.type === 'note' || entry.type === 'undo') return false;
  if ('variable' in entry) return entry.variable === name;
  if ('variables' in entry && Array.isArray(entry.variables)) return entry.variables.includes(name);
  if (entry.type === 'confirm-kind') return entry.kinds.some((one) => one.variable === name);
  if (entry.type === 'confirm-role') return entry.roles.some((one) => one.variable === name);
  if (entry.type === 'correct-cells') return entry.cells.some((one) => one.variable === name);
  return false;
}

function variablePart(
  { variable: v, asked, picture }: Profile,
  entry: Leaving['variables'][number]['entry'],
): string {
  const { counts } = v;
  const lines = [
    entry.question && `“${escapeHtml(entry.question)}”`,
    (entry.universe ?? asked) &&
      `<span class="soft">Asked:</span> ${escapeHtml(entry.universe ?? '')}${asked ? ` <span class="soft">${asked.accepted ? 'taken for' : 'by its blanks'} ${escapeHtml(asked.says)}</span>` : ''}`,
    `<span class="soft">Kind:</span> ${v.kind}${v.confirmed ? ', confirmed' : ', presumed'}; ${v.storage}; ${v.role}${entry.units ? `; in ${escapeHtml(entry.units)}` : ''}${v.signedOff ? '; signed off' : ''}`,
    `<span class="soft">Of ${counted(counts.all, 'row')}:</span> ${(
      [
        ['valid', counts.valid],
        ['not asked', counts.notAsked],
        ['missing', counts.missing],
        ['blank', counts.blank],
        ['unreadable', counts.unreadable],
      ] as const
    )
      .filter(([, n]) => n > 0)
      .map(([says, n]) => `${whole(n)} ${says} (${percentHtml(n / Math.max(1, counts.all))})`)
      .join(', ')}; ${counted(counts.distinct, 'distinct value')}`,
    ...entry.notes.map((note) => `<span class="soft">Note:</span> ${escapeHtml(note)}`),
  ];
  const { statistics: s } = v;
  const figures = (
    [
      ['lowest', s.min],
      ['quartile', s.q1],
      ['median', s.median],
      ['quartile', s.q3],
      ['highest', s.max],
      ['mean', s.mean],
      ['SD', s.sd],
    ] as const
  ).filter(([, value]) => value !== null);
  return `${lines
    .filter(Boolean)
    .map((line) => `<p>${line}</p>`)
    .join(
      '',
    )}${figures.length ? `<p class="soft">${figures.map(([says, value]) => `${says} ${figure(value)}`).join(', ')}</p>` : ''}
${codes(v, entry)}${isPlainList(listedOf(v, entry)) ? '' : chartSvg(picture, `Distribution of ${v.name}`)}`;
}

interface Listed {
  code: string;
  label: string | null;
  missing: boolean;
  reason: Reason | null;
}

/** Codes that are listed of a variable: those that are described, else those that its rows hold. */
const listedOf = (
  { frequencies, kind }: Profile['variable'],
  { categories }: Leaving['variables'][number]['entry'],
): readonly Listed[] =>
  categories.length
    ? categories
    : kind === 'nominal' || kind === 'ordinal'
      ? frequencies.map(({ code, label, missing }) => ({ code, label, missing, reason: null }))
      : [];

/** Many codes without labels: they are told one after the other, and a chart of them would say nothing more. */
const isPlainList = (listed: readonly Listed[]): boolean =>
  listed.length > MOST_IN_ROWS && listed.every(({ label }) => label === null);

function codes(variable: Profile['variable'], entry: Leaving['variables'][number]['entry']): string {
  const { counts } = variable;
  const counted_ = new Map(variable.frequencies.map((one) => [one.code, one.count]));
  const listed = listedOf(variable, entry);
  if (listed.length === 0) return '';
  if (isPlainList(listed)) {
    const told = listed.slice(0, MOST_CODES).map(({ code, missing }) => {
      const n = counted_.get(code) ?? 0;
      const share = missing ? '' : `, ${percentHtml(n / Math.max(1, counts.valid))}`;
      return `<span class="one"><span class="code">${escapeHtml(code)}</span> ${whole(n)}${share}</span>`;
    });
    const left = listed.length - told.length;
    return `<p class="codes"><span class="soft">Codes with rows and share of valid:</span> ${told.join('; ')}${left > 0 ? `; and ${counted(left, 'code')} more` : ''}</p>`;
  }
  const rows = listed.slice(0, MOST_CODES).map(({ code, label, missing, reason }) => {
    const n = counted_.get(code) ?? 0;
    return `<tr${missing ? ' class="missing"' : ''}><td class="code">${escapeHtml(code)}</td><td>${escapeHtml(label ?? '')}${missing ? ` <span class="soft">(no answer: ${reason ?? 'other'})</span>` : ''}</td><td class="n">${whole(n)}</td><td class="n">${missing ? '' : percentHtml(n / Math.max(1, counts.valid))}</td></tr>`;
  });
  return `<table><thead><tr><th>Code</th><th>Label</th><th class="n">Rows</th><th class="n">of valid</th></tr></thead><tbody>${rows.join('')}</tbody></table>${
    listed.length > MOST_CODES
      ? `<p class="soft">${listed.length - MOST_CODES} more codes are not shown.</p>`
      : ''
  }`;
}
