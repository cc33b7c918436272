'use client';

import { useEffect, useRef, useState, type CSSProperties } from 'react';
import { holdAgainst, showSkip } from '../../store/cross';
import { confirmKinds, signOff } from '../../store/decisions';
import { askRecode } from '../../store/recodes';
import { atHand, sawIt, useSession, type Asking, useParts } from '../../store/session';
import { useKeys } from '../keys/keys';
import { KindDialog } from '../ledger/KindDialog';
import { NameDialog } from '../ledger/NameDialog';
import { useShallow } from 'zustand/react/shallow';
import { useKeptWidth } from '../look/look';
import { ProblemText } from '../asking/ProblemText';
import { Boundary } from '../frame/Boundary';
import { ByHand } from '../rulings/ByHand';
import { CodesDialog } from './CodesDialog';
import { NoteDialog } from './NoteDialog';
import { OrderDialog } from './OrderDialog';
import { ProfileView } from './ProfileView';
import { Together } from './Together';
import { useProfile, type Drawing } from './useProfile';

const LEAST = 320;
const MOST = 900;
const KEY_STEP = 24;
const AS_IT_COMES: Drawing = { width: null, all: false };
const SEEN_AFTER = 700;

const ask = (asking: Asking) => (): void => useSession.setState({ asking });

/** Keys that act on the variable at hand wherever its profile is shown. */
function useVariableKeys(): void {
  useKeys('variable', {
    confirm: confirmKinds,
    kind: ask('kind'),
    codes: ask('codes'),
    signOff,
    note: ask('note'),
    name: ask('name'),
    ruling: ask('ruling'),
    order: ask('order'),
    against: () => {
      const names = atHand(useSession.getState());
      if (names.length > 1) holdAgainst(names);
      else if (names.length === 1) useSession.setState({ asking: 'side', side: 'against' });
      else return false;
    },
    band: () => {
      const { current } = useSession.getState();
      if (current === null) return false;
      askRecode(current);
    },
    skip: () => {
      const { current } = useSession.getState();
      if (current === null) return false;
      void showSkip(current);
    },
    wide: () => useSession.setState((now) => ({ wide: !now.wide })),
  });
  useEffect(() => () => useSession.setState({ wide: false, asking: null }), []);
}

const done = (): void => {
  useSession.setState({ asking: null });
  backToWork();
};
const backToWork = (): void => document.querySelector<HTMLElement>('.ledger, .flaglist')?.focus();

/** The profile beside the work: as wide as one likes, or on the whole width. @param bare without the flags, where they stand beside it */
export function ProfilePane({ name, bare = false }: { name: string; bare?: boolean }) {
  const { wide, asking } = useParts('wide', 'asking');
  const names = useSession(useShallow(atHand));
  const [said, setSaid] = useState<Drawing & { name: string }>({ name, ...AS_IT_COMES });
  const drawing = said.name === name ? said : AS_IT_COMES;
  const { value: profile, problem } = useProfile(name, drawing);
  const pane = useRef<HTMLElement>(null);
  useVariableKeys();
  // Seen is what somebody rested on, not what keys ran past.
  useEffect(() => {
    const timer = setTimeout(() => sawIt(name), SEEN_AFTER);
    return () => clearTimeout(timer);
  }, [name]);
  useEffect(() => {
    if (wide) pane.current?.focus();
  }, [wide]);
  const [width, setWidth] = useKeptWidth('profile-width', 384);
  const dragging = useRef(false);
  const clamp = (wished: number): number => Math.round(Math.min(MOST, Math.max(LEAST, wished)));
  return (
    <>
      {!wide && (
        <div
          role="separator"
          aria-orientation="vertical"
          aria-label="Width of the profile"
          aria-valuenow={width}
          aria-valuemin={LEAST}
          aria-valuemax={MOST}
          tabIndex={0}
          className="seam"
          onPointerDown={(event) => {
            dragging.current = true;
            event.currentTarget.setPointerCapture(event.pointerId);
          }}
          onPointerMove={(event) => dragging.current && setWidth(clamp(window.innerWidth - event.clientX))}
          onPointerUp={() => {
            dragging.current = false;
          }}
          onKeyDown={(event) => {
            const step = event.key === 'ArrowLeft' ? KEY_STEP : event.key === 'ArrowRight' ? -KEY_STEP : 0;
            if (step) {
              event.preventDefault();
              setWidth(clamp(width + step));
            }
          }}
        />
      )}
      <aside
        id="profile"
        ref={pane}
        className={`profile${wide ? ' wide' : ''}`}
        style={{ '--profile-width': `${width}px` } as CSSProperties}
        tabIndex={-1}
        aria-label={`Profile of ${name}`}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return;
          if (wide) useSession.setState({ wide: false });
          else backToWork();
        }}
      >
        {problem && <ProblemText problem={problem} />}
        {profile && (
          <Boundary what={`The profile of ${name}`} about={profile}>
            <ProfileView
              profile={profile}
              wide={wide}
              bare={bare && !wide}
              drawing={drawing}
              draw={(part) => setSaid({ ...drawing, ...part, name })}
            />
          </Boundary>
        )}
      </aside>
      <KindDialog shown={asking === 'kind'} names={names} close={done} />
      <CodesDialog shown={asking === 'codes'} names={names} close={done} />
      <Together shown={asking === 'together'} names={names} close={done} />
      <NameDialog shown={asking === 'name'} name={name} close={done} />
      <NoteDialog shown={asking === 'note'} name={name} close={done} />
      <ByHand shown={asking === 'ruling'} names={names} close={done} />
      <OrderDialog shown={asking === 'order'} names={names} close={done} />
    </>
  );
}
