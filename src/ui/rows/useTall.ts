import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';

/** Browsers draw nothing that is taller than some tens of millions of pixels; below this each row has its true place. */
const MOST_TALL = 8_000_000;

export interface Tall {
  scroller: RefObject<HTMLDivElement | null>;
  /** The first row that is seen, a part of one being scrolled away already: 12.5 is in the middle of row 12. */
  top: number;
  left: number;
  width: number;
  height: number;
  /** Pixels that the content is to take, so that the browser's own bars tell the place. */
  tall: number;
  /** Goes so that a row is the first one seen, or the nearest to that. */
  goTo: (top: number) => void;
  goLeft: (left: number) => void;
}

/**
 * Scrolling over any number of rows of one height. Where they are too many for the browser the bar stands for the share of all
 * rows, and the wheel moves by rows as it does elsewhere.
 * @param head pixels above the rows
 */
export function useTall(rows: number, row: number, head: number): Tall {
  const scroller = useRef<HTMLDivElement>(null);
  const [place, setPlace] = useState({ top: 0, left: 0 });
  const [size, setSize] = useState({ width: 0, height: 0 });
  const tall = Math.min(rows * row, MOST_TALL) + head;
  const scaled = rows * row > MOST_TALL;
  const seen = Math.max(0, (size.height - head) / row);
  const most = Math.max(0, rows - seen);
  /** Where the bar was put by us: that it moved there says nothing new. */
  const put = useRef(-1);
  const latest = useRef({ place, most, scaled, tall, height: size.height });
  latest.current = { place, most, scaled, tall, height: size.height };

  const goTo = useCallback(
    (wished: number): void => {
      const { most: end, scaled: far, tall: high, height } = latest.current;
      const top = Math.max(0, Math.min(end, wished));
      const bar = far ? (end > 0 ? (top / end) * Math.max(0, high - height) : 0) : top * row;
      latest.current.place = { ...latest.current.place, top };
      setPlace((now) => ({ ...now, top }));
      if (scroller.current) {
        put.current = Math.round(bar);
        scroller.current.scrollTop = bar;
      }
    },
    [row],
  );
  const goLeft = useCallback((left: number): void => {
    if (scroller.current) scroller.current.scrollLeft = Math.max(0, left);
  }, []);

  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const measure = (): void => setSize({ width: element.clientWidth, height: element.clientHeight });
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    measure();
    const onScroll = (): void => {
      const { most: end, scaled: far, tall: high, height } = latest.current;
      const left = element.scrollLeft;
      if (Math.abs(element.scrollTop - put.current) <= 1) {
        put.current = -1;
        setPlace((now) => (now.left === left ? now : { ...now, left }));
        return;
      }
      const room = high - height;
      const top = far ? (room > 0 ? (element.scrollTop / room) * end : 0) : element.scrollTop / row;
      setPlace({ top, left });
    };
    const onWheel = (event: WheelEvent): void => {
      if (!latest.current.scaled || event.ctrlKey || event.shiftKey || event.deltaY === 0) return;
      event.preventDefault();
      const unit = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? row : 1;
      goTo(latest.current.place.top + (event.deltaY * unit) / row);
    };
    element.addEventListener('scroll', onScroll, { passive: true });
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      watcher.disconnect();
      element.removeEventListener('scroll', onScroll);
      element.removeEventListener('wheel', onWheel);
    };
  }, [row, goTo]);
  // Fewer rows than before: what lay beyond them is not there to be seen.
  useEffect(() => {
    if (place.top > most) goTo(most);
  }, [most]);
  return { scroller, ...place, ...size, tall, goTo, goLeft };
}
