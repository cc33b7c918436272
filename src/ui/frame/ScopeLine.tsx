'use client';

import Dropdown from 'react-bootstrap/Dropdown';
import { counted, whole } from '../../core/handoff/words';
import { inView, membersOf } from '../../core/sets/view';
import { decide } from '../../store/decisions';
import { countAllRows, readWhole } from '../../store/reading';
import { lookAtRows, useSession, useParts } from '../../store/session';
import { toggleInView, viewAll } from '../../store/sets';
import { SieveChoices } from '../rows/SieveChoices';

/** One sentence that says what everything on the screen is based on; its parts are controls. */
export function ScopeLine() {
  const { opened, summaries, state, account } = useParts('opened', 'summaries', 'state', 'account');
  if (!opened)
    return (
      <div className="scope" role="status">
        <span className="soft">No extract is open. Nothing that you open here leaves this machine.</span>
      </div>
    );
  const seen = inView(summaries, state).length;
  return (
    <section className="scope" aria-label="Scope">
      <span>Based on {opened.part?.rows ? 'only the first' : account.length ? '' : 'all'}</span>
      <RowsThatCount />
      {opened.pass && (
        <OfSample {...opened.pass} sieved={account.length > 0} at={opened.database?.at ?? null} />
      )}
      <span>of</span>
      <button
        type="button"
        className={`part${opened.part ? ' narrowed' : ''}`}
        title="How the files were read"
        onClick={() => useSession.setState({ station: 'intake' })}
      >
        {opened.name}
        {opened.part?.names && `, ${whole(opened.part.names.length)} variables picked`}
      </button>
      {opened.part && (
        <button type="button" className="btn btn-quiet btn-sm me-2" onClick={() => void readWhole()}>
          Read all of it
        </button>
      )}
      <Weight />
      <SetsInView all={summaries.length} seen={seen} />
      <NotInForce />
    </section>
  );
}

/** All rows were counted, and a sample of them is held: what looks at rows is of the sample, until all are gone through again. */
function OfSample({
  rows,
  held,
  sieved,
  at,
}: {
  rows: number;
  held: number;
  sieved: boolean;
  /** The database that the rows stay in. */
  at: string | null;
}) {
  const { plan, countedAll } = useParts('plan', 'countedAll');
  const says = countedAll
    ? `All ${whole(rows)} rows were gone through: what the sieve keeps and the cells of tables are of all of them. Records and gates are of ${whole(held)}, drawn at random.`
    : `All ${whole(rows)} rows were read and counted once. Records, sieves, cross-checks and gates are of ${whole(held)} of them, drawn at random.${plan ? '' : at ? ` All of them stay in ${at}.` : ' Bring the files again to have sieves and cross-checks counted in all rows.'}`;
  return (
    <>
      <span className="soft" title={says}>
        {sieved && !countedAll ? `in a sample from ${whole(rows)}` : `(${whole(held)} of them held)`}&nbsp;
      </span>
      {(plan || at) && !countedAll && held < rows && (
        <button
          type="button"
          className="btn btn-quiet btn-sm me-2"
          title={`${at ? 'Has the database count what the sieve keeps, and cross-checks from then on' : 'Goes through the files again, for what the sieve keeps and for cross-checks'}; it can be stopped`}
          onClick={() => void countAllRows()}
        >
          Count in all {whole(rows)}
        </button>
      )}
    </>
  );
}

/** Which rows count: all that are there, or those that the sieve in force keeps. What it says is what the numbers are of. */
function RowsThatCount() {
  const { counts, account, state, base } = useParts('counts', 'account', 'state', 'base');
  const narrowed = account.length > 0;
  const name = state.sieve === null ? '' : (state.sieves.get(state.sieve)?.name ?? '');
  const says = account.map((one) => one.says).join('; ');
  return (
    <>
      <Dropdown as="span" key={base}>
        <Dropdown.Toggle
          as="button"
          type="button"
          className={`part${narrowed ? ' narrowed' : ''}`}
          id="rows-that-count"
          title={narrowed ? `Sieve: ${says}` : undefined}
        >
          {narrowed
            ? `${whole(counts.kept)} of ${counted(counts.all, 'row')} (sieve: ${name || shortened(says)})`
            : counted(counts.all, 'row')}
          {counts.aside > 0 && `, ${whole(counts.aside)} set aside`}
        </Dropdown.Toggle>
        <Dropdown.Menu role="menu" className="scopemenu">
          <SieveChoices />
          <Dropdown.Divider />
          {account.map((one, i) => (
            <Dropdown.ItemText key={i}>
              {one.says} <span className="soft">drops {whole(one.drops)}</span>
            </Dropdown.ItemText>
          ))}
          <Dropdown.Item as="button" onClick={() => lookAtRows({ which: 'kept', flag: null })}>
            Look at the rows <kbd>5</kbd>
          </Dropdown.Item>
          {narrowed && (
            <Dropdown.Item as="button" onClick={() => lookAtRows({ which: 'dropped', flag: null })}>
              Look at the {whole(counts.all - counts.kept)} dropped
            </Dropdown.Item>
          )}
          {counts.aside > 0 && (
            <Dropdown.Item as="button" onClick={() => lookAtRows({ which: 'received', flag: null })}>
              Look at those set aside, among all
            </Dropdown.Item>
          )}
        </Dropdown.Menu>
      </Dropdown>
    </>
  );
}

/** Conditions that are being made: nothing counts by them, and the line says so. */
function NotInForce() {
  const draft = useSession((session) => session.draft);
  return draft ? (
    <button
      type="button"
      className="btn btn-quiet btn-sm tentative"
      title="Conditions that are being made; nothing counts by them"
      onClick={() => lookAtRows({ which: 'kept', flag: null })}
    >
      {counted(draft.parts.length, 'condition')} not in force
    </button>
  ) : null;
}

const MOST_SAID = 46;
const shortened = (text: string): string =>
  text.length > MOST_SAID ? `${text.slice(0, MOST_SAID - 1)}…` : text;

/** The weight in force. */
function Weight() {
  const { summaries, state } = useParts('summaries', 'state');
  const weights = summaries.filter(({ role, name }) => role === 'weight' || name === state.weight);
  const known = state.weight !== null && summaries.some(({ name }) => name === state.weight);
  if (weights.length === 0) return <span>unweighted;</span>;
  return (
    <Dropdown as="span">
      <Dropdown.Toggle as="button" type="button" className={`part${known ? ' narrowed' : ''}`} id="weight">
        {known ? `weighted by ${state.weight}` : 'unweighted'}
      </Dropdown.Toggle>
      <Dropdown.Menu role="menu">
        <Dropdown.Item
          as="button"
          role="menuitemradio"
          aria-checked={!known}
          onClick={() => known && void decide({ type: 'weigh', by: null })}
        >
          <span aria-hidden="true">{known ? '○' : '●'}</span> Unweighted
        </Dropdown.Item>
        {weights.map(({ name, label }) => (
          <Dropdown.Item
            as="button"
            role="menuitemradio"
            aria-checked={state.weight === name}
            key={name}
            onClick={() => state.weight !== name && void decide({ type: 'weigh', by: name })}
          >
            <span aria-hidden="true">{state.weight === name ? '●' : '○'}</span>{' '}
            <span className="code">{name}</span> <span className="soft">{label}</span>
          </Dropdown.Item>
        ))}
        <Dropdown.ItemText className="soft small">
          Profiles and groups show weighted figures beside the plain ones. Another variable can be made a
          weight by its role.
        </Dropdown.ItemText>
      </Dropdown.Menu>
    </Dropdown>
  );
}

function SetsInView({ all, seen }: { all: number; seen: number }) {
  const { state } = useParts('state');
  const sets = [...state.sets.values()];
  const shown = sets.filter(({ id }) => state.shown.has(id));
  const say = shown.length
    ? `${whole(seen)} of ${counted(all, 'variable')} (${shown.map(({ name }) => name).join(' + ')}${state.always ? ' and what identifies and weighs rows' : ''})`
    : `all ${counted(all, 'variable')}`;
  return (
    <>
      <Dropdown autoClose="outside">
        <Dropdown.Toggle
          as="button"
          type="button"
          className={`part${shown.length ? ' narrowed' : ''}`}
          id="sets-in-view"
          title={shown.length ? say : undefined}
        >
          {say}
        </Dropdown.Toggle>
        <Dropdown.Menu role="menu" className="scopemenu">
          <Dropdown.Item as="button" disabled={shown.length === 0} onClick={viewAll}>
            Every variable in view <kbd>0</kbd>
          </Dropdown.Item>
          <Dropdown.Item
            as="button"
            role="menuitemcheckbox"
            aria-checked={state.always}
            onClick={() => void decide({ type: 'view-always', on: !state.always })}
          >
            <span aria-hidden="true">{state.always ? '☑' : '☐'}</span> Identifier, wave, weight and design
            variables always
          </Dropdown.Item>
          <Dropdown.Divider />
          {sets.length === 0 && (
            <Dropdown.ItemText className="soft">
              No set yet. Make some at <strong>Sets</strong> <kbd>4</kbd>, or put variables into one with{' '}
              <kbd>i</kbd>.
            </Dropdown.ItemText>
          )}
          {sets.map(({ id, name }) => (
            <Dropdown.Item
              as="button"
              key={id}
              role="menuitemcheckbox"
              aria-checked={state.shown.has(id)}
              onClick={() => toggleInView(id)}
            >
              <span aria-hidden="true">{state.shown.has(id) ? '☑' : '☐'}</span> {name}{' '}
              <span className="soft">{counted(membersOf(state.sets, id).length, 'variable')}</span>
            </Dropdown.Item>
          ))}
        </Dropdown.Menu>
      </Dropdown>
      <span>in view.</span>
      {shown.length > 0 && (
        <button type="button" className="btn btn-quiet btn-sm ms-2" onClick={viewAll}>
          Bring back {whole(all - seen)} out of sight <kbd>0</kbd>
        </button>
      )}
    </>
  );
}
