'use client';

import Dropdown from 'react-bootstrap/Dropdown';
import { FIGURES, MEASURE_FIGURES, type Figure, type MeasureFigure } from '../../core/cross/kept-table';
import { FIGURE_NAMES, MEASURE_NAMES } from '../../core/handoff/cell-figures';
import { changeCross, keepTable, keptAs, tableAsked, turnRound } from '../../store/cross';
import { useSession, useParts } from '../../store/session';
import { Quiet } from '../frame/Quiet';
import { askSide } from './Sides';
import { saveTable } from './saveTable';

/** Shares go round: of the row, of the column, of all, none. */
export function nextShares(): void {
  const { shows } = useSession.getState().crossing;
  const shares = ['ofRow', 'ofColumn', 'ofAll'] as const;
  const at = shares.findIndex((one) => shows.includes(one));
  const next = at < 0 ? shares[0] : shares.at(at + 1);
  const rest = shows.filter((one) => !(shares as readonly Figure[]).includes(one));
  changeCross({ shows: inOrder([...rest, ...(next ? [next] : [])]) });
}

const inOrder = (shows: readonly Figure[]): Figure[] => {
  const found = FIGURES.filter((one) => shows.includes(one));
  return found.length ? found : ['rows'];
};

/** How the table is told, and what becomes of it. */
export function CrossBar({ copy, weighted }: { copy: () => void; weighted: boolean }) {
  const { crossing, state } = useParts('crossing', 'state');
  const asked = tableAsked(crossing);
  const kept = asked !== null && state.tables.size > 0 && keptAs(asked) !== null;
  const toggle = (what: Figure): void =>
    changeCross({
      shows: inOrder(
        crossing.shows.includes(what)
          ? crossing.shows.filter((one) => one !== what)
          : [...crossing.shows, what],
      ),
    });
  return (
    <div className="ledgerbar crossbar">
      <span className="btn-group" role="group" aria-label="Figures in the cells">
        {FIGURES.filter((one) => one !== 'weighted' || weighted).map((one) => (
          <Quiet
            key={one}
            does={() => toggle(one)}
            pressed={crossing.shows.includes(one)}
            more={on(crossing.shows.includes(one))}
          >
            {FIGURE_NAMES[one]}
          </Quiet>
        ))}
      </span>
      {crossing.measure !== null && (
        <span className="btn-group" role="group" aria-label="Figures of the measure">
          {MEASURE_FIGURES.map((one) => (
            <Quiet
              key={one}
              does={() => toggleMeasure(one)}
              pressed={crossing.measured.includes(one)}
              more={on(crossing.measured.includes(one))}
            >
              {MEASURE_NAMES[one]}
            </Quiet>
          ))}
        </span>
      )}
      <Quiet
        does={() => changeCross({ withMissing: !crossing.withMissing, at: null })}
        pressed={crossing.withMissing}
        more={on(crossing.withMissing)}
        shownKey="l"
      >
        Missing, not asked, blank
      </Quiet>
      <Quiet does={turnRound} shownKey="t" disabled={crossing.across === null}>
        Turn round
      </Quiet>
      <Quiet does={copy} shownKey="y">
        Copy
      </Quiet>
      <SaveMenu />
      <Quiet does={() => void keepTable()} pressed={kept} more={on(kept)} shownKey="v">
        {kept ? 'Kept for the report' : 'Keep for the report'}
      </Quiet>
      <Quiet does={() => askSide('everything')} shownKey="e">
        Against everything…
      </Quiet>
    </div>
  );
}

const on = (is: boolean): string => (is ? 'ison' : '');

function toggleMeasure(what: MeasureFigure): void {
  const { measured } = useSession.getState().crossing;
  const next = MEASURE_FIGURES.filter((one) => (one === what) !== measured.includes(one));
  changeCross({ measured: next.length ? next : ['median'] });
}

function SaveMenu() {
  const { small, blank } = useSession((session) => session.crossing);
  return (
    <Dropdown align="end" autoClose="outside">
      <Dropdown.Toggle as="button" type="button" className="btn btn-sm btn-quiet" id="save-table">
        Save…
      </Dropdown.Toggle>
      <Dropdown.Menu role="menu">
        {(['csv', 'svg', 'png'] as const).map((form) => (
          <Dropdown.Item as="button" key={form} onClick={() => void saveTable(form)}>
            As {form.toUpperCase()}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.ItemText as="label" className="d-flex gap-2 align-items-center">
          Small are cells of fewer than
          <input
            type="number"
            className="form-control form-control-sm"
            style={{ width: '4.5rem' }}
            min={1}
            value={small}
            onChange={(event) => {
              const wanted = Math.round(Number(event.target.value));
              if (wanted >= 1) changeCross({ small: wanted });
            }}
          />
          rows
        </Dropdown.ItemText>
        <Dropdown.Item
          as="button"
          role="menuitemcheckbox"
          aria-checked={blank}
          onClick={() => changeCross({ blank: !blank })}
        >
          <span aria-hidden="true">{blank ? '☑' : '☐'}</span> Leave small cells out of what is copied and
          saved <kbd>h</kbd>
        </Dropdown.Item>
      </Dropdown.Menu>
    </Dropdown>
  );
}
