import type { Codebook, CodebookEntry, Extract } from '../extract/extract';
import type { DigLog, Entry } from './entries';
import { entryText } from './entry-text';
import { foldLog, inForce, namesIn, type State } from './fold';

/** A handoff that came back. */
interface Returned {
  /** The data under the archive's own names, so that the log says the rest. */
  extract: Extract;
  codebooks: Codebook[];
  /** The log that is laid over it: what is in force, without what the data hold already. */
  entries: Entry[];
  /** What the data hold already, in words. */
  stands: string[];
}

/**
 * The extract that a handoff was made of, with its log: what a person called otherwise has the archive's own name and
 * codebook entry again, under the log that calls it otherwise. Rows that stayed behind are not there.
 * @param variables names under which data were handed off
 */
export function returned(
  received: Extract,
  codebooks: readonly Codebook[],
  log: DigLog,
  variables: readonly string[],
): Returned {
  const state = foldLog(log.entries);
  const made = new Set(
    [...state.recodes.keys()].filter((name) => variables.includes(state.called.get(name)?.name ?? name)),
  );
  const back = namesBack(state, variables);
  const called = (name: string): string => back.get(name) ?? name;
  const names = namesIn(state);
  const entries: Entry[] = [];
  const stands: string[] = [];
  for (const entry of inForce(log.entries)) {
    const left = leftOf(entry, made);
    if (left === null) stands.push(entryText(entry, names));
    if (left) entries.push(left);
  }
  const books = codebooks.map((codebook) => codebookBack(codebook, called));
  return {
    extract: {
      ...received,
      name: log.extract,
      files: received.files.map((file) => ({
        ...file,
        names: file.names.map(called),
        ...(file.codebook ? { codebook: codebookBack(file.codebook, called) } : {}),
      })),
      variables: received.variables.map((variable) => ({ ...variable, name: called(variable.name) })),
    },
    codebooks: books,
    entries,
    stands,
  };
}

/** The archive's names of what was handed off under others. */
function namesBack({ called }: State, variables: readonly string[]): Map<string, string> {
  const out = new Map<string, string>();
  for (const [archive, { name }] of called)
    if (name !== null && name !== archive && variables.includes(name)) out.set(name, archive);
  return out;
}

/** What is left to lay of an entry where its effect stands in the data; the entry itself where nothing does. */
function leftOf(entry: Entry, made: ReadonlySet<string>): Entry | null {
  switch (entry.type) {
    case 'set-aside':
    case 'count-again':
    case 'correct-cells':
    case 'add-rows':
      return null;
    case 'make-recode':
      return made.has(entry.recode.name) ? null : entry;
    case 'use-sieve':
      return entry.sieve === null ? entry : null;
    case 'make-sieve':
    case 'change-sieve':
      // It stays to be used; its rows went out, the others did not.
      return entry.use ? { ...entry, use: false } : entry;
    default:
      return entry;
  }
}

function codebookBack(codebook: Codebook, called: (name: string) => string): Codebook {
  return {
    ...codebook,
    entries: codebook.entries.flatMap((entry) => entryBack(entry, called) ?? []),
    groups: codebook.groups.map((group) => ({ ...group, variables: group.variables.map(called) })),
  };
}

/** What the archive said of a variable; what a person decided is said by the log. */
function entryBack(entry: CodebookEntry, called: (name: string) => string): CodebookEntry | null {
  const name = called(entry.name);
  const { handed } = entry;
  if (handed?.archive === undefined) return { ...entry, name };
  return handed.archive === null ? null : { ...handed.archive, name };
}
