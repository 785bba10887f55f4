import { exp, log } from '../numeric/elementary.js';
import { nextNormal } from './normal.js';
import { nextOpenUnit, type StreamState } from './stream.js';

/** One draw of a gamma with scale 1 and shape ≥ 1, d = shape − 1/3 and c = 1/√(9d). */
function nextLarge(state: StreamState, d: number, c: number): number {
  for (;;) {
    const x = nextNormal(state);
    const t = 1 + c * x;
    if (t <= 0) continue;
    const v = t * t * t;
    const u = nextOpenUnit(state);
    const square = x * x;
    if (u < 1 - 0.0331 * square * square) return d * v;
    if (log(u) < 0.5 * square + d * (1 - v + log(v))) return d * v;
  }
}

/**
 * Fills `out` with gamma draws of the given shape and scale 1: Marsaglia & Tsang (2000), exact rejection from a cubed normal;
 * for a shape below 1 a draw of shape + 1 times U^(1/shape).
 */
export function fillGammas(state: StreamState, shape: number, out: Float64Array): void {
  const small = shape < 1;
  const d = (small ? shape + 1 : shape) - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (let i = 0; i < out.length; i++) {
    const draw = nextLarge(state, d, c);
    out[i] = small ? draw * exp(log(nextOpenUnit(state)) / shape) : draw;
  }
}
