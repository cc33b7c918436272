'use client';

import { percent, whole } from '../../core/handoff/words';
import { recodeSays } from '../../core/recode/says';
import type { Profile } from '../../core/inspect/profile';
import type { InspectedVariable } from '../../core/inspect/schema';
import { decide, signOff } from '../../store/decisions';
import { askFurther, askRecode, dropRecode } from '../../store/recodes';
import { askCondition, askFor, useSession } from '../../store/session';
import { askSide } from '../cross/Sides';
import { FlagCard } from '../flags/FlagCard';
import { Quiet } from '../frame/Quiet';
import { AskedOf } from './AskedOf';
import { AsWeightOf } from './AsWeightOf';
import { Distribution } from './Distribution';
import { Figures } from './Figures';
import { Frequencies } from './Frequencies';
import { Groups } from './Groups';
import { KindBox } from './KindBox';
import { Like } from './Like';
import { MakeUpOf } from './MakeUpOf';
import type { Drawing } from './useProfile';

/** Everything about one variable: what it claims to be, what it holds, what looks wrong. */
export function ProfileView({
  profile,
  wide,
  bare,
  drawing,
  draw,
}: {
  profile: Profile;
  wide: boolean;
  bare: boolean;
  drawing: Drawing;
  draw: (part: Partial<Drawing>) => void;
}) {
  const state = useSession((session) => session.state);
  const archiveLabel = useSession(
    (session) => session.summaries.find(({ name }) => name === profile.variable.name)?.archiveLabel ?? null,
  );
  const { variable: v } = profile;
  const called = state.called.get(v.name);
  const note = state.notes.get(v.name);
  return (
    <div className="profileinner">
      <header>
        <h2>
          <span className="code">{called?.name ?? v.name}</span>
          {called?.name && <span className="soft fs-6"> in the archive {v.name}</span>}
        </h2>
        <button type="button" className="btn-bare" onClick={() => useSession.setState({ wide: !wide })}>
          {wide ? 'Narrower' : 'Whole width'} <kbd>w</kbd>
        </button>
      </header>
      <p className="label">{v.label ?? <span className="soft">No label: no codebook describes it.</span>}</p>
      {archiveLabel && <p className="soft">The archive’s label: {archiveLabel}</p>}
      {note && <p className="noted">{note}</p>}
      <MadeOf name={v.name} />
      <Doings variable={v} />
      <ByTheCodebook profile={profile} />

      <KindBox variable={v} presumed={profile.presumed} />

      {!bare &&
        profile.flags
          .filter(({ rule }) => rule !== 'universe-gate')
          .map((flag) => <FlagCard key={`${flag.rule} ${flag.codes.join('\n')}`} flags={[flag]} near />)}

      <MakeUpOf variable={v} />
      <BySample variable={v} />
      {profile.weight && <AsWeightOf weight={profile.weight} />}

      <Distribution profile={profile} drawing={drawing} draw={draw} />

      <Figures profile={profile} />
      <Frequencies variable={v} weighted={profile.weighted} />
      <Groups name={v.name} />
      <p className="mt-2 doings">
        {v.kind === 'ordinal' && (
          <Quiet does={() => askFor('order')} shownKey="o">
            Order the codes…
          </Quiet>
        )}
        <Quiet does={() => askFor('codes')} shownKey="l">
          Labels and missing codes…
        </Quiet>
      </p>
    </div>
  );
}

/** What is told by a sample of the rows, where not all of them are held. */
function BySample({ variable: { sampled, distinctError } }: { variable: InspectedVariable }) {
  if (sampled === undefined) return null;
  return (
    <p className="soft">
      {distinctError === undefined
        ? `All figures are of the sample of rows that is held: ${whole(sampled)} of them.`
        : `It holds too many values to count each. Rows, ends, mean and spread are of all rows; how many are distinct is an estimate (standard error ${percent(distinctError)}); median, quartiles, the picture, flags and the kind are told by a sample of ${whole(sampled)} rows.`}
    </p>
  );
}

/** How a trial recode is made, where it is one. */
function MadeOf({ name }: { name: string }) {
  const recode = useSession((session) => session.state.recodes.get(name));
  if (!recode) return null;
  return (
    <p className="noted">
      On trial, made of{' '}
      <button
        type="button"
        className="btn-bare code"
        onClick={() => useSession.setState({ current: recode.of })}
      >
        {recode.of}
      </button>
      : {recodeSays(recode)}.{' '}
      <button type="button" className="btn-bare" onClick={() => askFurther(name)}>
        Recode it further
      </button>{' '}
      <button type="button" className="btn-bare" onClick={() => void dropRecode(name)}>
        Remove it
      </button>
    </p>
  );
}

/** What one does about a variable as a whole. */
function Doings({ variable: v }: { variable: InspectedVariable }) {
  const state = useSession((session) => session.state);
  const signed = state.signedOff.has(v.name);
  return (
    <p className="doings">
      <Quiet does={signOff} shownKey="x" pressed={signed}>
        {signed ? 'Signed off' : 'Sign off'}
      </Quiet>
      <Quiet does={() => askFor('note')} shownKey="n">
        Note
      </Quiet>
      <Quiet does={() => askFor('name')} shownKey="r">
        Name
      </Quiet>
      <Quiet does={() => askFor('ruling')} shownKey="h">
        Rule
      </Quiet>
      <Quiet does={() => askCondition(v.name)} shownKey="z">
        Sieve rows
      </Quiet>
      <Quiet does={() => askSide('against')} shownKey="v">
        Against…
      </Quiet>
      <Quiet does={() => askRecode(v.name)} shownKey="b">
        {v.trial ? 'Change its making…' : 'Bands…'}
      </Quiet>
      <Like name={v.name} />
      {v.role === 'weight' && (
        <Quiet
          does={() => void decide({ type: 'weigh', by: state.weight === v.name ? null : v.name })}
          pressed={state.weight === v.name}
        >
          {state.weight === v.name ? 'Weigh by this no more' : 'Weigh by this'}
        </Quiet>
      )}
    </p>
  );
}

/** What the codebook says of it, and who was asked. */
function ByTheCodebook({ profile }: { profile: Profile }) {
  const { entry, variable } = profile;
  return (
    <>
      {entry?.question && <p>“{entry.question}”</p>}
      {entry?.universe && (
        <p>
          <span className="soft">Asked:</span> {entry.universe}
        </p>
      )}
      {profile.asked && <AskedOf name={profile.variable.name} asked={profile.asked} />}
      {entry?.units && (
        <p>
          <span className="soft">Units:</span> {entry.units}
        </p>
      )}
      {(variable.trial ? [] : (entry?.notes ?? [])).map((note) => (
        <p key={note} className="soft">
          {note}
        </p>
      ))}
    </>
  );
}
