import Papa from 'papaparse';
import { documented } from '../inspect/inspected';
import type { Inspector } from '../inspect/inspect';
import { baseSays } from './base';
import { harmless } from './harmless';

/**
 * The inventory as delimited text (RFC 4180, UTF-8): a row for each variable named, in file order.
 * @param options.harmless whether cells that a spreadsheet would run are kept from it
 */
export function inventoryCsv(
  inspector: Inspector,
  names: readonly string[],
  options: { harmless?: boolean } = {},
): string {
  const wanted = new Set(names);
  const { flags } = inspector;
  const base = baseSays(inspector);
  const rows = inspector.variables
    .filter(({ name }) => wanted.has(name))
    .map((inspected) => {
      const v = documented(inspected, inspector.said(inspected.name));
      const archive = inspected.entry?.label ?? null;
      const { counts, statistics } = v;
      return {
        position: v.position,
        name: v.name,
        label: v.label ?? '',
        called: v.called ?? '',
        archive_label: archive === v.label ? '' : (archive ?? ''),
        storage: v.storage,
        kind: v.kind,
        kind_is: v.confirmed ? 'confirmed' : 'presumed',
        confidence: v.confirmed ? '' : v.confidence,
        role: v.role,
        all: counts.all,
        blank: counts.blank,
        unreadable: counts.unreadable,
        missing: counts.missing,
        not_asked: counts.notAsked,
        valid: counts.valid,
        distinct: counts.distinct,
        missing_codes: v.missingCodes
          .map(({ code, reason, count }) => `${code} ${reason} (${count})`)
          .join('; '),
        min: statistics.min ?? '',
        q1: statistics.q1 ?? '',
        median: statistics.median ?? '',
        q3: statistics.q3 ?? '',
        max: statistics.max ?? '',
        mean: statistics.mean ?? '',
        sd: statistics.sd ?? '',
        variance: statistics.variance ?? '',
        range: statistics.range ?? '',
        skewness: statistics.skewness ?? '',
        kurtosis: statistics.kurtosis ?? '',
        mode: statistics.mode.length > 5 ? `${statistics.mode.length} tied` : statistics.mode.join('; '),
        flags: flags
          .filter((flag) => flag.variables.includes(v.name))
          .map(({ rule, says }) => `${rule}: ${says}`)
          .join('; '),
        note: v.note ?? '',
        signed_off: v.signedOff ? 'yes' : 'no',
        based_on: base,
      };
    });
  const safe = options.harmless
    ? rows.map((row) => Object.fromEntries(Object.entries(row).map(([key, cell]) => [key, harmless(cell)])))
    : rows;
  return `${Papa.unparse(safe, { newline: '\r\n' })}\r\n`;
}
