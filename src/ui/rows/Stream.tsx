const WIDTH = 56;
const HEIGHT = 100;

/** A piece of the stream of rows: as wide as the rows that come, narrowing to those that go on; what is dropped turns off. */
export function Stream({
  all,
  before,
  after,
  tentative = false,
}: {
  all: number;
  before: number;
  after: number;
  tentative?: boolean;
}) {
  const wide = (rows: number): number => (all > 0 ? Math.max(rows > 0 ? 1.5 : 0, (rows / all) * WIDTH) : 0);
  const [from, to] = [wide(before), wide(after)];
  return (
    <svg
      className={`stream${tentative ? ' tentative' : ''}`}
      viewBox={`0 0 ${WIDTH + 14} ${HEIGHT}`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path
        className="goes"
        d={`M0 0H${from}${from > to ? `C${from} ${HEIGHT * 0.5} ${to} ${HEIGHT * 0.4} ${to} ${HEIGHT}` : `V${HEIGHT}`}H0z`}
      />
      {from - to > 0.4 && (
        <path
          className="drops"
          d={`M${from} 0C${from} ${HEIGHT * 0.5} ${to} ${HEIGHT * 0.4} ${to} ${HEIGHT * 0.9}C${to + 4} ${HEIGHT * 0.72} ${WIDTH} ${HEIGHT * 0.78} ${WIDTH + 14} ${HEIGHT * 0.62}V${HEIGHT * 0.34}C${from + 4} ${HEIGHT * 0.4} ${from} ${HEIGHT * 0.2} ${from} 0z`}
        />
      )}
    </svg>
  );
}
