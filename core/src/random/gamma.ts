import { exp, log } from '../numeric/elementary.js';
import { fillExponentials } from './exponential.js';
import { fillNormals } from './normal.js';
import { nextWord, type StreamState } from './stream.js';

/** Normals are drawn in blocks of this many: one at a time they cost twice as much. */
const BLOCK = 256;
const WORD = 2 ** -32;

/**
 * Fills `out` with gamma draws of the given shape and scale 1: Marsaglia & Tsang (2000), exact rejection from a cubed normal;
 * for a shape below 1 a draw of shape + 1 times U^(1/shape) = e^(−E/shape), E being exponential.
 */
export function fillGammas(state: StreamState, shape: number, out: Float64Array): void {
  const d = (shape < 1 ? shape + 1 : shape) - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  const normals = new Float64Array(Math.min(BLOCK, out.length));
  let next = normals.length;
  for (let i = 0; i < out.length;) {
    if (next === normals.length) {
      fillNormals(state, normals);
      next = 0;
    }
    const x = normals[next++]!;
    const t = 1 + c * x;
    if (t <= 0) continue;
    const v = t * t * t;
    const square = x * x;
    // The squeeze lets all but one in fifty through without a logarithm; the upper half of the uniform draw nearly always decides it.
    const upper = nextWord(state) >>> 0;
    if ((upper + 1) * WORD >= 1 - 0.0331 * square * square) {
      const u = (upper + ((nextWord(state) >>> 0) + 0.5) * WORD) * WORD;
      if (log(u) >= 0.5 * square + d * (1 - v + log(v))) continue;
    }
    out[i++] = d * v;
  }
  if (shape >= 1) return;
  const inverse = -1 / shape;
  // The normals are used up: their block holds the exponentials.
  for (let from = 0; from < out.length; from += normals.length) {
    const block = normals.subarray(0, Math.min(normals.length, out.length - from));
    fillExponentials(state, block);
    for (let k = 0; k < block.length; k++) out[from + k] = out[from + k]! * exp(block[k]! * inverse);
  }
}
