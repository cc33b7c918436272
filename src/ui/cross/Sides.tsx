'use client';

import { fill } from '../../store/cross';
import { SIDES, type Side } from '../../store/cross-words';
import { useSession, useParts } from '../../store/session';
import { SIDE_NAMES } from './sideWords';

const KEYS: Record<Side, string> = { down: 'd', across: 'a', within: 'w', measure: 'm' };
const EMPTY: Record<Side, string> = {
  down: 'choose a variable',
  across: 'nothing across',
  within: 'all rows together',
  measure: 'rows and shares alone',
};

/** Asks what stands on a side. */
export const askSide = (side: Side | 'everything' | 'against'): void =>
  useSession.setState({ asking: 'side', side });

/** What is held against what; each part is a control and changes it. */
export function Sides() {
  const { crossing, summaries, state } = useParts('crossing', 'summaries', 'state');
  return (
    <div className="crosssides" role="group" aria-label="What is held against what">
      {SIDES.map((side) => {
        const name = crossing[side];
        const label = name === null ? null : summaries.find((one) => one.name === name)?.label;
        return (
          <div key={side} className={`crossside${name === null ? ' empty' : ''}`}>
            <button
              type="button"
              className="sidepick"
              onClick={() => askSide(side)}
              title={label ?? undefined}
            >
              <span className="soft">
                {SIDE_NAMES[side]} <kbd>{KEYS[side]}</kbd>
              </span>
              {name === null ? (
                <span className="soft">{EMPTY[side]}</span>
              ) : (
                <span className="what">
                  <span className="code">{state.called.get(name)?.name ?? name}</span> {label}
                </span>
              )}
            </button>
            {name !== null && (
              <button
                type="button"
                className="btn-bare clear"
                aria-label={`Nothing ${SIDE_NAMES[side].toLowerCase()}`}
                onClick={() => fill(side, null)}
              >
                ×
              </button>
            )}
          </div>
        );
      })}
    </div>
  );
}
