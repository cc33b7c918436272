import { BETWEEN_PULSES, pulse } from './pulse';
import { textAt, type TextList } from './text-list';

/** Fewer texts are sorted by comparing them, and so are longer ones: on average, in code units. */
const LEAST = 1 << 11;
const LONG = 64;
const MOST_UNITS = 2 ** 30;
/** Groups of so few are sorted by comparing them. */
const FEW = 24;
/** What a unit of a text can be when it is at its end, or is a byte. */
const KEYS = 257;

/**
 * Places of texts that differ, in the order of their code units. Many are parted by their first unit, each part by its second,
 * and so on (McIlroy, Bostic and McIlroy, Engineering Radix Sort, 1993): no two of them are compared as a whole.
 * @param places of texts in the list, in any order; they may be put in order where they lie
 */
export function inTextOrder(places: Uint32Array, texts: TextList): Uint32Array {
  let units = 0;
  let isRising = true;
  let before = '';
  for (let i = 0; i < places.length; i++) {
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    const text = textAt(texts, places[i]);
    isRising &&= before <= text;
    before = text;
    units += text.length;
  }
  if (isRising) return places;
  if (places.length < LEAST || units > places.length * LONG || units >= MOST_UNITS)
    return byComparing(places, texts);
  return byUnits(places, texts, units);
}

function byComparing(places: Uint32Array, texts: TextList): Uint32Array {
  let compared = 0;
  return places.sort((a, b) => {
    if ((++compared & (BETWEEN_PULSES - 1)) === 0) pulse();
    return textAt(texts, a) < textAt(texts, b) ? -1 : 1;
  });
}

function byUnits(places: Uint32Array, texts: TextList, units: number): Uint32Array {
  const starts = new Uint32Array(places.length + 1);
  const bytes = asciiOf(places, texts, units, starts) ?? wideOf(places, texts, units, starts);
  const order = new Uint32Array(places.length);
  for (let i = 0; i < order.length; i++) order[i] = i;
  sortBytes(bytes, starts, order);
  for (let i = 0; i < order.length; i++) order[i] = places[order[i]];
  return order;
}

/** Texts one after the other, a byte a unit; `null` where one holds more than ASCII. @param starts where each starts, to be filled */
function asciiOf(
  places: Uint32Array,
  texts: TextList,
  units: number,
  starts: Uint32Array,
): Uint8Array | null {
  const bytes = new Uint8Array(units);
  let used = 0;
  for (let first = 0; first < places.length; first += TOGETHER) {
    const some: string[] = [];
    let length = 0;
    for (let i = first; i < Math.min(first + TOGETHER, places.length); i++) {
      const text = textAt(texts, places[i]);
      some.push(text);
      length += text.length;
      starts[i + 1] = used + length;
    }
    const encoded = encoder.encode(some.join(''));
    if (encoded.length > length) return null;
    bytes.set(encoded, used);
    used += length;
  }
  return bytes;
}
const encoder = new TextEncoder();
/** Texts that are encoded together. */
const TOGETHER = 1 << 10;

/** The same, two bytes a unit, the larger first. */
function wideOf(places: Uint32Array, texts: TextList, units: number, starts: Uint32Array): Uint8Array {
  const bytes = new Uint8Array(units * 2);
  let used = 0;
  for (let i = 0; i < places.length; i++) {
    const text = textAt(texts, places[i]);
    for (let at = 0; at < text.length; at++) {
      const unit = text.charCodeAt(at);
      bytes[used++] = unit >>> 8;
      bytes[used++] = unit;
    }
    starts[i + 1] = used;
  }
  return bytes;
}

/** Sorts the numbers of texts by the bytes of each. @param starts where each text starts, and the last one ends */
function sortBytes(bytes: Uint8Array, starts: Uint32Array, order: Uint32Array): void {
  const spare = new Uint32Array(order.length);
  const keys = new Uint16Array(order.length);
  const ends = new Uint32Array(KEYS);
  // Groups that are to be sorted: from, up to, and the bytes that all of them share.
  const groups = [0, order.length, 0];
  let sorted = 0;
  while (groups.length > 0) {
    const shared = groups.pop() as number;
    const to = groups.pop() as number;
    const from = groups.pop() as number;
    if (to - from < FEW) {
      insert(bytes, starts, order, from, to, shared);
      continue;
    }
    if ((sorted += to - from) > BETWEEN_PULSES) {
      sorted = 0;
      pulse();
    }
    ends.fill(0);
    for (let i = from; i < to; i++) {
      const at = starts[order[i]] + shared;
      const key = at < starts[order[i] + 1] ? bytes[at] + 1 : 0;
      keys[i] = key;
      ends[key]++;
    }
    if (ends[keys[from]] === to - from) {
      if (keys[from] > 0) groups.push(from, to, shared + 1);
      continue;
    }
    let end = from;
    for (let key = 0; key < KEYS; key++) {
      const many = ends[key];
      if (many > 1 && key > 0) groups.push(end, end + many, shared + 1);
      ends[key] = end;
      end += many;
    }
    for (let i = from; i < to; i++) spare[ends[keys[i]]++] = order[i];
    order.set(spare.subarray(from, to), from);
  }
}

/** Sorts a few by putting each where it belongs among those before it. */
function insert(
  bytes: Uint8Array,
  starts: Uint32Array,
  order: Uint32Array,
  from: number,
  to: number,
  shared: number,
): void {
  for (let i = from + 1; i < to; i++) {
    const one = order[i];
    let place = i;
    while (place > from && isBefore(bytes, starts, one, order[place - 1], shared)) {
      order[place] = order[place - 1];
      place--;
    }
    order[place] = one;
  }
}

function isBefore(
  bytes: Uint8Array,
  starts: Uint32Array,
  one: number,
  other: number,
  shared: number,
): boolean {
  let a = starts[one] + shared;
  let b = starts[other] + shared;
  const [endA, endB] = [starts[one + 1], starts[other + 1]];
  while (a < endA && b < endB && bytes[a] === bytes[b]) {
    a++;
    b++;
  }
  if (b >= endB) return false;
  return a >= endA || bytes[a] < bytes[b];
}
