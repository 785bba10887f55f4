import { gammaLowerQuantile } from '../numeric/gamma-quantile.js';
import { bracketedRoot } from '../numeric/bracketed-root.js';
import { expm1, log, log1p } from '../numeric/elementary.js';
import type { PowerTransformation } from './transformation.js';

/**
 * Powers that are easily told, the plainest together first: the readings as they are, and their logarithm. A sample of usual size seldom tells a power from the
 * next one, and a lognormal would often be called one over the square root.
 */
const CONVENIENT = [
  [1, 0],
  [0.5, -1, 2, -0.5],
] as const;

/** Readings as a power transformation sees them: logarithms of their distance, and the side of 0 they lie on. */
export interface Bendable {
  logs: Float64Array;
  /** What has been taken off them. */
  centre: number;
  /** True where a reading is bent with 2 − λ, its sign turned: below 0, of Yeo–Johnson. Null where none is. */
  mirrored: readonly boolean[] | null;
}

/** Box–Cox takes log x less its mean, so that nothing overflows; Yeo–Johnson log(1 + |x|). */
export function bendable(name: PowerTransformation, values: Float64Array): Bendable {
  if (name === 'yeo-johnson') {
    const below = values.some((x) => x < 0);
    return {
      logs: values.map((x) => log1p(Math.abs(x))),
      centre: 0,
      mirrored: below ? Array.from(values, (x) => x < 0) : null,
    };
  }
  const logs = values.map(log);
  const centre = logs.reduce((sum, v) => sum + v, 0) / logs.length;
  return { logs: logs.map((v) => v - centre), centre, mirrored: null };
}

/** A reading bent, and what that changes by with λ. */
const bentAt = (v: number, power: number) => (power === 0 ? v : expm1(power * v) / power);

/** The bend of v being known: (v·e^(λv) − bend)/λ, or near 0, where that loses its digits, its series v² Σ (λv)^k/(k!(k + 2)). */
function slopeAt(v: number, power: number, bend: number): number {
  const u = power * v;
  if (Math.abs(u) > 0.5) return (v * (1 + power * bend) - bend) / power;
  let sum = 0;
  let term = 1;
  for (let k = 0; Math.abs(term) > 1e-17; k++) {
    sum += term / (k + 2);
    term *= u / (k + 1);
  }
  return v * v * sum;
}

/** Readings bent with λ, up to a factor and a shift. */
export function bentWith({ logs, mirrored }: Bendable, lambda: number, into: Float64Array): void {
  for (let i = 0; i < logs.length; i++) {
    into[i] = mirrored?.[i] ? -bentAt(logs[i]!, 2 - lambda) : bentAt(logs[i]!, lambda);
  }
}

/** The profile log-likelihood of λ (Box & Cox 1964, equation 8; Yeo & Johnson 2000, equation 3.1) and its derivative. */
export interface Profile {
  at(lambda: number): number;
  slope(lambda: number): number;
  /** What λ usually changes by: 1/sd of the logarithms. */
  step: number;
  /** The places between which it can be computed. */
  least: number;
  most: number;
}

/**
 * The profile of so many readings: mean and variance are those of the bent readings, divisor n. It is concave for Box–Cox (Kouider & Chen 1995), and has one
 * greatest place wherever the readings have a spread.
 */
export function profileOf(bendables: Bendable): Profile {
  const { logs, mirrored } = bendables;
  const n = logs.length;
  const bends = new Float64Array(n);
  let jacobian = 0;
  for (let i = 0; i < n; i++) jacobian += mirrored?.[i] ? -logs[i]! : logs[i]!;
  const spread = (lambda: number) => {
    bentWith(bendables, lambda, bends);
    let mean = 0;
    for (let i = 0; i < n; i++) mean += bends[i]! / n;
    let sum = 0;
    for (let i = 0; i < n; i++) sum += (bends[i]! - mean) ** 2;
    return { mean, sum };
  };
  let [sum, squares] = [0, 0];
  for (let i = 0; i < n; i++) [sum, squares] = [sum + logs[i]!, squares + logs[i]! ** 2];
  return {
    ...reachOf(bendables),
    step: 1 / Math.sqrt(Math.max(squares / n - (sum / n) ** 2, 1e-300)),
    at(lambda) {
      const { sum: s } = spread(lambda);
      const value = -(n / 2) * log(s / n) + (lambda - 1) * jacobian;
      return Number.isFinite(value) ? value : -Infinity;
    },
    slope(lambda) {
      const { mean, sum: s } = spread(lambda);
      let along = 0;
      for (let i = 0; i < n; i++) {
        const v = logs[i]!;
        along +=
          (bends[i]! - mean) * (mirrored?.[i] ? slopeAt(v, 2 - lambda, -bends[i]!) : slopeAt(v, lambda, bends[i]!));
      }
      return jacobian - (n * along) / s;
    },
  };
}

/** Powers further out than this overflow: e^300 can still be squared. */
const GREATEST_EXPONENT = 300;

export interface FoundLambda {
  likeliest: number;
  /** Where the profile is within χ²/2 of its greatest; null at an end that lies further out than can be computed. */
  interval: [number | null, number | null];
  confidence: number;
  /** The plainest of the powers −1, −½, 0, ½, 1, 2 within the interval; null where none is. */
  convenient: number | null;
}

/** The first place from `from` on in this direction where `of` is below 0, by doubling steps; null where there is none up to `most`. */
function whereBelow(of: (x: number) => number, from: number, step: number, most: number): [number, number] | null {
  let [inside, stride] = [from, step];
  for (;;) {
    const next = stride > 0 ? Math.min(inside + stride, most) : Math.max(inside + stride, most);
    if (!(of(next) >= 0)) return [inside, next];
    if (next === most) return null;
    [inside, stride] = [next, stride * 2];
  }
}

/** How far λ can be computed on either side. */
function reachOf({ logs, centre, mirrored }: Bendable): { least: number; most: number } {
  let greatest = 1e-3;
  for (const v of logs) greatest = Math.max(greatest, Math.abs(v), Math.abs(v + centre));
  const most = GREATEST_EXPONENT / greatest;
  return { least: mirrored ? 2 - most : -most, most };
}

/** The greatest place of the profile, sought from a place nearby; the last place that can be computed, where it still rises there. */
export function likeliestLambda({ slope, step, least, most }: Profile, near: number, tolerance = 1e-9): number {
  const start = Math.min(most, Math.max(least, near));
  const rises = slope(start) > 0;
  const stride = (rises ? 1 : -1) * Math.max(step / 4, 1e-6);
  const found = whereBelow((x) => (rises ? slope(x) : -slope(x)), start, stride, rises ? most : least);
  return found ? bracketedRoot(slope, found[0], found[1], tolerance) : rises ? most : least;
}

const chiSquareOne = (confidence: number) => 2 * gammaLowerQuantile(0.5, confidence);

/** The plainest of the convenient powers that the profile does not rule out at this confidence, of equally plain ones the likeliest; null where none is left. */
export function convenientLambda({ at }: Profile, likeliest: number, confidence: number): number | null {
  const least = at(likeliest) - chiSquareOne(confidence) / 2;
  for (const powers of CONVENIENT) {
    const places = powers.map((lambda) => ({ lambda, here: at(lambda) })).filter(({ here }) => here >= least);
    if (places.length > 0) return places.reduce((a, b) => (b.here > a.here ? b : a)).lambda;
  }
  return null;
}

/** λ by maximum likelihood with its profile interval (Box & Cox 1964, section 3). */
export function foundLambda(name: PowerTransformation, values: Float64Array, confidence: number): FoundLambda {
  const profile = profileOf(bendable(name, values));
  const { least, most } = profile;
  const likeliest = likeliestLambda(profile, 0.5);
  const within = profile.at(likeliest) - chiSquareOne(confidence) / 2;
  const above = (x: number) => {
    const over = profile.at(x) - within;
    return Number.isFinite(over) ? over : -Number.MAX_VALUE;
  };
  const end = (step: number, bound: number) => {
    if (likeliest === bound) return null;
    const found = whereBelow(above, likeliest, step, bound);
    return found && bracketedRoot(above, found[0], found[1], 1e-9);
  };
  const interval: FoundLambda['interval'] = [end(-profile.step / 4, least), end(profile.step / 4, most)];
  return { likeliest, interval, confidence, convenient: convenientLambda(profile, likeliest, confidence) };
}
