import { percent, whole } from '../../core/handoff/words';
import type { Sketch as SketchData } from '../../core/inspect/summary';
import type { Counts } from '../../core/infer/levels';
import type { Kind } from '../../core/extract/words';

/** Parts of a variable's make-up, in the order in which they stand in its bar. */
export const PARTS = [
  ['valid', 'valid'],
  ['notAsked', 'not asked'],
  ['missing', 'missing'],
  ['blank', 'blank'],
  ['unreadable', 'unreadable'],
] as const satisfies readonly (readonly [keyof Counts, string])[];

/** "of 2,987 rows: 2,944 valid (98.6 %), 40 missing (1.3 %)". */
export function makeUpText(counts: Counts): string {
  const parts = PARTS.filter(([part]) => counts[part] > 0).map(
    ([part, name]) => `${whole(counts[part])} ${name} (${percent(counts[part] / counts.all)})`,
  );
  return `of ${whole(counts.all)} rows: ${parts.join(', ')}`;
}

export function MakeUp({ counts }: { counts: Counts }) {
  const says = makeUpText(counts);
  return (
    <span className="makeup" role="img" aria-label={says} title={says}>
      {PARTS.map(
        ([part]) =>
          counts[part] > 0 && (
            <i key={part} className={`part-${part}`} style={{ flex: `${counts[part]} 0 0` }} />
          ),
      )}
    </span>
  );
}

const WIDTH = 80;
const HEIGHT = 20;

/** A distribution in the space of a word, drawn by ourselves: thousands of them must scroll. */
export function Sketch({ sketch }: { sketch: SketchData }) {
  const step = sketch.apart ? Math.min(WIDTH / sketch.heights.length, 16) : WIDTH / sketch.heights.length;
  const gap = sketch.apart ? Math.min(2, step / 3) : 0.4;
  // One path for all bars: a third of the work of a shape for each.
  const bars = sketch.heights.map((height, i) => {
    const tall = Math.max(0.7, height * HEIGHT);
    return `M${(i * step).toFixed(1)} ${HEIGHT}v${(-tall).toFixed(1)}h${(step - gap).toFixed(1)}v${tall.toFixed(1)}z`;
  });
  return (
    <svg className="sketch" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden="true">
      <path d={bars.join('')} />
    </svg>
  );
}

/** A kind with its standing: presumed leans and asks, confirmed stands. */
export function KindMark({ kind, confirmed }: { kind: Kind; confirmed: boolean }) {
  return (
    <span
      className={`kind${confirmed ? ' confirmed' : ''}`}
      title={confirmed ? `${kind}, confirmed` : `${kind}, presumed`}
    >
      {kind}
      {confirmed ? (
        <span className="visually-hidden"> confirmed</span>
      ) : (
        <>
          ?<span className="visually-hidden"> presumed</span>
        </>
      )}
    </span>
  );
}

export function FlagMark({ number }: { number: number }) {
  return (
    <span className="flagmark" title={`${number} ${number === 1 ? 'flag' : 'flags'}`}>
      <svg viewBox="0 0 12 13" aria-hidden="true">
        <path d="M1 0h1.6v1H11L8.6 4 11 7H2.6v6H1z" />
      </svg>
      {number}
      <span className="visually-hidden"> {number === 1 ? 'flag' : 'flags'}</span>
    </span>
  );
}
