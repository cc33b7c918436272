'use client';

import { figure, whole } from '../../core/handoff/words';
import type { StemDisplay } from '../../core/tally/stem';
import { CopyButton } from './CopyButton';

/** A stem display, folded away until it is asked for. */
export function Stem({
  stem: { lines, leafUnit, perLeaf, low, high },
  of = '',
  open,
}: {
  stem: StemDisplay;
  /** What it is of, where that is not plain. */
  of?: string;
  open?: boolean;
}) {
  return (
    <details className="stemroom copyroom" open={open}>
      <summary>Stem display{of && ` of ${of}`}</summary>
      <p className="soft small mb-1">
        Leaf unit {figure(leafUnit)}
        {perLeaf > 1 && `; a leaf stands for ${whole(perLeaf)} rows`}. <CopyButton what="the stem display" />
      </p>
      <table className="code stem">
        <thead>
          <tr>
            <th scope="col" className="n">
              Depth
            </th>
            <th scope="col" className="n">
              Stem
            </th>
            <th scope="col">Leaves</th>
          </tr>
        </thead>
        <tbody>
          {lines.map(({ stem, leaves, depth }) => (
            <tr key={stem}>
              <td className="n soft">{whole(depth)}</td>
              <td className="n">{stem}</td>
              <td>{leaves}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {low.length + high.length > 0 && (
        <p className="soft small mb-0">
          Apart, beyond three interquartile ranges:{' '}
          {[...low.slice(0, 5), ...high.slice(-5)].map((value) => figure(value)).join(', ')}
          {low.length + high.length > 10 && ` and ${whole(low.length + high.length - 10)} more`}
        </p>
      )}
    </details>
  );
}
