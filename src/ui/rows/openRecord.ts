import { useSession } from '../../store/session';

/**
 * Opens the card of a row of the record table: among all rows, where those are listed, whether it is held or not.
 * @param place zero-based, in the listing @param row zero-based, of the whole extract; `null` of a row that is not held
 * @param variable the one at hand
 */
export function openRecord(place: number, row: number | null, variable: string | null): void {
  const { which, whole } = useSession.getState().table;
  const record = which === 'whole' && whole ? { whole: whole.number, place } : row;
  if (record !== null) useSession.setState({ record, ...(variable === null ? {} : { current: variable }) });
}
