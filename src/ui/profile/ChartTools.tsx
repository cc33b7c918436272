'use client';

import type { Picture } from '../../core/inspect/profile';
import { askOrSay } from '../../store/asking';
import { useSession } from '../../store/session';
import { saveBlob } from '../handoff/download';
import { pngOf } from '../frame/copy';
import type { Drawing } from './useProfile';

/** How a chart looks, whatever it is drawn from. */
export interface Looks {
  curve: boolean;
  byCount: boolean;
  pie: boolean;
}

/** What can be changed about a chart, and the ways to save it. */
export function ChartTools({
  name,
  picture,
  mayBePie,
  drawing,
  draw,
  looks,
  change,
}: {
  name: string;
  picture: Exclude<Picture, { form: 'none' }>;
  mayBePie: boolean;
  drawing: Drawing;
  draw: (part: Partial<Drawing>) => void;
  looks: Looks;
  change: (part: Partial<Looks>) => void;
}) {
  return (
    <p className="charttools small">
      {picture.form === 'histogram' && !picture.lengths && (
        <>
          <label>
            Bin width{' '}
            <input
              type="number"
              min={0}
              step="any"
              value={drawing.width ?? ''}
              placeholder={String(picture.histogram.width)}
              aria-label="Bin width"
              onChange={(event) =>
                draw({ width: Number(event.target.value) > 0 ? Number(event.target.value) : null })
              }
            />
          </label>
          <label>
            <input
              type="checkbox"
              checked={looks.curve}
              onChange={(event) => change({ curve: event.target.checked })}
            />{' '}
            normal curve
          </label>
          {(picture.beyond || drawing.all) && (
            <label>
              <input
                type="checkbox"
                checked={drawing.all}
                onChange={(event) => draw({ all: event.target.checked })}
              />{' '}
              what lies far out too
            </label>
          )}
        </>
      )}
      {picture.form === 'bars' && (
        <label>
          <input
            type="checkbox"
            checked={looks.byCount}
            onChange={(event) => change({ byCount: event.target.checked })}
          />{' '}
          most frequent first
        </label>
      )}
      {mayBePie && (
        <label>
          <input
            type="checkbox"
            checked={looks.pie}
            onChange={(event) => change({ pie: event.target.checked })}
          />{' '}
          as a pie
        </label>
      )}
      <button type="button" className="btn-bare" onClick={() => void saveChart(name, drawing, 'svg')}>
        Save SVG
      </button>
      <button type="button" className="btn-bare" onClick={() => void saveChart(name, drawing, 'png')}>
        Save PNG
      </button>
    </p>
  );
}

async function saveChart(name: string, { width, all }: Drawing, form: 'svg' | 'png'): Promise<void> {
  const file = `${name.replace(/[^\p{L}\p{N}._-]+/gu, '_')}.${form}`;
  try {
    const svg = await askOrSay('chart', name, width, all);
    if (!svg) return;
    saveBlob(file, form === 'svg' ? new Blob([svg], { type: 'image/svg+xml' }) : await pngOf(svg));
  } catch (cause) {
    useSession.setState({
      problem: { file, says: `could not be made (${(cause as Error).message}); try the other form` },
    });
  }
}
