import type { Distribution, Family } from './family.js';

/** Where a picture begins and ends. */
export interface Window {
  from: number;
  to: number;
}

/** The probability outside a suitable window on either side. */
const OUT_OF_SIGHT = 2e-4;
/** Heavy tails are shown up to this number of interquartile ranges from the median. */
const WIDEST = 5;
const MOST_BARS = 400;
const POINTS = 420;

/**
 * A suitable window for the curve: from the 0.02 % to the 99.98 % quantile, at most five interquartile ranges from the median if the tails are heavy,
 * and up to a nearby end of the support, so that a curve that starts at 0 is shown from 0.
 */
export function wellPlaced(family: Family, distribution: Distribution): Window {
  const { from, to } = placed(family, distribution);
  if (Number.isFinite(to - from) && from < to) return { from, to };
  // A curve too wide or too narrow for doubles to draw: some place around its median.
  const median = distribution.quantile(0.5);
  const centre = Number.isFinite(median) ? median : 0;
  return { from: centre - (Math.abs(centre) || 1), to: centre + (Math.abs(centre) || 1) };
}

function placed(family: Family, distribution: Distribution): Window {
  const median = distribution.quantile(0.5);
  const spread = distribution.survivalQuantile(0.25) - distribution.quantile(0.25);
  const reach = WIDEST * (spread > 0 ? spread : Math.abs(median) || 1);
  const { lower, upper } = distribution.support;
  let from = Math.max(distribution.quantile(OUT_OF_SIGHT), median - reach);
  let to = Math.min(distribution.survivalQuantile(OUT_OF_SIGHT), median + reach);
  if (family.discrete) return { from: Math.max(lower, from - 1) - 0.6, to: Math.min(upper, to + 1) + 0.6 };
  const width = to - from;
  if (!(width > 0)) return { from: median - reach, to: median + reach };
  // A visible strip beyond an end of the support shows that there is nothing.
  if (from - lower < 0.35 * width) from = lower - 0.04 * width;
  if (upper - to < 0.35 * width) to = upper + 0.04 * width;
  return { from, to };
}

/** A window that contains all of these. */
export function joined(windows: readonly Window[]): Window {
  return { from: Math.min(...windows.map(({ from }) => from)), to: Math.max(...windows.map(({ to }) => to)) };
}

export type CurveScale = 'density' | 'cumulative';

/** The data of a picture: points of a curve, or one bar for each number of a discrete family. */
export interface Curve {
  x: number[];
  y: number[];
  bars: boolean;
  /** True if the curve is a step function. */
  stepped: boolean;
}

/** The greatest density to be shown: a pole, such as that of a gamma of shape ½ at 0, is cut off. */
function heightOf(y: readonly number[]): number {
  const sorted = y.filter((v) => Number.isFinite(v)).sort((a, b) => a - b);
  const high = sorted[sorted.length - 1] ?? 0;
  const usual = sorted[Math.floor(sorted.length * 0.97)] ?? high;
  return high > 6 * usual && usual > 0 ? 3 * usual : high;
}

/**
 * The density (or the probabilities) or the cumulative curve over a window. Up to 400 numbers are shown as bars; wider windows as a curve through
 * evenly spaced ones.
 */
export function curveOver(family: Family, distribution: Distribution, { from, to }: Window, scale: CurveScale): Curve {
  const at = scale === 'density' ? distribution.density : distribution.cumulative;
  if (family.discrete) {
    const first = Math.max(Math.ceil(from), distribution.support.lower);
    const last = Math.min(Math.floor(to), distribution.support.upper);
    const stride = Math.max(1, Math.ceil((last - first) / MOST_BARS));
    const length = Math.max(0, Math.min(MOST_BARS, Math.floor((last - first) / stride)) + 1);
    const x = Array.from({ length: Number.isFinite(length) ? length : 0 }, (_, i) => first + i * stride);
    // The steps of a cumulative curve begin and end where the picture does.
    if (scale === 'cumulative') return { x: [from, ...x, to], y: [from, ...x, to].map(at), bars: false, stepped: true };
    return { x, y: x.map(at), bars: stride === 1, stepped: stride > 1 };
  }
  const x = Array.from({ length: POINTS + 1 }, (_, i) => from + ((to - from) * i) / POINTS);
  // The ends of the support and the kinks there belong to the curve, or a steep start is drawn as a ramp.
  const { lower, upper } = distribution.support;
  const nudge = (to - from) * 1e-9;
  for (const end of [lower, upper]) if (end > from && end < to) x.push(end - nudge, end, end + nudge);
  x.sort((a, b) => a - b);
  const y = x.map(at);
  const most = heightOf(y);
  return { x, y: y.map((v) => (Number.isFinite(v) ? Math.min(v, most) : most)), bars: false, stepped: false };
}
