'use client';

import { useState } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import { beyondText } from '../../core/handoff/chart';
import { counted, percent, whole } from '../../core/handoff/words';
import type { Profile } from '../../core/inspect/profile';
import { askOrSay } from '../../store/asking';
import { useAnswer } from '../asking/useAnswer';
import { decide, signOff } from '../../store/decisions';
import { useSession } from '../../store/session';
import { FlagCard } from '../flags/FlagCard';
import { acceptUniverse } from '../rulings/answers';
import { KindMark, MakeUp, PARTS } from '../ledger/Marks';
import { saveBlob } from '../handoff/download';
import { pngOf } from './copy';
import { Figures } from './Figures';
import { Frequencies } from './Frequencies';
import { Groups } from './Groups';
import { RestedChart } from './RestedChart';
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
  const [curve, setCurve] = useState(false);
  const [byCount, setByCount] = useState(false);
  const [pie, setPie] = useState(false);
  const { variable: v, entry, picture } = profile;
  const called = state.called.get(v.name);
  const signed = state.signedOff.has(v.name);
  const note = state.notes.get(v.name);
  const mayBePie = picture.form === 'bars' && picture.bars.length <= MOST_SLICES;
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
      <p className="doings">
        <button
          type="button"
          className={`btn btn-sm ${signed ? 'btn-primary' : 'btn-quiet'}`}
          aria-pressed={signed}
          onClick={signOff}
        >
          {signed ? 'Signed off' : 'Sign off'} <kbd>x</kbd>
        </button>
        <button
          type="button"
          className="btn btn-quiet btn-sm"
          onClick={() => useSession.setState({ asking: 'note' })}
        >
          Note <kbd>n</kbd>
        </button>
        <button
          type="button"
          className="btn btn-quiet btn-sm"
          onClick={() => useSession.setState({ asking: 'name' })}
        >
          Name <kbd>r</kbd>
        </button>
        <button
          type="button"
          className="btn btn-quiet btn-sm"
          onClick={() => useSession.setState({ asking: 'ruling' })}
        >
          Rule <kbd>h</kbd>
        </button>
        <Like name={v.name} />
        {v.role === 'weight' && (
          <button
            type="button"
            className="btn btn-quiet btn-sm"
            aria-pressed={state.weight === v.name}
            onClick={() => void decide({ type: 'weigh', by: state.weight === v.name ? null : v.name })}
          >
            {state.weight === v.name ? 'Weigh by this no more' : 'Weigh by this'}
          </button>
        )}
      </p>
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

      <section className="kindbox" aria-label="Kind">
        <p className="mb-1">
          <KindMark kind={v.kind} confirmed={v.confirmed} />{' '}
          <span className="soft">
            {v.storage}, {v.role}
          </span>
          {!v.confirmed && (
            <>
              {' '}
              <button
                type="button"
                className="btn btn-quiet btn-sm ms-2"
                onClick={() =>
                  void decide({ type: 'confirm-kind', kinds: [{ variable: v.name, kind: v.kind }] })
                }
              >
                Confirm <kbd>c</kbd>
              </button>
            </>
          )}
        </p>
        {v.confirmed ? (
          <p className="soft mb-0">
            Confirmed by you. The program presumed {profile.presumed}: {v.because.slice(1).join('; ')}.
          </p>
        ) : (
          <p className="soft mb-0">
            Presumed, {Math.round(v.confidence * 100)} of 100 sure: {v.because.join('; ')}. Press <kbd>k</kbd>{' '}
            to say another.
          </p>
        )}
      </section>

      {!bare &&
        profile.flags
          .filter(({ rule }) => rule !== 'universe-gate')
          .map((flag) => <FlagCard key={`${flag.rule} ${flag.codes.join('\n')}`} flags={[flag]} near />)}

      <section aria-label="Make-up">
        <h3>
          Make-up <span className="soft">of all {whole(v.counts.all)} rows</span>
        </h3>
        <MakeUp counts={v.counts} />
        <ul className="makeuplist">
          {PARTS.filter(([part]) => v.counts[part] > 0).map(([part, name]) => (
            <li key={part}>
              <span className={`swatch part-${part}`} />
              {name} <strong className="n">{whole(v.counts[part])}</strong>{' '}
              <span className="soft">{percent(v.counts[part] / v.counts.all)}</span>
            </li>
          ))}
          <li>
            <strong>{whole(v.counts.distinct)}</strong> distinct valid
          </li>
        </ul>
        {v.unreadable.length > 0 && (
          <p className="mb-1">
            <span className="soft">Not {v.storage === 'date' ? 'a date' : 'a number'}:</span>{' '}
            {v.unreadable
              .slice(0, 8)
              .map(({ text, count }) => `“${text}” ${whole(count)}×`)
              .join(', ')}
            {v.unreadable.length > 8 && ` and ${v.unreadable.length - 8} more forms`}
          </p>
        )}
      </section>

      <section aria-label="Distribution">
        <h3>
          {picture.form === 'histogram' && picture.lengths ? 'Lengths in characters' : 'Distribution'}{' '}
          <span className="soft">
            of {whole(v.counts.valid)} valid rows
            {profile.weighted && picture.form !== 'none' && `, weighted by ${profile.weighted.weight}`}
          </span>
        </h3>
        {picture.form === 'none' ? (
          <p className="soft">{picture.why}</p>
        ) : (
          <RestedChart
            picture={
              byCount && picture.form === 'bars'
                ? { ...picture, bars: [...picture.bars].sort((a, b) => b.count - a.count) }
                : picture
            }
            name={v.name}
            weighted={profile.weighted !== null}
            curve={curve ? curveOf(profile) : null}
            pie={pie && mayBePie}
          />
        )}
        {picture.form === 'histogram' && picture.beyond && (
          <p className="beyond soft mb-1">{beyondText(picture.beyond)}.</p>
        )}
        {picture.form !== 'none' && (
          <p className="charttools small">
            {picture.form === 'histogram' && !picture.lengths && (
              <>
                <label>
                  Bin width{' '}
                  <input
                    type="number"
                    min={0}
                    step="any"
                    value={drawing.width ?? ''}
                    placeholder={String(picture.histogram.width)}
                    aria-label="Bin width"
                    onChange={(event) =>
                      draw({ width: Number(event.target.value) > 0 ? Number(event.target.value) : null })
                    }
                  />
                </label>
                <label>
                  <input
                    type="checkbox"
                    checked={curve}
                    onChange={(event) => setCurve(event.target.checked)}
                  />{' '}
                  normal curve
                </label>
                {(picture.beyond || drawing.all) && (
                  <label>
                    <input
                      type="checkbox"
                      checked={drawing.all}
                      onChange={(event) => draw({ all: event.target.checked })}
                    />{' '}
                    what lies far out too
                  </label>
                )}
              </>
            )}
            {picture.form === 'bars' && (
              <label>
                <input
                  type="checkbox"
                  checked={byCount}
                  onChange={(event) => setByCount(event.target.checked)}
                />{' '}
                most frequent first
              </label>
            )}
            {mayBePie && (
              <label>
                <input type="checkbox" checked={pie} onChange={(event) => setPie(event.target.checked)} /> as
                a pie
              </label>
            )}
            <button type="button" className="btn-bare" onClick={() => void saveChart(v.name, drawing, 'svg')}>
              Save SVG
            </button>
            <button type="button" className="btn-bare" onClick={() => void saveChart(v.name, drawing, 'png')}>
              Save PNG
            </button>
          </p>
        )}
      </section>

      <Figures profile={profile} />
      <Frequencies variable={v} weighted={profile.weighted} />
      <Groups name={v.name} />
      <p className="mt-2 doings">
        {v.kind === 'ordinal' && (
          <button
            type="button"
            className="btn btn-quiet btn-sm"
            onClick={() => useSession.setState({ asking: 'order' })}
          >
            Order the codes… <kbd>o</kbd>
          </button>
        )}
        <button
          type="button"
          className="btn btn-quiet btn-sm"
          onClick={() => useSession.setState({ asking: 'codes' })}
        >
          Labels and missing codes… <kbd>l</kbd>
        </button>
      </p>
    </div>
  );
}

/** Who was asked, by the blanks or as was accepted; with the rows that contradict. */
function AskedOf({
  asked: { says, notAsked, breaches, breached, accepted, flag },
}: {
  asked: NonNullable<Profile['asked']>;
}) {
  return (
    <section className="askedof" aria-label="Who was asked">
      <p className="mb-1">
        {accepted ? 'Taken for ' : 'By its blanks '}
        <strong>{says}</strong>: {counted(notAsked, 'row')} not asked
        {!accepted && flag && (
          <>
            {' '}
            <button
              type="button"
              className="btn btn-quiet btn-sm ms-1"
              onClick={() => void acceptUniverse([flag])}
            >
              Take these blanks for not asked
            </button>
          </>
        )}
      </p>
      {breached > 0 && (
        <p className="soft mb-0">
          {counted(breached, 'row')} {breached === 1 ? 'holds' : 'hold'} an answer all the same:{' '}
          {breaches.map((row) => (
            <button
              type="button"
              key={row}
              className="btn-bare"
              onClick={() => useSession.setState({ record: row })}
              aria-label={`Record card of row ${whole(row + 1)}`}
            >
              {whole(row + 1)}
            </button>
          ))}
          {breached > breaches.length && ` and ${whole(breached - breaches.length)} more`}
        </p>
      )}
    </section>
  );
}

/** Mean and spread of the normal curve over what is drawn. */
function curveOf({ weighted, variable: { statistics } }: Profile): { mean: number; sd: number } | null {
  const { mean, sd } = weighted?.statistics ?? statistics;
  return mean !== null && sd !== null ? { mean, sd } : null;
}

/** A pie tells nothing of more slices than these. */
const MOST_SLICES = 6;

async function saveChart(name: string, { width, all }: Drawing, form: 'svg' | 'png'): Promise<void> {
  const file = `${name.replace(/[^\p{L}\p{N}._-]+/gu, '_')}.${form}`;
  try {
    const svg = await askOrSay('chart', name, width, all);
    if (!svg) return;
    saveBlob(file, form === 'svg' ? new Blob([svg], { type: 'image/svg+xml' }) : await pngOf(svg));
  } catch (cause) {
    useSession.setState({
      problem: { file, says: `could not be made (${(cause as Error).message}); try the other form` },
    });
  }
}

/** Chooses every variable like this one, for a decision on all of them. */
function Like({ name }: { name: string }) {
  const [shown, setShown] = useState(false);
  const { value: found } = useAnswer('like', shown ? [name] : null);
  return (
    <Dropdown as="span" onToggle={setShown}>
      <Dropdown.Toggle as="button" type="button" className="btn btn-quiet btn-sm" id="like">
        Like this one
      </Dropdown.Toggle>
      <Dropdown.Menu role="menu">
        {found?.length === 0 && (
          <Dropdown.ItemText className="soft">
            No other has its codes, its stem or its group.
          </Dropdown.ItemText>
        )}
        {found?.map(({ by, says, names }) => (
          <Dropdown.Item
            as="button"
            key={by}
            onClick={() => useSession.setState({ chosen: new Set(names), station: 'inventory' })}
          >
            Choose {counted(names.length, 'variable')} with {says}
          </Dropdown.Item>
        ))}
      </Dropdown.Menu>
    </Dropdown>
  );
}
