import { gammaLowerQuantile } from '../numeric/gamma-quantile.js';
import { bracketedRoot } from '../numeric/bracketed-root.js';
import { log, log1p } from '../numeric/elementary.js';
import { bend, curveOfBend, slopeOfBend } from './bends.js';
import { LARGEST_POWER, type PowerTransformation } from './transformation.js';

/**
 * Powers that are easy to state, the plainest first: no transformation, and the logarithm. A sample of usual size seldom distinguishes neighbouring
 * powers, and a lognormal would often be called “one over the square root”.
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

/** The logarithms less their mean, which changes the bent readings by a factor and a shift, and keeps their digits. Where some are mirrored nothing can be taken off. */
function centred({ logs, centre, mirrored }: Bendable): Bendable {
  let mean = 0;
  for (let i = 0; i < logs.length; i++) mean += logs[i]! / logs.length;
  // A reading of 0 has no logarithm to take a mean of.
  if (mirrored || !Number.isFinite(mean)) return { logs, centre, mirrored };
  return { logs: logs.map((v) => v - mean), centre: centre + mean, mirrored };
}

/** Box–Cox takes log x, Yeo–Johnson log(1 + |x|). */
export function bendable(name: PowerTransformation, values: Float64Array): Bendable {
  if (name === 'box-cox') return centred({ logs: values.map(log), centre: 0, mirrored: null });
  const logs = values.map((x) => log1p(Math.abs(x)));
  const mirrored = values.some((x) => x < 0) ? Array.from(values, (x) => x < 0) : null;
  return centred({ logs, centre: 0, mirrored });
}

/** Readings bent with λ, up to a factor and a shift. */
export function bentWith({ logs, mirrored }: Bendable, lambda: number, into: Float64Array): void {
  for (let i = 0; i < logs.length; i++) {
    into[i] = mirrored?.[i] ? -bend(logs[i]!, 2 - lambda) : bend(logs[i]!, lambda);
  }
}

/** The profile log-likelihood of λ (Box & Cox 1964, equation 8; Yeo & Johnson 2000, equation 3.1) and its derivative. */
export interface Profile {
  at(lambda: number): number;
  /** The slope, and what it changes by. */
  slopes(lambda: number): { slope: number; curve: number };
  /** What λ usually changes by: 1/sd of the logarithms. */
  step: number;
  /** The places between which it can be computed. */
  least: number;
  most: number;
}

/**
 * The profile of n readings: mean and variance are those of the transformed readings, divisor n. It is concave for Box–Cox (Kouider & Chen 1995), and
 * has one maximum whenever the readings have a spread.
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
  const slopes = (lambda: number) => {
    const { mean, sum: s } = spread(lambda);
    let [along, total, squares, curved] = [0, 0, 0, 0];
    for (let i = 0; i < n; i++) {
      const turned = mirrored?.[i] === true;
      const [v, power, b] = [logs[i]!, turned ? 2 - lambda : lambda, turned ? -bends[i]! : bends[i]!];
      const slope = slopeOfBend(v, power, b);
      const curve = curveOfBend(v, power, b, slope);
      const distance = bends[i]! - mean;
      along += distance * slope;
      total += slope;
      squares += slope * slope;
      curved += distance * (turned ? -curve : curve);
    }
    const ratio = along / s;
    const own = squares - (total * total) / n;
    return { slope: jacobian - n * ratio, curve: n * (2 * ratio * ratio - (own + curved) / s) };
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
    slopes,
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
  const most = Math.min(GREATEST_EXPONENT / greatest, LARGEST_POWER);
  return { least: mirrored ? 2 - most : -most, most };
}

const MOST_STEPS = 200;

/**
 * The maximum of the profile by Newton's steps from a nearby start, with bounded steps within the bracket; the last value of λ that can be computed,
 * if the profile still rises there.
 */
export function likeliestLambda({ slopes, step, least, most }: Profile, near: number, tolerance = 1e-10): number {
  let [low, high] = [least, most];
  let at = Math.min(most, Math.max(least, near));
  for (let round = 0; round < MOST_STEPS; round++) {
    const { slope, curve } = slopes(at);
    if (slope === 0) return at;
    const rises = slope > 0;
    if (rises ? at === most : at === least) return at;
    if (rises) low = at;
    else high = at;
    const longest = (rises ? 2 : -2) * step;
    const newton = curve < 0 ? -slope / curve : longest;
    const move = Math.abs(newton) < Math.abs(longest) ? newton : longest;
    if (Math.abs(move) <= tolerance) return at + move;
    const next = at + move;
    at = next > low && next < high ? next : reached(low, high, rises, { least, most });
  }
  return at;
}

/** Where a step that is too long ends: in the middle of a bracket, at the last place where there is none yet. */
function reached(low: number, high: number, rises: boolean, { least, most }: { least: number; most: number }): number {
  if (rises && high === most) return most;
  if (!rises && low === least) return least;
  return low + (high - low) / 2;
}

const chiSquareOne = (confidence: number) => 2 * gammaLowerQuantile(0.5, confidence);

/** A likelihood that is greater by less tells nothing: the plainer power is taken. */
const TOLD = 0.01;

/** The plainest of the convenient powers in the profile interval at this confidence, the likeliest of equally plain ones; null if there is none. */
export function convenientLambda({ at }: Profile, likeliest: number, confidence: number): number | null {
  const least = at(likeliest) - chiSquareOne(confidence) / 2;
  for (const powers of CONVENIENT) {
    const places = powers.map((lambda) => ({ lambda, here: at(lambda) })).filter(({ here }) => here >= least);
    if (places.length > 0) return places.reduce((a, b) => (b.here > a.here + TOLD ? b : a)).lambda;
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
