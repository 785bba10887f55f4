import { nextOpenUnit, type StreamState } from '../random/stream.js';

/** Draws by inversion: each is the quantile of a uniform draw, computed from the tail that keeps its digits. For quantiles in closed form. */
export function sampleByInversion(
  quantile: (p: number) => number,
  survivalQuantile: (q: number) => number,
): (stream: StreamState, out: Float64Array) => void {
  return (stream, out) => {
    for (let i = 0; i < out.length; i++) {
      const u = nextOpenUnit(stream);
      out[i] = u <= 0.5 ? quantile(u) : survivalQuantile(1 - u);
    }
  };
}
