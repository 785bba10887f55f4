import type { StreamState } from '../random/stream.js';

/**
 * t of samples of n drawn from a column with replacement, for `out.length` samples one after the other; NaN without spread. Written out because it is
 * the most frequent case: the words of the generator (`nextWord`) in locals, the readings drawn as by `pickDrawn`, the moments as by `momentsOf`. The
 * same bits as through blocks of samples.
 */
export function tOfColumn(
  state: StreamState,
  { values, n, claimed }: { values: Float64Array; n: number; claimed: number },
  out: Float64Array,
): void {
  const scale = values.length * 2 ** -32;
  const sample = new Float64Array(n);
  let s0 = state[0]!;
  let s1 = state[1]!;
  let s2 = state[2]!;
  let s3 = state[3]!;
  for (let r = 0; r < out.length; r++) {
    for (let i = 0; i < n; i++) {
      let t = Math.imul(s1, 5);
      const word = Math.imul((t << 7) | (t >>> 25), 9);
      t = s1 << 9;
      s2 ^= s0;
      s3 ^= s1;
      s1 ^= s2;
      s0 ^= s3;
      s2 ^= t;
      s3 = (s3 << 11) | (s3 >>> 21);
      sample[i] = values[((word >>> 0) * scale) | 0]!;
    }
    const first = sample[0]!;
    let sum = 0;
    for (let i = 1; i < n; i++) sum += sample[i]! - first;
    const mean = sum / n;
    let squares = 0;
    for (let i = 0; i < n; i++) {
      const d = sample[i]! - first - mean;
      squares += d * d;
    }
    out[r] = squares > 0 ? (first + mean - claimed) / Math.sqrt(squares / (n - 1) / n) : NaN;
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
}
