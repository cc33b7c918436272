import Papa from 'papaparse';
import { documented } from '../inspect/inspected';
import type { Inspector } from '../inspect/inspect';

/** The inventory as delimited text (RFC 4180, UTF-8): a row for each variable named, in file order. */
export function inventoryCsv(inspector: Inspector, names: readonly string[]): string {
  const wanted = new Set(names);
  const { flags } = inspector;
  const rows = inspector.variables
    .filter(({ name }) => wanted.has(name))
    .map((inspected) => {
      const v = documented(inspected);
      const { counts, statistics } = v;
      return {
        position: v.position,
        name: v.name,
        label: v.label ?? '',
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
        skewness: statistics.skewness ?? '',
        kurtosis: statistics.kurtosis ?? '',
        mode: statistics.mode.length > 5 ? `${statistics.mode.length} tied` : statistics.mode.join('; '),
        flags: flags
          .filter((flag) => flag.variables.includes(v.name))
          .map(({ rule, says }) => `${rule}: ${says}`)
          .join('; '),
      };
    });
  return `${Papa.unparse(rows, { newline: '\r\n' })}\r\n`;
}
