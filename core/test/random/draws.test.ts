import { describe, expect, it } from 'vitest';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { nextExponential } from '../../src/random/exponential.js';
import { fillGammas } from '../../src/random/gamma.js';
import { fillNormals, nextNormal } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { nextBelow } from '../../src/random/whole.js';

const N = 200_000;

/** Pearson's chi-square of counts against equal shares; 5 sds above its mean is never reached by chance in these tests. */
function expectEven(counts: readonly number[]): void {
  const total = counts.reduce((a, b) => a + b, 0);
  const each = total / counts.length;
  const statistic = counts.reduce((sum, count) => sum + (count - each) ** 2 / each, 0);
  const df = counts.length - 1;
  expect(statistic).toBeLessThan(df + 5 * Math.sqrt(2 * df) + 5);
}

describe('single draws', () => {
  it('of a normal are those that fill an array, bit for bit', () => {
    const filled = new Float64Array(50_000);
    fillNormals(createStream(3, 1), filled);
    const stream = createStream(3, 1);
    expect(filled.filter((value) => !Object.is(nextNormal(stream), value))).toHaveLength(0);
  });

  it('of an exponential fall evenly into the hundred parts of its distribution, far tail included', () => {
    const stream = createStream(8, 0);
    const counts = new Array<number>(100).fill(0);
    let beyond = 0;
    for (let i = 0; i < N; i++) {
      const x = nextExponential(stream);
      counts[Math.min(99, Math.floor(-Math.expm1(-x) * 100))]!++;
      // Beyond the last layer of the ziggurat, one draw in 2 200.
      if (x > 7.69711747013105) beyond++;
    }
    expectEven(counts);
    const expected = N * Math.exp(-7.69711747013105);
    expect(Math.abs(beyond - expected)).toBeLessThan(5 * Math.sqrt(expected));
  });

  it('of whole numbers are exactly even, also where the count does not divide 2^32, and beyond it', () => {
    const stream = createStream(21, 0);
    for (const count of [6, 7, 100]) {
      const counts = new Array<number>(count).fill(0);
      for (let i = 0; i < N; i++) counts[nextBelow(stream, count)]!++;
      expectEven(counts);
    }
    // Three quarters of 2^32: without the rejection the lower half of the results would come twice as often as the rest.
    const wide = 3221225472;
    let low = 0;
    for (let i = 0; i < N; i++) if (nextBelow(stream, wide) < wide / 2) low++;
    expect(Math.abs(low - N / 2)).toBeLessThan(5 * Math.sqrt(N / 4));
    const huge = 2 ** 40;
    for (let i = 0; i < 1000; i++) {
      const draw = nextBelow(stream, huge);
      expect(Number.isInteger(draw) && draw >= 0 && draw < huge).toBe(true);
    }
    expect(nextBelow(stream, 1)).toBe(0);
  });
});

describe('gamma draws', () => {
  it.each([0.05, 0.5, 0.99, 1, 1.5, 4.2, 60, 1e5])(
    'of shape %d fall evenly into the parts of the distribution',
    (shape) => {
      const draws = new Float64Array(60_000);
      fillGammas(createStream(5, 9), shape, draws);
      const d = distribution(familyByName('gamma'), { shape, scale: 1 });
      const edges = Array.from({ length: 39 }, (_, i) => d.quantile((i + 1) / 40));
      const counts = new Array<number>(40).fill(0);
      for (const x of draws) counts[edges.filter((edge) => edge < x).length]!++;
      expectEven(counts);
    },
  );

  it('add up: two gammas of shapes a and b make one of shape a + b', () => {
    const [a, b] = [new Float64Array(60_000), new Float64Array(60_000)];
    fillGammas(createStream(1, 0), 0.7, a);
    fillGammas(createStream(1, 1), 2.1, b);
    const d = distribution(familyByName('gamma'), { shape: 2.8, scale: 1 });
    const counts = new Array<number>(20).fill(0);
    for (let i = 0; i < a.length; i++) counts[Math.min(19, Math.floor(d.cumulative(a[i]! + b[i]!) * 20))]!++;
    expectEven(counts);
  });

  it('are the same in arrays of any length, and continue the stream', () => {
    const whole = new Float64Array(1000);
    fillGammas(createStream(2, 2), 3, whole);
    const again = new Float64Array(1000);
    fillGammas(createStream(2, 2), 3, again);
    expect(again).toEqual(whole);
    const stream = createStream(2, 2);
    fillGammas(stream, 3, again);
    fillGammas(stream, 3, again);
    expect(again).not.toEqual(whole);
  });
});

describe('made-up values of every kind', () => {
  it('two families that are one and the same draw alike: Weibull of shape 2 and Rayleigh', () => {
    const size = 40_000;
    const weibull = new Float64Array(size);
    const rayleigh = new Float64Array(size);
    distribution(familyByName('weibull'), { shape: 2, scale: Math.SQRT2 }).sample(createStream(9, 0), weibull);
    distribution(familyByName('rayleigh'), { scale: 1 }).sample(createStream(9, 0), rayleigh);
    // Both by inversion of the same uniform draws.
    for (let i = 0; i < size; i++)
      expect(Math.abs(weibull[i]! - rayleigh[i]!)).toBeLessThan(1e-12 * rayleigh[i]! + 1e-15);
  });

  it('a binomial of probability above a half counts the failures of its mirror image', () => {
    const size = 5000;
    const many = new Float64Array(size);
    const few = new Float64Array(size);
    distribution(familyByName('binomial'), { trials: 80, probability: 0.75 }).sample(createStream(4, 0), many);
    distribution(familyByName('binomial'), { trials: 80, probability: 0.25 }).sample(createStream(4, 0), few);
    expect(many.map((k) => 80 - k)).toEqual(few);
  });
});
