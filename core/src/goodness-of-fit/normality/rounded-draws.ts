import { fillNormals } from '../../random/normal.js';
import type { StreamState } from '../../random/stream.js';
import type { RoundedNormal } from '../rounded-normal.js';

/** Redraws of one replicate after which it is clear that the population can hardly have any spread. */
const MOST_REDRAWS = 10_000;

/**
 * Fills `values` with draws rounded to whole steps; of a normal, or of what `fill` draws with mean 0 and sd 1. A sample that rounding leaves without spread is drawn again: from a population fitted to
 * readings with some spread that is at most 4 in 10. Throws a RangeError where hardly any has spread.
 */
export function roundDraw(
  { mean, sd }: RoundedNormal,
  state: StreamState,
  values: Float64Array,
  fill: (state: StreamState, values: Float64Array) => void = fillNormals,
): void {
  for (let draws = 0; draws < MOST_REDRAWS; draws++) {
    fill(state, values);
    let spread = false;
    for (let i = 0; i < values.length; i++) {
      const x = Math.round(mean + sd * values[i]!);
      values[i] = x;
      spread ||= x !== values[0];
    }
    if (spread) return;
  }
  throw new RangeError(
    `Rounding leaves samples of ${values.length} with mean ${mean} and sd ${sd} resolution steps no variation.`,
  );
}
