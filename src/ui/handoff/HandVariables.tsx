'use client';

import type { LeavingAsk } from '../../core/handoff/leaving';
import { counted, whole } from '../../core/handoff/words';
import type { Summary } from '../../core/inspect/summary';
import { membersOf, type ThematicSet } from '../../core/sets/view';
import type { LeavingTold } from '../../engine/handing-off';
import { useSession } from '../../store/session';

type Sets = ReadonlyMap<string, ThematicSet>;
/** How cells are written that go out. */
export type How = Omit<LeavingAsk, 'variables'>;

/** What was picked of the variables. */
export interface Picked {
  from: 'view' | 'chosen' | 'sets';
  /** Ids of sets, where those are picked. */
  sets: ReadonlySet<string>;
  trials: boolean;
  wanted: string;
}

export const ALL_IN_VIEW: Picked = { from: 'view', sets: new Set(), trials: false, wanted: '' };

/** What goes out of what is in view: all of it, what is chosen in the ledger, or what is in some sets. */
export function pickedOf(
  { from, sets }: Picked,
  inScope: readonly Summary[],
  chosen: ReadonlySet<string>,
  all: Sets,
): readonly Summary[] {
  if (from === 'chosen' && chosen.size) return inScope.filter(({ name }) => chosen.has(name));
  if (from !== 'sets') return inScope;
  const members = new Set([...sets].flatMap((id) => (all.has(id) ? membersOf(all, id) : [])));
  return inScope.filter(({ name }) => members.has(name));
}

/** Which variables go out, their number checked against the one that was wanted. */
export function HandVariables({
  inScope,
  pick,
  setPick,
  how,
  setHow,
  going,
  told,
}: {
  inScope: readonly Summary[];
  pick: Picked;
  setPick: (pick: Picked) => void;
  how: How;
  setHow: (how: How) => void;
  going: number;
  told: LeavingTold | null;
}) {
  const chosen = useSession((session) => session.chosen);
  const sets = useSession((session) => session.state.sets);
  const trials = inScope.filter(({ trial }) => trial !== null).length;
  const wanted = Number(pick.wanted);
  return (
    <fieldset>
      <legend>Which variables</legend>
      {(
        [
          ['view', `the ${whole(inScope.length)} in view`],
          [
            'chosen',
            `the ${whole(inScope.filter(({ name }) => chosen.has(name)).length)} chosen in the ledger`,
          ],
        ] as const
      ).map(([value, label]) => (
        <label key={value}>
          <input
            type="radio"
            name="hand-variables"
            checked={pick.from === value}
            disabled={value === 'chosen' && chosen.size === 0}
            onChange={() => setPick({ ...pick, from: value })}
          />{' '}
          {label}
        </label>
      ))}
      {sets.size > 0 && (
        <>
          <label>
            <input
              type="radio"
              name="hand-variables"
              checked={pick.from === 'sets'}
              onChange={() => setPick({ ...pick, from: 'sets' })}
            />{' '}
            those of these sets
          </label>
          <SetChecks sets={sets} inScope={inScope} pick={pick} setPick={setPick} />
        </>
      )}
      {trials > 0 && (
        <label>
          <input
            type="checkbox"
            checked={pick.trials}
            onChange={(event) => setPick({ ...pick, trials: event.target.checked })}
          />{' '}
          {counted(trials, 'trial recode')} too
        </label>
      )}
      <label>
        I want{' '}
        <input
          className="form-control form-control-sm"
          inputMode="numeric"
          aria-label="How many variables I want"
          value={pick.wanted}
          placeholder="?"
          onChange={(event) => setPick({ ...pick, wanted: event.target.value.replace(/\D/g, '') })}
        />{' '}
        {pick.wanted === ''
          ? 'variables'
          : wanted === going
            ? '✓ as many go out'
            : `– ${whole(Math.abs(going - wanted))} too ${going > wanted ? 'many' : 'few'} go out`}
      </label>
      <p className="mb-0">
        <strong>{counted(going, 'variable')}</strong> {going === 1 ? 'goes' : 'go'} out
        {told && told.wentAlong.length > 0 && (
          <>
            , among them what tells rows apart and weighs them:{' '}
            <span className="code">{told.wentAlong.join(', ')}</span>
          </>
        )}
        .
      </p>
      <label>
        <input
          type="checkbox"
          checked={how.alone}
          onChange={(event) => setHow({ ...how, alone: event.target.checked })}
        />{' '}
        nothing goes along that was not named
      </label>
    </fieldset>
  );
}

/** The sets that were made, to be ticked. Ticking one is to want sets. */
function SetChecks({
  sets,
  inScope,
  pick,
  setPick,
}: {
  sets: Sets;
  inScope: readonly Summary[];
  pick: Picked;
  setPick: (pick: Picked) => void;
}) {
  const there = new Set(inScope.map(({ name }) => name));
  return (
    <ul className="handsets">
      {[...sets.values()].map(({ id, name, within }) => {
        const members = membersOf(sets, id).filter((one) => there.has(one)).length;
        return (
          <li key={id} className={within ? 'ps-3' : undefined}>
            <label>
              <input
                type="checkbox"
                checked={pick.from === 'sets' && pick.sets.has(id)}
                disabled={members === 0}
                onChange={() => {
                  const next = new Set(pick.from === 'sets' ? pick.sets : []);
                  if (!next.delete(id)) next.add(id);
                  setPick({ ...pick, from: 'sets', sets: next });
                }}
              />{' '}
              {name} <span className="soft">{whole(members)}</span>
            </label>
          </li>
        );
      })}
    </ul>
  );
}
