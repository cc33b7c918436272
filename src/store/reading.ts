import type { ListAsk } from '../core/inspect/listing';
import type { Answer, Opened, Plan } from '../engine/protocol';
import { askOrSay } from './asking';
import { decide } from './decisions';
import { deskOf, deskReopened, putOnDesk } from './desk';
import { keepDesk } from './keeping';
import { tell, working } from './opening';
import { outside } from './outside';
import { holdLog, type EarlierLog } from './replay';
import { changeTable, useSession } from './session';

const { getState: get, setState: set } = useSession;

/** What the demo is read from; the fixed-width twin of its last wave can be fetched beside them. */
const DEMO_FILES = ['upkeep_2019.csv', 'upkeep_2020.csv', 'upkeep_2021.csv', 'upkeep_2022.csv', 'upkeep.xml'];

/** What becomes of files that are read: an extract of their own, part of the open one, or the open one whole where it was only looked at. */
export type Into = 'new' | 'added' | 'whole';

/** A plan for files that nobody chose anything about. */
export const planOf = (files: readonly File[]): Plan => ({
  handed: files.map((file) => ({ key: outside().newId(), file })),
  chosen: {},
  left: [],
  waves: {},
  waveFrom: 'found',
  part: null,
  marks: {},
  steps: null,
  hold: null,
});

/**
 * Reads what a plan holds. What was open stays as it is unless all went well.
 * @param missing texts that a person took for marks of nothing: they are declared missing wherever they stand
 * @param earlier a log that was chosen to be held against what is read
 * @returns whether it was read
 */
export async function readPlan(
  plan: Plan,
  into: Into = 'new',
  missing: readonly string[] = [],
  earlier: EarlierLog | null = null,
): Promise<boolean> {
  const { plan: before } = get();
  const { engine } = outside();
  const whole = plan.handed.reduce((sum, { file }) => sum + file.size, 0);
  const done = await reshaping('Reading', whole, into !== 'new', () =>
    into === 'added' ? engine.ask('add', plan, tell) : engine.ask('read', plan, into === 'whole', tell),
  );
  if (!done) return false;
  set({ plan: into === 'added' ? before && together(before, plan) : plan });
  if (missing.length) await declareEverywhere(missing);
  await holdLog(earlier ?? get().opened?.earlier ?? null);
  return true;
}

/** Has all rows gone through again, of which only a sample is held, for what the sieve keeps and for tables. */
export async function countAllRows(): Promise<void> {
  const { id, opened, plan, log, state } = get();
  const of = deskOf(id);
  if (!of || !opened || (!plan && !opened.database)) return;
  const now = { says: 'Counting all rows', done: 0, whole: 1, rows: 0 };
  const counted = await working(now, () =>
    outside().engine.ask('countAll', of.serial, log.length, plan, tell),
  );
  if (counted) deskReopened(of, counted);
  else if (get().problem === null && (state.corrections.length > 0 || state.added.length > 0))
    set({
      problem: {
        file: opened.name,
        says: 'cells were corrected or rows added in the sample, which the files know nothing of; take those rulings back first',
      },
    });
}

/** What the listing that is being made is made under. */
let listing: string | null = null;

/**
 * Lists all rows in the record table, of which only a sample is held, where they are not listed yet; where that cannot be, those
 * that are held. With a sieve or an order all are gone through, which takes its time.
 */
export async function listWhole(): Promise<void> {
  const { id, opened, plan, log, table, state, laid } = get();
  const of = deskOf(id);
  const under = JSON.stringify([of?.serial, laid, table.sort]);
  // The table is drawn anew while this goes on, and asks for it again.
  if (!of || !opened || listing === under || table.whole?.under === under) return;
  listing = under;
  changeTable({ whole: undefined });
  const asked = [of.serial, log.length, plan, [...table.sort], tell] as const;
  const listed =
    table.sort.length > 0 || state.sieve !== null
      ? await working({ says: 'Looking for rows', done: 0, whole: 1, rows: 0 }, () =>
          outside().engine.ask('listWhole', ...asked),
        )
      : await askOrSay('listWhole', ...asked);
  // What was asked for meanwhile answers for itself.
  if (listing !== under) return;
  listing = null;
  if (get().table.which !== 'whole') return;
  if (listed) changeTable({ whole: { number: listed.whole, under } });
  else changeTable({ which: 'kept', sort: [], row: 0 });
}

/**
 * Looks for a text in the listing of all rows that is at hand, where it was not looked for last: all are gone through.
 * @returns whether it was, to the end
 */
export async function findWhole(ask: ListAsk, text: string, names: string[]): Promise<boolean> {
  const { id, log } = get();
  const { whole } = ask;
  const of = deskOf(id);
  if (!of || whole === undefined) return false;
  if ((await askOrSay('found', ask, text, names)) !== null) return true;
  const found = await working({ says: 'Looking for it', done: 0, whole: 1, rows: 0 }, () =>
    outside().engine.ask('findWhole', of.serial, log.length, whole, text, names, tell),
  );
  return found !== null;
}

/** What was added later is not in the first plan; both together are. */
const together = (before: Plan, plan: Plan): Plan => ({
  ...before,
  handed: [...before.handed, ...plan.handed],
  chosen: { ...before.chosen, ...plan.chosen },
  left: [...before.left, ...plan.left],
  waves: { ...before.waves, ...plan.waves },
});

async function declareEverywhere(missing: readonly string[]): Promise<void> {
  const holding = await outside().engine.ask('holding', [...missing]);
  if (!holding.ok) return set({ problem: holding.problem });
  // Texts in the same variables are one ruling.
  const rulings = new Map<string, { variables: string[]; texts: string[] }>();
  for (const [text, variables] of holding.value) {
    if (variables.length === 0) continue;
    const key = JSON.stringify(variables);
    const ruling = rulings.get(key) ?? { variables, texts: [] };
    ruling.texts.push(text);
    rulings.set(key, ruling);
  }
  for (const { variables, texts } of rulings.values()) {
    const codes = texts.map((code) => ({ code, reason: 'other' as const }));
    await decide({ type: 'declare-missing', variables, codes, rule: null });
  }
}

/** Reads what a first look left out, where the files are still at hand; else goes to where they are brought again. */
export async function readWhole(): Promise<void> {
  const { plan, opened } = get();
  if (plan) await readPlan({ ...plan, part: null }, 'whole');
  else {
    const says =
      'its files are no longer at hand; bring them again here, and read them in its place: your rulings stay';
    set({ station: 'intake', problem: { file: opened?.name ?? 'the extract', says } });
  }
}

/** Takes one file's rows out of the open extract. @param index its zero-based place among the files */
export async function leaveOut(index: number): Promise<void> {
  const file = get().opened?.files[index];
  if (!file) return;
  const done = await reshaping(`Leaving out ${file.name}`, 1, true, () =>
    outside().engine.ask('leaveOut', index, tell),
  );
  if (done) set({ plan: null, station: 'intake' });
}

/** Calls the files of the open extract otherwise among its waves. */
export async function callWaves(waves: string[]): Promise<void> {
  const done = await reshaping('Naming the waves', 1, true, () =>
    outside().engine.ask('callWaves', waves, tell),
  );
  if (done) set({ station: 'intake' });
}

/**
 * Long work that ends with an extract open and kept.
 * @param again the open one in another shape: its log, what was decided meanwhile, its view and place stay
 */
async function reshaping(
  says: string,
  whole: number,
  again: boolean,
  work: () => Promise<Answer<Opened>>,
): Promise<boolean> {
  const opened = await working({ says, done: 0, whole, rows: 0 }, work);
  if (!opened) return false;
  const { id: old, plan, log, current, chosen, search, sort, seen, narrow } = get();
  const id = outside().newId();
  const view = again
    ? {
        current,
        chosen: [...chosen],
        search,
        sort,
        station: 'inventory',
        seen: [...seen],
        narrow: { ...narrow },
        draft: null,
        crossing: null,
      }
    : null;
  // An extract that storage never took, or lost, is no place to take.
  const instead = again && deskOf(old)?.columns === 'kept' ? old : null;
  putOnDesk(id, opened, view, { shelf: null, next: 0 }, again ? log.slice(opened.log.length) : []);
  set({ plan: again ? plan : null });
  const desk = deskOf(id);
  if (desk) void keepDesk(desk, instead);
  return true;
}

/** The demo by one click: its files come from here and are read like any others. */
export async function readDemo(): Promise<void> {
  set({ reading: { says: 'Fetching the demo', done: 0, whole: 1, rows: 0 }, problem: null });
  try {
    const files = await Promise.all(
      DEMO_FILES.map(async (name) => {
        const answer = await fetch(`/demo/${name}`);
        if (!answer.ok) throw new Error(`the demo file ${name} did not come (${answer.status})`);
        return new File([await answer.blob()], name);
      }),
    );
    await readPlan(planOf(files));
  } catch (cause) {
    set({
      reading: null,
      problem: { file: 'demo', says: `${(cause as Error).message}; is the program still running?` },
    });
  }
}

export const stopReading = (): void => outside().engine.stop();
