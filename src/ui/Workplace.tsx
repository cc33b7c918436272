'use client';

import { useEffect, useState } from 'react';
import { startSession } from '../store/start';
import { useSession } from '../store/session';
import { Cross } from './cross/Cross';
import { PickSide } from './cross/PickSide';
import { Flags } from './flags/Flags';
import { Boundary } from './frame/Boundary';
import { useFrameKeys } from './keys/keys';
import { KeyHelp } from './keys/KeyHelp';
import { Jump } from './frame/Jump';
import { KeptLine } from './frame/KeptLine';
import { Problem } from './frame/Problem';
import { ReadingNow } from './frame/ReadingNow';
import { ScopeLine } from './frame/ScopeLine';
import { Stations } from './frame/Stations';
import { Handoff } from './handoff/Handoff';
import { BesideDialog } from './intake/BesideDialog';
import { FromDatabase } from './intake/FromDatabase';
import { ReplayDialog } from './handoff/ReplayDialog';
import { useDroppedFiles } from './intake/dropped';
import { Intake } from './intake/Intake';
import { Inventory } from './ledger/Inventory';
import { useLook } from './look/look';
import { RecodeDialog } from './recode/RecodeDialog';
import { ConditionDialog } from './rows/ConditionDialog';
import { RecordCard } from './rows/RecordCard';
import { Rows } from './rows/Rows';
import { PutInto } from './sets/PutInto';
import { Sets } from './sets/Sets';

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
          <Boundary what="The intake">
            <Intake dropped={dropped} />
          </Boundary>
        </div>
        {reading ? (
          <ReadingNow now={reading} />
        ) : (
          <>
            {station === 'inventory' && (
              <Boundary what="The inventory">
                <Inventory />
              </Boundary>
            )}
            {station === 'flags' && (
              <Boundary what="The flags">
                <Flags />
              </Boundary>
            )}
            {station === 'sets' && (
              <Boundary what="The sets">
                <Sets />
              </Boundary>
            )}
            {station === 'rows' && (
              <Boundary what="The rows">
                <Rows />
              </Boundary>
            )}
            {station === 'cross' && (
              <Boundary what="The cross-checks">
                <Cross />
              </Boundary>
            )}
            {station === 'handoff' && (
              <div className="sheet" tabIndex={-1}>
                <Problem />
                <Boundary what="The handoff">
                  <Handoff />
                </Boundary>
              </div>
            )}
          </>
        )}
      </main>
      <KeptLine look={look} changeLook={changeLook} help={() => setHelp(true)} />
      <Boundary what="The list of variables">
        <Jump />
      </Boundary>
      <Boundary what="Putting into a set">
        <PutInto />
      </Boundary>
      <Boundary what="Choosing a side">
        <PickSide />
      </Boundary>
      <Boundary what="The earlier log">
        <ReplayDialog />
      </Boundary>
      <Boundary what="The two extracts">
        <BesideDialog />
        <FromDatabase />
      </Boundary>
      <Boundary what="The trial recode">
        <RecodeDialog />
      </Boundary>
      <Boundary what="The condition">
        <ConditionDialog />
      </Boundary>
      <Boundary what="The record card">
        <RecordCard />
      </Boundary>
      <KeyHelp shown={help} close={() => setHelp(false)} />
    </div>
  );
}
