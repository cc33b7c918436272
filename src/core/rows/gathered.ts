/**
 * Asks that are made in one go are answered together: what is asked before anything is waited for goes along.
 * @param answer answers several, each at its place
 */
export function gathered<A, B>(answer: (asks: A[]) => Promise<B[]>): (ask: A) => Promise<B> {
  let waiting: A[] = [];
  let going: Promise<B[]> | null = null;
  return async (ask) => {
    const place = waiting.push(ask) - 1;
    going ??= Promise.resolve().then(() => {
      const together = waiting;
      waiting = [];
      going = null;
      return answer(together);
    });
    return (await going)[place];
  };
}
