import { tableSays } from '../cross/kept-table';
import { InputError } from '../extract/problem';
import { crossDocument } from '../inspect/crossing';
import type { Entry } from '../log/entries';
import { laidTable, tableHtml } from './laid-table';
import { baseSays } from './base';
import { entryText } from '../log/entry-text';
import { foldLog, inForce, namesIn } from '../log/fold';
import type { Flag } from '../flags/rule';
import { evidenceOf } from '../inspect/evidence';
import { documented, type Inspected } from '../inspect/inspected';
import type { Inspector } from '../inspect/inspect';
import type { Asked } from '../inspect/asked';
import { profileOf } from '../inspect/profile';
import type { InspectedVariable } from '../inspect/schema';
import type { Weighted } from '../inspect/weighted';
import { chartSvg } from './chart';
import { definitionsHtml } from './definitions';
import { counted, escapeHtml, figure, percentHtml, whole } from './words';

/** More frequencies than this are cut short in the report, and it says so. */
const MOST_FREQUENCIES = 40;

const STYLE = `
:root{--ink:#25231f;--soft:#6b665c;--line:#d8d2c4;--bar:#5d6f63;--paper:#fffdf8}
*{box-sizing:border-box}body{margin:2.2rem auto;max-width:62rem;padding:0 1.5rem;background:var(--paper);color:var(--ink);font:15px/1.45 "Source Sans 3","Segoe UI",system-ui,sans-serif}
h1{font-size:1.7rem;margin:0 0 .2rem}h2{font-size:1.2rem;margin:2.2rem 0 .6rem;border-bottom:2px solid var(--ink)}h3{font-size:1rem;margin:0}
.base,.soft{color:var(--soft)}code,.code{font-family:"Source Code Pro",ui-monospace,Consolas,monospace;font-size:.92em}
table{border-collapse:collapse;font-variant-numeric:tabular-nums;width:100%}th,td{text-align:left;padding:.15rem .5rem;border-bottom:1px solid var(--line);vertical-align:top}
th{font-weight:600;color:var(--soft);font-size:.86em}td.n,th.n{text-align:right;white-space:nowrap}tr.missing td{color:var(--soft);font-style:italic}
.tables h3{margin-top:1.4rem}.tables h4{margin:.8rem 0 .2rem;font-size:1em}.tables table{width:auto;margin:.4rem 0}.tables p{margin:.2rem 0}section.variable{border-top:1px solid var(--ink);padding:.8rem 0 1.2rem;break-inside:avoid-page}.two{display:flex;flex-wrap:wrap;gap:1.5rem;margin-top:.5rem}.two>*{flex:1 1 20rem}
.kind{font-size:.86em;border:1px dashed var(--soft);padding:0 .4em;border-radius:2px}.kind.confirmed{border-style:solid;border-color:var(--ink);font-weight:600}
.flag{border-left:4px solid #a8461d;padding-left:.6rem;margin:.4rem 0}
svg.chart{max-width:100%;height:auto;font:11px "Source Sans 3",system-ui,sans-serif}svg.chart rect{fill:var(--bar)}svg.chart text{fill:var(--ink)}svg.chart line{stroke:var(--soft)}
@media print{body{margin:0;max-width:none;font-size:10pt;background:#fff}h2{break-after:avoid}thead{display:table-header-group}tr{break-inside:avoid}a{color:inherit;text-decoration:none}@page{margin:16mm}}`;

/**
 * The report to read: inventory, a profile for each variable named with its chart as inline SVG, and the rulings. One
 * file that needs nothing else: no script, no font, no request.
 */
export async function reportHtml(
  inspector: Inspector,
  log: readonly Entry[],
  names: readonly string[],
  madeAt: Date,
): Promise<string> {
  const wanted = new Set(names);
  const { extract, flags } = inspector;
  const variables = inspector.variables.filter(({ name }) => wanted.has(name));
  const confirmed = variables.filter((variable) => variable.confirmed).length;
  const left = extract.variables.length - variables.length;
  const { weighting } = inspector;
  const profiles: string[] = [];
  for (const variable of variables) profiles.push(await profile(inspector, variable, flags));
  const base = `All figures are ${weighting ? `plain counts of rows; weighted ones stand beside them, weighted by ${escapeHtml(weighting.inspected.name)}. They are` : 'unweighted and'} based on ${escapeHtml(baseSays(inspector))}.`;
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; img-src data:"><meta name="viewport" content="width=device-width"><title>${escapeHtml(extract.name)}: inspection</title><style>${STYLE}</style></head><body>
<h1>${escapeHtml(extract.name)}</h1>
<p class="base">Inspected with Dig First, ${madeAt.toISOString().slice(0, 16).replace('T', ' ')} UTC. ${base}
${counted(variables.length, 'variable')}${left ? ` in view, ${left} of the extract not reported` : ''}; ${counted(confirmed, 'kind')} confirmed by a person, ${variables.length - confirmed} presumed. <a href="#definitions">How figures are defined</a></p>
${sources(inspector)}
${sieve(inspector)}<h2>Inventory</h2>
${inventory(inspector, variables, flags)}
<h2>Rulings</h2>
${rulings(log)}
${await tables(inspector)}
<h2>Profiles</h2>
${profiles.join('\n')}
${definitionsHtml()}
</body></html>
`;
}

/** Cross-checks that are kept, as they are under the rulings in force; one that cannot be made says why. */
async function tables(inspector: Inspector): Promise<string> {
  const { tables: kept, called } = inspector.decided;
  if (kept.size === 0) return '';
  const parts: string[] = [];
  for (const asked of kept.values()) {
    const name = (one: string): string => called.get(one)?.name ?? one;
    try {
      const told = await crossDocument(inspector, { ...asked, weight: null, binned: true });
      parts.push(tableHtml(laidTable(told, asked, baseSays(inspector), name)));
    } catch (cause) {
      if (!(cause instanceof InputError)) throw cause;
      const { file, says } = cause.problem;
      parts.push(
        `<h3>${escapeHtml(tableSays(asked, name))}</h3><p class="soft">Not made: ${escapeHtml(`${file}: ${says}`)}.</p>`,
      );
    }
  }
  return `<h2>Cross-checks</h2>
<section class="tables">${parts.join('\n')}</section>`;
}

/** What the sieve in force does, condition by condition; nothing without one. */
function sieve({ account, rowCounts }: Inspector): string {
  if (account.length === 0) return '';
  const lines = account.map(
    ({ says, keeps, drops, dropsAlone, left }) =>
      `<tr><td>${escapeHtml(says)}</td><td class="n">${whole(keeps)}</td><td class="n">${whole(drops)}</td><td class="n">${whole(dropsAlone)}</td><td class="n">${whole(left)}</td></tr>`,
  );
  return `<h2>Sieve</h2>
<table><thead><tr><th>Condition</th><th class="n">Keeps of ${whole(rowCounts.all)}</th><th class="n">Drops</th><th class="n">It alone</th><th class="n">Left</th></tr></thead><tbody>${lines.join('')}</tbody></table>
`;
}

function sources({ extract }: Inspector): string {
  const rows = extract.files.map(
    (file) =>
      `<tr><td class="code">${escapeHtml(file.name)}</td><td class="n">${whole(file.rows)}</td><td class="n">${file.columns}</td><td>${file.encoding}</td><td class="n">${whole(file.bytes)}</td><td>${file.notices.length ? counted(file.notices.length, 'notice') : ''}</td></tr>`,
  );
  const notices = [
    ...extract.files.flatMap(({ name, notices: found }) =>
      found.map(({ line, says }) => `${name}${line ? `, line ${line}` : ''}: ${says}`),
    ),
    ...extract.notices.map(({ says }) => says),
  ];
  const books = extract.codebooks.map(
    ({ name, title }) => `${escapeHtml(name)}${title ? ` (${escapeHtml(title)})` : ''}`,
  );
  return `<h2>What was received</h2><table><thead><tr><th>File</th><th class="n">Rows</th><th class="n">Columns</th><th>Encoding</th><th class="n">Bytes</th><th></th></tr></thead><tbody>${rows.join('')}</tbody></table>
<p>${books.length ? `Codebook: ${books.join(', ')}.` : 'No codebook.'}</p>${notices.length ? `<ul>${notices.map((says) => `<li>${escapeHtml(says)}</li>`).join('')}</ul>` : ''}`;
}

const kindMark = (variable: { kind: string; confirmed: boolean }): string =>
  `<span class="kind${variable.confirmed ? ' confirmed' : ''}">${variable.kind}${variable.confirmed ? '' : '?'}</span>`;

/** A name as the person calls it, the archive's own beside it. */
const nameHtml = (name: string, called: string | null): string =>
  called === null
    ? `<span class="code">${escapeHtml(name)}</span>`
    : `<span class="code">${escapeHtml(called)}</span> <span class="soft">(<span class="code">${escapeHtml(name)}</span> in the archive)</span>`;

/** A label as the person gave it, the archive's own beside it. */
function labelHtml({ label, entry }: Inspected): string {
  const archive = entry?.label ?? null;
  const own = escapeHtml(label ?? '');
  return archive === label || archive === null
    ? own
    : `${own} <span class="soft">(${escapeHtml(archive)} in the archive)</span>`;
}

function inventory(inspector: Inspector, variables: readonly Inspected[], flags: readonly Flag[]): string {
  const rows = variables.map((v) => {
    const { called, signedOff, note } = inspector.said(v.name);
    const own = flags.filter((flag) => flag.variables.includes(v.name));
    return (
      `<tr><td class="n">${v.position}</td><td><a href="#v${v.position}">${nameHtml(v.name, called)}</a></td><td>${labelHtml(v)}${note === null ? '' : `<br><span class="soft">Note: ${escapeHtml(note)}</span>`}</td><td>${kindMark(v)}</td>` +
      `<td class="n">${whole(v.counts.distinct)}</td><td class="n">${whole(v.counts.valid)}</td><td class="n">${percentHtml(v.counts.valid / v.counts.all)}</td><td class="n">${own.length || ''}</td><td>${signedOff ? 'yes' : ''}</td></tr>`
    );
  });
  return `<table><thead><tr><th class="n">No.</th><th>Name</th><th>Label</th><th>Kind (dashed, with ?: presumed)</th><th class="n">Distinct</th><th class="n">Valid</th><th class="n">Share of all rows</th><th class="n">Flags</th><th>Signed off</th></tr></thead><tbody>${rows.join('\n')}</tbody></table>`;
}

function rulings(log: readonly Entry[]): string {
  const names = namesIn(foldLog(log));
  const standing = inForce(log);
  if (standing.length === 0) return '<p>Nothing was ruled on; every kind is the program’s presumption.</p>';
  return `<ol>${standing.map((entry) => `<li>${escapeHtml(entryText(entry, names))}${entry.why ? `: ${escapeHtml(entry.why)}` : ''} <span class="soft">${entry.at.slice(0, 16).replace('T', ' ')}</span></li>`).join('')}</ol>`;
}

async function profile(inspector: Inspector, inspected: Inspected, flags: readonly Flag[]): Promise<string> {
  const told = await profileOf(inspector, inspected.name, {}, flags);
  if (!told) return '';
  const shown: string[] = [];
  for (const flag of told.flags)
    shown.push(
      `<p class="flag">${escapeHtml(flag.says)} <span class="soft">(${flag.rule}, ${flag.severity}, certainty ${flag.certainty})</span></p>${await evidenceHtml(flag, inspector)}`,
    );
  const said = inspector.said(inspected.name);
  const v = documented(inspected, said);
  const entry = told.entry;
  return `<section class="variable" id="v${v.position}"><h3>${nameHtml(v.name, said.called)} ${labelHtml(inspected)}</h3>
${said.note === null ? '' : `<p>Note: ${escapeHtml(said.note)}</p>`}${said.signedOff ? '<p class="soft">Signed off.</p>' : ''}
<p>${kindMark(v)} <span class="soft">${v.storage}, ${v.role}. ${escapeHtml(v.because.join('; '))}</span></p>
${entry?.question ? `<p>“${escapeHtml(entry.question)}”</p>` : ''}${entry?.universe ? `<p class="soft">Asked: ${escapeHtml(entry.universe)}</p>` : ''}${told.asked ? `<p class="soft">${escapeHtml(askedText(told.asked))}</p>` : ''}
${shown.join('')}
<p>${makeUp(v)}</p>
<div class="two"><div>${chartSvg(told.picture, `Distribution of ${v.name}${told.weighted ? `, weighted by ${told.weighted.weight}` : ''}`)}${statistics(v, told.weighted)}</div><div>${frequencies(v, told.weighted)}</div></div></section>`;
}

/** What a flag rests on, in a line: the codes beside it, the codebook, the siblings, the waves. */
async function evidenceHtml(flag: Flag, inspector: Inspector): Promise<string> {
  const evidence = flag.severity === 'note' ? null : await evidenceOf(flag, inspector);
  if (!evidence) return '';
  const near = evidence.near
    .map(
      ({ code, label, count, suspect }) =>
        `${suspect ? '<strong>' : ''}<span class="code">${escapeHtml(code)}</span>${label === null ? '' : ` ${escapeHtml(label)}`} ${whole(count)}${suspect ? '</strong>' : ''}`,
    )
    .join(', ');
  const siblings = evidence.siblings
    .map(({ name, rows }) => `<span class="code">${escapeHtml(name)}</span> ${whole(rows)}`)
    .join(', ');
  const waves = evidence.waves
    .map(({ wave, holding, rows }) => `${escapeHtml(wave)} ${whole(holding)} of ${whole(rows)}`)
    .join(', ');
  const rows = evidence.rows.map(({ row }) => whole(row + 1)).join(', ');
  const says = [
    near && `Codes beside it: ${near}.`,
    ...evidence.codebook.map(escapeHtml),
    ...evidence.gates.map(escapeHtml),
    siblings && `Siblings that hold it too: ${siblings}.`,
    waves && `By wave: ${waves}.`,
    rows && `Rows such as ${rows}.`,
  ];
  return `<p class="soft evidence">${says.filter(Boolean).join(' ')}</p>`;
}

/** Who was asked, and how many rows contradict. */
const askedText = ({ says, notAsked, breached, accepted }: Asked): string =>
  `${accepted ? 'Taken for' : 'By its blanks'} ${says}: ${counted(notAsked, 'row')} not asked${breached ? `, ${counted(breached, 'row')} answered all the same` : ''}.`;

function makeUp({ counts, unreadable }: InspectedVariable): string {
  const parts = [
    ['valid', counts.valid],
    ['not asked', counts.notAsked],
    ['missing', counts.missing],
    ['blank', counts.blank],
    ['unreadable', counts.unreadable],
  ] as const;
  return `Of ${whole(counts.all)} rows: ${parts
    .filter(([, n]) => n > 0)
    .map(([name, n]) => `${whole(n)} ${name} (${percentHtml(n / counts.all)})`)
    .join(', ')}. ${counted(counts.distinct, 'distinct valid value')}.${
    unreadable.length
      ? ` Could not be read: ${unreadable
          .slice(0, 8)
          .map(({ text, count }) => `“${escapeHtml(text)}” ${whole(count)} times`)
          .join(', ')}${unreadable.length > 8 ? ` and ${unreadable.length - 8} more forms` : ''}.`
      : ''
  }`;
}

function statistics({ statistics: s }: InspectedVariable, weighted: Weighted | null): string {
  const by = weighted?.statistics ?? null;
  const all = [
    ['Lowest', s.min],
    ['Lower quartile', s.q1, by?.q1],
    ['Median', s.median, by?.median],
    ['Upper quartile', s.q3, by?.q3],
    ['Highest', s.max],
    ['Mean', s.mean, by?.mean],
    ['Standard deviation', s.sd, by?.sd],
    ['Variance', s.variance],
    ['Range', s.range],
    ['Skewness', s.skewness],
    ['Kurtosis (excess)', s.kurtosis],
  ] as const;
  const shown = all.filter(([, value]) => value !== null);
  const head = by ? '<tr><td></td><th class="n">plain</th><th class="n">weighted</th></tr>' : '';
  return shown.length
    ? `<table>${head}${shown.map(([name, value, other]) => `<tr><th scope="row">${name}</th><td class="n">${figure(value)}</td>${by ? `<td class="n">${figure(other ?? null)}</td>` : ''}</tr>`).join('')}</table>`
    : '';
}

function frequencies(v: InspectedVariable, weighted: Weighted | null): string {
  const sums = weighted && new Map(weighted.codes.map((one) => [one.code, one]));
  if (v.frequencies.length === 0 || v.kind === 'identifier') return '';
  const measured =
    (v.kind === 'continuous' || v.kind === 'count' || v.kind === 'date') && v.frequencies.length > 25;
  const shown = measured
    ? v.frequencies.filter(({ missing }) => missing)
    : v.frequencies.slice(0, MOST_FREQUENCIES);
  if (shown.length === 0) return '';
  const rest = measured ? 0 : v.frequencies.length - shown.length;
  const rows = shown.map(
    (f) =>
      `<tr${f.missing ? ' class="missing"' : ''}><td class="code">${escapeHtml(f.code)}</td><td>${escapeHtml(f.label ?? '')}</td><td class="n">${whole(f.count)}</td><td class="n">${percentHtml(f.shareOfAll)}</td><td class="n">${percentHtml(f.shareOfValid)}</td>${sums ? `<td class="n">${whole(sums.get(f.code)?.sum ?? 0)}</td><td class="n">${percentHtml(sums.get(f.code)?.shareOfValid ?? null)}</td>` : ''}</tr>`,
  );
  const more =
    rest > 0
      ? `<p class="soft">${rest} more codes are not shown.</p>`
      : !v.frequenciesComplete && !measured
        ? '<p class="soft">Only the most frequent are shown.</p>'
        : '';
  return `<table><thead><tr><th>Code</th><th>Label</th><th class="n">Rows</th><th class="n">of all</th><th class="n">of valid</th>${sums ? '<th class="n">weighted</th><th class="n">of valid, weighted</th>' : ''}</tr></thead><tbody>${rows.join('')}</tbody></table>${more}`;
}
