import type { ToldCell } from '../../core/inspect/told-rows';
import type { Face } from './tableLook';

/** Code and label of a cell together, in the order that the person prefers; or what the file holds. */
export function CellText({ cell, face }: { cell: ToldCell; face: Face }) {
  const { raw, code, label, state } = cell;
  if (face === 'raw') return <span className="code">{raw}</span>;
  if (state === 'blank' || state === 'notAsked') {
    if (code === null) return null;
  }
  const shown = <span className="code">{code ?? raw}</span>;
  if (label === null) return shown;
  return face === 'label' ? (
    <>
      {label} {shown}
    </>
  ) : (
    <>
      {shown} {label}
    </>
  );
}

const STATES: Record<ToldCell['state'], string> = {
  valid: '',
  missing: 'missing',
  notAsked: 'not asked',
  blank: 'blank',
  unreadable: 'unreadable',
};

/** What a cell is, in words, for whom texture says nothing. */
export function cellSays({ raw, code, label, state, corrected }: ToldCell): string {
  return [
    code ?? raw,
    label,
    STATES[state],
    corrected && `received: “${raw}”`,
    !corrected && code !== null && code !== raw && `written “${raw}”`,
  ]
    .filter(Boolean)
    .join(', ');
}
