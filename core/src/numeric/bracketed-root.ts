/** The relative accuracy that rounding allows. */
const CLOSE = 4 * Number.EPSILON;
const MOST_ROUNDS = 200;

/**
 * The place between `from` and `to` where a function is 0, its signs at the two being different. Ridders' method (1979): an exponential through both ends and
 * the middle; halves where that leaves the bracket. It needs no derivative, and ends where the bracket is as short as `tolerance`, or as rounding allows.
 */
export function bracketedRoot(of: (x: number) => number, from: number, to: number, tolerance = 0): number {
  let [low, high] = [from, to];
  let atLow = of(low);
  let atHigh = of(high);
  if (atLow === 0) return low;
  if (atHigh === 0) return high;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const middle = low + (high - low) / 2;
    const atMiddle = of(middle);
    if (atMiddle === 0) return middle;
    const root = Math.sqrt(atMiddle * atMiddle - atLow * atHigh);
    const next = middle + ((middle - low) * Math.sign(atLow - atHigh) * atMiddle) / root;
    // Infinite ends have no exponential through them.
    const here = next > Math.min(low, high) && next < Math.max(low, high) ? next : middle;
    const atHere = here === middle ? atMiddle : of(here);
    if (atHere === 0) return here;
    if (Math.sign(atMiddle) !== Math.sign(atHere)) [low, atLow, high, atHigh] = [middle, atMiddle, here, atHere];
    else if (Math.sign(atLow) !== Math.sign(atHere)) [high, atHigh] = [here, atHere];
    else [low, atLow] = [here, atHere];
    const width = Math.abs(high - low);
    if (width <= Math.max(tolerance, CLOSE * Math.max(Math.abs(low), Math.abs(high)))) return here;
  }
  return low + (high - low) / 2;
}
