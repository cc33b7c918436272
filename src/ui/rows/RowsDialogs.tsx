'use client';

import type { ListAsk } from '../../core/inspect/listing';
import { useParts } from '../../store/session';
import { nameSieve } from '../../store/sieve';
import { AskName } from '../asking/AskName';
import { AddRow } from './AddRow';
import { Changed } from './Changed';
import { CorrectCell } from './CorrectCell';
import { GoRow } from './GoRow';
import { Sheet } from './Sheet';

/** What the station asks of a person. */
export function RowsDialogs({
  ask,
  place,
  column,
  done,
}: {
  ask: ListAsk;
  place: number;
  column: string | null;
  done: () => void;
}) {
  const { asking, draft, state } = useParts('asking', 'draft', 'state');
  return (
    <>
      <CorrectCell shown={asking === 'cell'} ask={ask} place={place} column={column} close={done} />
      <GoRow shown={asking === 'gorow'} ask={ask} close={done} />
      <Sheet shown={asking === 'sheet'} close={done} />
      <AddRow shown={asking === 'addrow'} close={done} />
      <Changed shown={asking === 'changed'} close={done} />
      <AskName
        shown={asking === 'namesieve'}
        title="What is the sieve called?"
        before={draft?.name ?? (state.sieve === null ? '' : (state.sieves.get(state.sieve)?.name ?? ''))}
        taken={[...state.sieves.values()].map(({ name }) => name)}
        accept={nameSieve}
        close={done}
      />
    </>
  );
}
