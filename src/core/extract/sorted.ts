/** First place of ascending numbers that is not below the one sought; their length where all are. */
export function placeIn(sorted: ArrayLike<number>, sought: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle] < sought) low = middle + 1;
    else high = middle;
  }
  return low;
}
