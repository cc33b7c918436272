'use client';

import { useEffect, useState } from 'react';
import { startSession } from '../store/start';
import { useSession } from '../store/session';
import { Flags } from './flags/Flags';
import { useFrameKeys } from './frame/keys';
import { KeyHelp } from './frame/KeyHelp';
import { Jump } from './frame/Jump';
import { KeptLine } from './frame/KeptLine';
import { Problem } from './frame/Problem';
import { ReadingNow } from './frame/ReadingNow';
import { ScopeLine } from './frame/ScopeLine';
import { Stations } from './frame/Stations';
import { Handoff } from './handoff/Handoff';
import { useDroppedFiles } from './intake/dropped';
import { Intake } from './intake/Intake';
import { Inventory } from './ledger/Inventory';
import { useLook } from './look/look';
import { RecordCard } from './rows/RecordCard';

/** The whole program on one page: stations to the left, scope line above, the work, and what is kept below. */
export function Workplace() {
  const station = useSession((session) => session.station);
  const reading = useSession((session) => session.reading);
  const [help, setHelp] = useState(false);
  const [look, changeLook] = useLook();
  const dropped = useDroppedFiles();
  const [ready, setReady] = useState(false);
  useEffect(() => {
    setReady(true);
    return startSession();
  }, []);
  useFrameKeys(() => setHelp(true));
  return (
    <div className="workplace" data-ready={ready || undefined}>
      <Stations />
      <ScopeLine />
      <main className="work">
        {/* Always there, so that files brought in stay there while others are read or another station is looked at. */}
        <div className="sheet" tabIndex={-1} hidden={reading !== null || station !== 'intake'}>
          <Problem />
          <Intake dropped={dropped} />
        </div>
        {reading ? (
          <ReadingNow now={reading} />
        ) : (
          <>
            {station === 'inventory' && <Inventory />}
            {station === 'flags' && <Flags />}
            {station === 'handoff' && (
              <div className="sheet" tabIndex={-1}>
                <Problem />
                <Handoff />
              </div>
            )}
          </>
        )}
      </main>
      <KeptLine look={look} changeLook={changeLook} help={() => setHelp(true)} />
      <Jump />
      <RecordCard />
      <KeyHelp shown={help} close={() => setHelp(false)} />
    </div>
  );
}
