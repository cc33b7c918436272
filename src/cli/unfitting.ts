import type { Inspector } from '../core/inspect/inspect';
import { entryText, type Entry } from '../core/log/entries';
import { inForce } from '../core/log/fold';

/** What a log says of variables, codes and rows that this extract does not have. */
export function unfitting(log: readonly Entry[], inspector: Inspector): string[] {
  return inForce(log).flatMap((entry) => {
    if (entry.id === 'missing') return [];
    const names =
      'variables' in entry
        ? entry.variables
        : entry.type === 'make-sets'
          ? entry.sets.flatMap(({ variables }) => variables)
          : 'variable' in entry
            ? [entry.variable]
            : entry.type === 'confirm-kind'
              ? entry.kinds.map(({ variable }) => variable)
              : entry.type === 'confirm-role'
                ? entry.roles.map(({ variable }) => variable)
                : [];
    const gates =
      entry.type === 'accept-universe'
        ? [entry.by, ...(entry.steps ?? []).map(({ by }) => by)]
        : entry.type === 'weigh' && entry.by !== null
          ? [entry.by]
          : [];
    const gone = [...new Set([...names, ...gates])].filter((name) => !inspector.named(name));
    const ruled =
      entry.type === 'declare-missing'
        ? entry.codes.map(({ code }) => code)
        : entry.type === 'merge-codes'
          ? entry.codes
          : [];
    const codes = ruled.filter((code) =>
      names.every(
        (name) =>
          !inspector
            .named(name)
            ?.levels.levels.some((level) => level.code === code || level.spellings.includes(code)),
      ),
    );
    return [
      ...(gone.length ? [`did not fit: ${entryText(entry)} (there is no ${gone.join(', ')} here)`] : []),
      ...(codes.length && names.some((name) => inspector.named(name))
        ? [`did not fit: ${entryText(entry)} (no row holds ${codes.join(', ')})`]
        : []),
    ];
  });
}
