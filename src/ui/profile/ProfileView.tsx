'use client';

import type { Profile } from '../../core/inspect/profile';
import type { InspectedVariable } from '../../core/inspect/schema';
import { decide, signOff } from '../../store/decisions';
import { askFor, useSession } from '../../store/session';
import { FlagCard } from '../flags/FlagCard';
import { Quiet } from '../frame/Quiet';
import { AskedOf } from './AskedOf';
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
      <Doings variable={v} />
      <ByTheCodebook profile={profile} />

      <KindBox variable={v} presumed={profile.presumed} />

      {!bare &&
        profile.flags
          .filter(({ rule }) => rule !== 'universe-gate')
          .map((flag) => <FlagCard key={`${flag.rule} ${flag.codes.join('\n')}`} flags={[flag]} near />)}

      <MakeUpOf variable={v} />

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
  const { entry } = profile;
  return (
    <>
      {entry?.question && <p>“{entry.question}”</p>}
      {entry?.universe && (
        <p>
          <span className="soft">Asked:</span> {entry.universe}
        </p>
      )}
      {profile.asked && <AskedOf asked={profile.asked} />}
      {entry?.units && (
        <p>
          <span className="soft">Units:</span> {entry.units}
        </p>
      )}
      {entry?.notes.map((note) => (
        <p key={note} className="soft">
          {note}
        </p>
      ))}
    </>
  );
}
