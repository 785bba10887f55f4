import { exp, log } from '../numeric/elementary.js';
import { normalCumulative, normalQuantile, normalSurvival } from '../numeric/standard-normal.js';

/** A normal before it is rounded to whole steps: its mean and its sd, in steps. */
export interface RoundedNormal {
  mean: number;
  sd: number;
}

/** How often each whole number of steps occurs, from `least` on, empty ones included. */
export interface StepCounts {
  n: number;
  least: number;
  counts: Int32Array;
}

const ROOT_TWO_PI = Math.sqrt(2 * Math.PI);
/** Beyond so many sd the chance of one step is no longer a double's to tell. */
const FAR = 30;
/** The sd, in steps, that stands for all small ones where only two neighbouring values occur: nothing tells these apart. */
const SMALL = 0.05;

/** Counts values that are whole numbers. */
export function countSteps(steps: Float64Array): StepCounts {
  let least = Infinity;
  let greatest = -Infinity;
  for (let i = 0; i < steps.length; i++) {
    if (steps[i]! < least) least = steps[i]!;
    if (steps[i]! > greatest) greatest = steps[i]!;
  }
  const counts = new Int32Array(greatest - least + 1);
  for (let i = 0; i < steps.length; i++) counts[steps[i]! - least] = counts[steps[i]! - least]! + 1;
  return { n: steps.length, least, counts };
}

/** Mean and sd (divisor n) of counted steps. */
function momentsOf({ n, least, counts }: StepCounts): RoundedNormal {
  let sum = 0;
  for (let j = 0; j < counts.length; j++) sum += counts[j]! * j;
  const mean = sum / n;
  let squares = 0;
  for (let j = 0; j < counts.length; j++) squares += counts[j]! * (j - mean) ** 2;
  return { mean: least + mean, sd: Math.sqrt(squares / n) };
}

/** Log-likelihood, gradient and Hessian at one place. */
const at = { value: 0, ga: 0, gb: 0, haa: 0, hab: 0, hbb: 0 };

/** P(low < Z < high), from the nearer tail; `lower` and `upper` are the tails at both. */
function between(low: number, lowerLow: number, upperLow: number, lowerHigh: number, upperHigh: number): number {
  return low > 0 ? upperLow - upperHigh : lowerHigh - lowerLow;
}

/** Fills `at` for a = 1/sd and b = mean/sd, in which the likelihood of grouped normals is concave (Burridge 1981). */
function lookAt({ least, counts }: StepCounts, a: number, b: number): void {
  at.value = at.ga = at.gb = at.haa = at.hab = at.hbb = 0;
  let low = least - 0.5;
  let zl = a * low - b;
  let [lowerL, upperL] = [normalCumulative(zl), normalSurvival(zl)];
  let fl = exp(-0.5 * zl * zl) / ROOT_TWO_PI;
  for (let j = 0; j < counts.length; j++) {
    const high = low + 1;
    const zh = zl + a;
    const [lowerH, upperH] = [normalCumulative(zh), normalSurvival(zh)];
    const fh = exp(-0.5 * zh * zh) / ROOT_TWO_PI;
    const n = counts[j]!;
    if (n > 0) {
      const p = between(zl, lowerL, upperL, lowerH, upperH);
      const da = (high * fh - low * fl) / p;
      const db = (fl - fh) / p;
      at.value += n * log(p);
      at.ga += n * da;
      at.gb += n * db;
      at.haa += n * ((low * low * zl * fl - high * high * zh * fh) / p - da * da);
      at.hab += n * ((high * zh * fh - low * zl * fl) / p - da * db);
      at.hbb += n * ((zl * fl - zh * fh) / p - db * db);
    }
    [low, zl, lowerL, upperL, fl] = [high, zh, lowerH, upperH, fh];
  }
}

/** Newton's steps from a start, halved while they do not climb. */
function climb(cells: StepCounts, start: RoundedNormal): RoundedNormal {
  let a = 1 / start.sd;
  let b = start.mean / start.sd;
  lookAt(cells, a, b);
  for (let round = 0; round < 60; round++) {
    const { value, ga, gb, haa, hab, hbb } = at;
    const det = haa * hbb - hab * hab;
    if (!(det > 0)) break;
    let da = (hab * gb - hbb * ga) / det;
    let db = (hab * ga - haa * gb) / det;
    for (let halving = 0; halving < 40; halving++, da /= 2, db /= 2) {
      if (a + da <= 0) continue;
      lookAt(cells, a + da, b + db);
      if (at.value >= value - 1e-12 * Math.abs(value)) break;
    }
    if (!(a + da > 0 && Number.isFinite(at.value))) break;
    a += da;
    b += db;
    if (Math.abs(da) < 1e-9 * a && Math.abs(db) < 1e-9) break;
  }
  return { mean: b / a, sd: 1 / a };
}

/**
 * The normal that maximizes the likelihood of these rounded counts; null if all readings are equal. Two neighbouring values determine only how the
 * boundary between them divides the normal: a small SD is used for all such fits. Beyond 30 SD Sheppard's (1898) correction is used.
 */
export function fitRoundedNormal(cells: StepCounts): RoundedNormal | null {
  const { n, least, counts } = cells;
  if (counts.length === 1) return null;
  // About the middle, so that the mean costs no digits however far from 0 the readings lie.
  const shift = least + (counts.length >> 1);
  const about = { n, least: least - shift, counts };
  if (counts.length === 2) return { mean: least + 0.5 - normalQuantile(counts[0]! / n) * SMALL, sd: SMALL };
  const raw = momentsOf(about);
  const start = { mean: raw.mean, sd: Math.max(Math.sqrt(Math.max(0, raw.sd * raw.sd - 1 / 12)), 0.3) };
  const reach = Math.max(raw.mean - about.least, about.least + counts.length - 1 - raw.mean) / start.sd;
  const { mean, sd } = reach > FAR ? start : climb(about, start);
  return { mean: mean + shift, sd };
}

/** Readings as whole steps from the first of them: what the instrument counted, whatever the offset. */
export function stepsOf(values: Float64Array, resolution: number): Float64Array {
  const first = values[0]!;
  return values.map((x) => Math.round((x - first) / resolution));
}

/** The normal that replicates are drawn from: the fitted one, its sd times √(n/(n − 1)) as an sd of readings has it. */
export function populationOf(cells: StepCounts): RoundedNormal | null {
  const fitted = fitRoundedNormal(cells);
  return fitted && { mean: fitted.mean, sd: fitted.sd * Math.sqrt(cells.n / (cells.n - 1)) };
}
