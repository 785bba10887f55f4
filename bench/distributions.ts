/** Special functions, fits and draws in units of one `Math.log` call of the same run, and normal draws beside a plain ziggurat. */
import { createStream, fillNormals, nextOpenUnit } from '@verdict/core/random';
import { distribution, familyByName, fit } from '@verdict/core/distributions';
import { betaLower } from '../core/src/numeric/beta-tails.js';
import { gammaLowerQuantile } from '../core/src/numeric/gamma-quantile.js';
import { gammaLower } from '../core/src/numeric/gamma-tails.js';
import { logGamma } from '../core/src/numeric/log-gamma.js';
import { normalCumulative, normalQuantile } from '../core/src/numeric/standard-normal.js';
import { nextWord } from '../core/src/random/stream.js';
import { median, report } from './report.js';

const ROUNDS = 15;
const N = 5_000;
/** Loops a round, and before the first one: a function that is entered a few times only is measured half interpreted. */
const LOOPS_A_ROUND = 10;
const WARM_UP = 40;

/** Nanoseconds a call, of a loop that makes so many of them. */
function perCall(loop: () => number, calls = N): number {
  let kept = 0;
  for (let i = 0; i < WARM_UP; i++) kept += loop();
  const times = Array.from({ length: ROUNDS }, () => {
    const started = performance.now();
    for (let i = 0; i < LOOPS_A_ROUND; i++) kept += loop();
    return ((performance.now() - started) * 1e6) / calls / LOOPS_A_ROUND;
  });
  if (Number.isNaN(kept)) throw new Error('A value measured is not a number.');
  return median(times);
}

const chances = Float64Array.from({ length: N }, (_, i) => (i + 0.5) / N);
const scores = chances.map(normalQuantile);
/** Every loop stands by itself: the engine compiles it for the one function it calls. */
const LOOPS = {
  log: (x: Float64Array) => {
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += Math.log(x[i]!);
    return sum;
  },
  normalCumulative: (x: Float64Array) => {
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += normalCumulative(x[i]!);
    return sum;
  },
  normalQuantile: (x: Float64Array) => {
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += normalQuantile(x[i]!);
    return sum;
  },
  logGamma: (x: Float64Array) => {
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += logGamma(x[i]!);
    return sum;
  },
  gamma: (x: Float64Array, a: number) => {
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += gammaLower(a, x[i]!);
    return sum;
  },
  gammaQuantile: (x: Float64Array, a: number) => {
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += gammaLowerQuantile(a, x[i]!);
    return sum;
  },
  beta: (x: Float64Array, a: number, b: number) => {
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += betaLower(a, b, x[i]!, 1 - x[i]!);
    return sum;
  },
};

function special(unit: number): void {
  const say = (what: string, loop: () => number, most: number) =>
    report(`${what} ÷ Math.log`, perCall(loop), unit, most, 'ns');
  const wide = chances.map((p) => 0.01 + p * 50);
  say('normal cumulative', () => LOOPS.normalCumulative(scores), 10);
  say('normal quantile', () => LOOPS.normalQuantile(chances), 6);
  say('log-gamma', () => LOOPS.logGamma(wide), 7);
  for (const a of [0.5, 2.5, 30, 1e4, 1e5, 1e6]) {
    const x = scores.map((z) => Math.max(0.02 * a, a + z * Math.sqrt(a)));
    say(`gamma cumulative, shape ${a}`, () => LOOPS.gamma(x, a), 35);
    say(`gamma quantile, shape ${a}`, () => LOOPS.gammaQuantile(chances, a), 120);
  }
  for (const [a, b, most] of [
    [0.5, 3, 45],
    [2, 5, 45],
    [20, 30, 45],
    [300, 100, 45],
    [1e4, 1e4, 90],
    [1e3, 1e5, 90],
    [1e5, 1e5, 90],
  ] as const) {
    const mean = a / (a + b);
    const sd = Math.sqrt((mean * (1 - mean)) / (a + b + 1));
    const x = scores.map((z) => Math.min(0.99, Math.max(0.01 * mean, mean + z * sd)));
    say(`beta cumulative, shapes ${a} and ${b}`, () => LOOPS.beta(x, a, b), most);
  }
}

const FITS = 200;

function fits(unit: number): void {
  const family = familyByName('gamma');
  const readings = new Float64Array(50);
  distribution(family, { shape: 4, scale: 2 }).sample(createStream(1, 0), readings);
  const loop = () => {
    let sum = 0;
    for (let i = 0; i < FITS; i++) {
      const found = fit(family, readings, { method: 'maximum-likelihood' });
      sum += 'logLikelihood' in found ? found.logLikelihood : NaN;
    }
    return sum;
  };
  report('gamma fit of n = 50 ÷ Math.log', perCall(loop, FITS), unit, 1_500, 'ns');
  thresholdFits(unit);
}

/** A threshold found on its profile: 15 ms for 50 readings and 300 ms for 2 000, in logarithms of 35 ns. */
function thresholdFits(unit: number): void {
  const cases = {
    lognormal: { logMean: 1, logSd: 0.5, threshold: 5 },
    weibull: { shape: 2, scale: 3, threshold: 5 },
    'log-logistic': { logLocation: 1, logScale: 0.25, threshold: 5 },
  };
  for (const [name, parameters] of Object.entries(cases)) {
    const family = familyByName(name);
    for (const [n, rounds, most] of [
      [50, 20, 430_000],
      [2_000, 3, 8_500_000],
    ] as const) {
      const readings = new Float64Array(n);
      distribution(family, parameters).sample(createStream(4, 0), readings);
      const loop = () => {
        let sum = 0;
        for (let i = 0; i < rounds; i++) {
          const found = fit(family, readings, { method: 'maximum-likelihood', estimateThreshold: true });
          sum += 'logLikelihood' in found ? found.logLikelihood : NaN;
        }
        return sum;
      };
      report(`${name} fit with threshold, n = ${n} ÷ Math.log`, perCall(loop, rounds), unit, most, 'ns');
    }
  }
}

/** The ziggurat of Marsaglia & Tsang (2000) as a textbook has it, with the same generator called once for each word: the peer. */
function plainZiggurat(stream: Int32Array): (out: Float64Array) => void {
  const layers = 256;
  const edge = 3.6541528853610088;
  const area = 0.00492867323399;
  const density = (x: number) => Math.exp(-0.5 * x * x);
  const x = new Float64Array(layers + 1);
  x[0] = area / density(edge);
  x[1] = edge;
  for (let i = 2; i < layers; i++) x[i] = Math.sqrt(-2 * Math.log(area / x[i - 1]! + density(x[i - 1]!)));
  return (out) => {
    for (let i = 0; i < out.length;) {
      const layer = nextWord(stream) & 255;
      const u = 2 * nextOpenUnit(stream) - 1;
      const z = u * x[layer]!;
      if (Math.abs(z) < x[layer + 1]!) out[i++] = z;
      else if (layer === 0) {
        let a: number;
        let b: number;
        do {
          a = -Math.log(nextOpenUnit(stream)) / edge;
          b = -Math.log(nextOpenUnit(stream));
        } while (b + b < a * a);
        out[i++] = u < 0 ? -(edge + a) : edge + a;
      } else {
        const high = density(x[layer]!);
        if (high + nextOpenUnit(stream) * (density(x[layer + 1]!) - high) < density(z)) out[i++] = z;
      }
    }
  };
}

function draws(): void {
  const out = new Float64Array(1e7);
  const stream = createStream(7, 0);
  const plain = plainZiggurat(createStream(7, 1));
  const time = (fill: () => void) => {
    const started = performance.now();
    fill();
    return performance.now() - started;
  };
  const round = () => ({ own: time(() => fillNormals(stream, out)), peer: time(() => plain(out)) });
  const rounds = Array.from({ length: 7 }, round).slice(1);
  report('1e7 normals ÷ plain ziggurat', median(rounds.map((r) => r.own)), median(rounds.map((r) => r.peer)), 1.5);
  const part = out.subarray(0, 1e6);
  for (const shape of [0.5, 2, 30]) {
    const gamma = distribution(familyByName('gamma'), { shape, scale: 1 });
    // In turn, so that a slow moment of the machine falls on both.
    const pairs = Array.from({ length: 11 }, () => ({
      own: time(() => gamma.sample(stream, part)),
      peer: time(() => fillNormals(stream, part)),
    })).slice(2);
    const [gammas, normals] = [median(pairs.map((pair) => pair.own)), median(pairs.map((pair) => pair.peer))];
    report(`1e6 gammas of shape ${shape} ÷ 1e6 normals`, gammas, normals, 4);
  }
}

export function benchDistributions(): void {
  const arguments_ = chances.map((p) => p * 20);
  const unit = () => perCall(() => LOOPS.log(arguments_));
  const first = unit();
  special(first);
  // Measured again, and the quicker taken: what follows is not to be flattered by a slow moment.
  fits(Math.min(first, unit()));
  draws();
}
