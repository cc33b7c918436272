/** The largest of numbers, however many there are (a call with each as an argument overflows the stack); −∞ of none. */
export function largest(numbers: Iterable<number>): number {
  let most = -Infinity;
  for (const n of numbers) if (n > most) most = n;
  return most;
}

/** The smallest of numbers, however many there are; ∞ of none. */
export function smallest(numbers: Iterable<number>): number {
  let least = Infinity;
  for (const n of numbers) if (n < least) least = n;
  return least;
}
