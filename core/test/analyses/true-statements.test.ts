import { describe, expect, it } from 'vitest';
import type { ClaimResult } from '../../src/analyses/claims/claim-result.js';
import { claimFinding, claimNotes } from '../../src/analyses/claims/claim-words.js';
import { meanAndSdClaimAnalysis } from '../../src/analyses/claims/mean-and-sd-claim.js';
import { permutationNotes } from '../../src/analyses/resample/permutation-words.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { differenceByTest } from '../../src/claims/difference-of-shares.js';
import { detectableSkewness } from '../../src/claims/power-of-skewness.js';
import { skewnessTest } from '../../src/goodness-of-fit/normality/skewness.js';
import { centralMoments } from '../../src/numeric/sums.js';
import { detectableDrift } from '../../src/claims/power-of-drift.js';
import { fisherP } from '../../src/claims/shares.js';
import { driftOf } from '../../src/describe/drift.js';
import { binomial } from '../../src/distributions/families/binomial.js';
import { ordered } from '../../src/numeric/ordered.js';
import { rounderOf } from '../../src/numeric/round-to.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { intervalsOf } from '../../src/resampling/intervals.js';
import { lawOf, type Population } from '../../src/simulation/population.js';
import { drive } from '../../src/road/runner.js';
import type { Sample } from '../../src/readings/sample.js';
import { beyondNote, withBeyond } from '../../src/analyses/shape/with-beyond.js';
import { rankedFamilies } from '../../src/analyses/fit/ranked-families.js';
import { analysisById } from '../../src/analyses/registry.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { formatApart } from '../../src/numeric/format.js';
import { NO_READINGS } from '../../src/readings/sample.js';
import { sampleOf } from '../samples.js';

/** Statements built on numbers, each held against what is true: an audit found every one of these false. */
const textOf = (pieces: readonly { text: string }[]) => pieces.map(({ text }) => text).join('');

describe('the interval of a difference of two proportions', () => {
  const [n, m] = [6, 9];
  const tables = Array.from({ length: (n + 1) * (m + 1) }, (_, k) => ({ x: k % (n + 1), y: Math.floor(k / (n + 1)) }));
  const found = tables.map(({ x, y }) => ({
    x,
    y,
    ends: differenceByTest({ count: x, n }, { count: y, n: m }, 0.95, 'two-sided').interval,
  }));

  it('holds 0 just where Fisher’s exact test does not reject, in all 70 tables', () => {
    for (const { x, y, ends } of found) {
      const rejects =
        fisherP(
          [
            [x, n - x],
            [y, m - y],
          ],
          'two-sided',
        ) < 0.05;
      expect(ends[0] > 0 || ends[1] < 0, `${x} of ${n}, ${y} of ${m}`).toBe(rejects);
    }
  });

  it('covers the true difference at least 95 % of the time, whatever the proportions', () => {
    for (const p of [0.05, 0.2, 0.5, 0.7, 0.9])
      for (const q of [0.1, 0.35, 0.5, 0.85]) {
        const [first, second] = [
          binomial.of({ trials: n, probability: p }),
          binomial.of({ trials: m, probability: q }),
        ];
        const covered = found.reduce(
          (sum, { x, y, ends: [low, high] }) =>
            low <= p - q + 1e-9 && p - q - 1e-9 <= high ? sum + first.density(x) * second.density(y) : sum,
          0,
        );
        expect(covered, `${p} and ${q}`).toBeGreaterThan(0.949);
      }
  });
});

describe('a drift that could have been detected', () => {
  it('is detected 80 % of the time', () => {
    for (const n of [10, 20, 60]) {
      const rise = detectableDrift(n, 0.05)!;
      let found = 0;
      const samples = 1_500;
      const values = new Float64Array(n);
      for (let seed = 1; seed <= samples; seed++) {
        fillNormals(createStream(seed, n), values);
        for (let i = 0; i < n; i++) values[i]! += (rise * i) / (n - 1);
        if (driftOf(ordered(values))!.pValue < 0.05) found++;
      }
      expect(Math.abs(found / samples - 0.8), `n = ${n}`).toBeLessThan(0.04);
    }
    expect(detectableDrift(9, 0.05)).toBeNull();
  });
});

describe('a skewness that could have been detected', () => {
  it('is detected 80 % of the time, at a level of its own and at that of five tests', () => {
    for (const [n, alpha] of [
      [15, 0.05],
      [30, 0.01],
      [48, 0.05],
      [200, 0.01],
    ] as const) {
      const skewness = detectableSkewness(n, alpha)!;
      const law = distribution(familyByName('gamma'), { shape: 4 / skewness ** 2, scale: 1, threshold: 0 });
      let found = 0;
      const samples = 1_500;
      const values = new Float64Array(n);
      for (let seed = 1; seed <= samples; seed++) {
        law.sample(createStream(seed, n), values);
        const { n: size, s2, s3 } = centralMoments(values);
        if (skewnessTest(s3 / size / (s2 / size) ** 1.5, n)!.pValue < alpha) found++;
      }
      expect(Math.abs(found / samples - 0.8), `n = ${n}, level ${alpha}`).toBeLessThan(0.04);
    }
    expect([detectableSkewness(7, 0.05), detectableSkewness(10, 0.01)]).toEqual([null, null]);
  });
});

describe('mean and sd together', () => {
  it('set each p beside its own statistic, and call the joint p a bound', async () => {
    const values = Float64Array.from({ length: 50 }, (_, i) => (i % 2 ? 1 : -1) * (1 + i / 100));
    const sample = sampleOf(values);
    const request = { column: sample.name, claimed: 0, claimedSd: 3 };
    const result = (await drive(inThisThread, { id: 'mean-and-sd-claim', request, sample })) as ClaimResult;
    const text = textOf(claimFinding(result));
    expect(text).toContain('The mean or the standard deviation of thickness differs from the certificate. Mean');
    expect(text).toContain('The mean or the standard deviation of thickness differs from the certificate. Mean');
    expect(text).not.toMatch(/t\(49\) = [−\d.]+, p < 0\.0001/);
    expect(claimNotes(result).map(({ code }) => code)).not.toContain('interval-and-test');
    expect(meanAndSdClaimAnalysis.version).toBe(2);
  });
});

describe('a population of whole numbers that is rounded readings', () => {
  const population: Population = {
    ...{ base: { family: 'poisson', parameters: { mean: 3 } }, mixed: null, move: null, step: 2 },
  } as unknown as Population;

  it('has halves rounded up in its distribution as in its draws: Poisson(3) in steps of 2', () => {
    // Σ k·P(round half up(X/2) = k/2): 0 → 0, 1 and 2 → 2, 3 and 4 → 4, …
    let [mean, chance] = [0, Math.exp(-3)];
    for (let x = 0; x < 80; x++) {
      mean += chance * 2 * Math.floor(x / 2 + 0.5);
      chance *= 3 / (x + 1);
    }
    expect(mean).toBeCloseTo(3.4988, 4);
    const law = lawOf(population);
    expect(law.mean).toBeCloseTo(mean, 10);
    expect(law.cumulative(0)).toBeCloseTo(Math.exp(-3), 12);
    expect(law.survival(0)).toBeCloseTo(1 - Math.exp(-3), 12);
    expect(law.cumulative(2)).toBeCloseTo(Math.exp(-3) * (1 + 3 + 4.5), 12);
  });

  it('rounds halves up below 0 too', () => {
    const up = rounderOf(2, 'up');
    expect([3, 1, -1, -3, -2.9, 4.1].map(up)).toEqual([4, 2, 0, -2, -2, 4]);
    expect([3, -3].map(rounderOf(2))).toEqual([4, -4]);
  });
});

describe('the studentised bootstrap', () => {
  const made = (studentised: number[], statistics: number[]) =>
    intervalsOf({
      ...{ observed: 1.5, statistics: Float64Array.from(statistics), studentised: Float64Array.from(studentised) },
      ...{ standardError: 0.5, acceleration: 0, confidence: 0.9, tie: 1e-12 },
    });

  it('counts replicates without spread as infinite: no interval if they exceed a tail', () => {
    // Two readings: half of the replicates have no spread.
    const statistics = Array.from({ length: 400 }, (_, i) => [1, 1.5, 1.5, 2][i % 4]!);
    const studentised = statistics.map((x) => (x === 1.5 ? 0 : NaN));
    expect(made(studentised, statistics).studentised).toBeNull();
  });

  it('keeps an interval where they are few, and counts one that equals what was observed as 0', () => {
    const statistics = Array.from({ length: 1_000 }, (_, i) => 1.5 + Math.sin(i));
    const studentised = statistics.map((x, i) => (i % 100 === 0 ? NaN : (x - 1.5) / 0.5));
    expect(made(studentised, statistics).studentised).not.toBeNull();
    expect(made([NaN, NaN, NaN], [1.5, 1.5, 1.5]).studentised).toMatchObject({ lower: 1.5, upper: 1.5 });
  });
});

describe('the smallest p of a number of arrangements', () => {
  const result = {
    ...{
      arrangements: 12,
      alpha: 0.05,
      alternative: 'two-sided',
      design: 'signs',
      oneSided: false,
      groups: [{ n: 3 }],
    },
    ...{ exact: true, drawn: null, pSimulated: null, observed: 1, centre: 0, formula: null, ties: 0 },
  };
  const notesOf = (pValue: number) =>
    permutationNotes({ ...result, pValue } as never, { statistic: 'mean' } as never).filter(
      ({ code }) => code === 'few-arrangements',
    );

  it('is not stated with a p that is below it', () => {
    expect(notesOf(0.2)).toHaveLength(1);
    expect(notesOf(0.042)).toHaveLength(0);
  });
});

describe('readings censored', () => {
  const censoredSample = (known: number, beyond: number) => {
    const values = Float64Array.from({ length: known }, (_, i) => 1.2 + i * 0.37 + (i % 3));
    const rows = Int32Array.from({ length: beyond }, (_, i) => known + i + 1);
    return {
      ...sampleOf(values),
      censored: { rows, limits: new Float64Array(beyond).fill(1), sides: new Int8Array(beyond).fill(-1) },
    } as unknown as Sample;
  };

  it('have an interval beside their mean, a caution above 50 %, and none above 80 %', () => {
    const few = withBeyond(censoredSample(20, 5))!;
    const { mean, meanInterval } = few.fitted!;
    expect(meanInterval![0]).toBeLessThan(mean);
    expect(meanInterval![1]).toBeGreaterThan(mean);
    const note = (known: number, beyond: number) => {
      const sample = censoredSample(known, beyond);
      return beyondNote(sample, withBeyond(sample)!, false).text;
    };
    expect(note(20, 5)).toContain(
      '5 below 1.0000 of 25 readings; the figures are calculated from the others. With the',
    );
    expect(note(20, 5)).not.toContain('Caution');
    expect(note(8, 12)).toContain('with 60\u00a0% censored');
    expect(note(5, 35)).toContain(
      '35 below 1.0000 of 40 readings; the figures are calculated from the others. With 88\u00a0%',
    );
    expect(withBeyond(censoredSample(5, 35))!.fitted).toBeNull();
    expect(rankedFamilies(censoredSample(5, 35))).toContain(
      '88\u00a0% of the readings are censored, which is too many to compare distributions. Choose one',
    );
  });
});

describe('a transformation that leaves no digits', () => {
  it('names the reading that decides so strong a power, and not a small range', async () => {
    const values = Float64Array.from([...Array.from({ length: 19 }, (_, i) => 100 + Math.sin(i)), 1_000]);
    const sample = sampleOf(values);
    const request = { column: sample.name, by: 'box-cox', power: 'likeliest', replicates: 199 };
    const result = (await drive(inThisThread, { id: 'transform', request, sample })) as { reason?: string };
    expect(result.reason).toContain('Row 20 (1000) lies farthest from the others and decides so strong a power');
    expect(result.reason).not.toContain('differ by so little');
  });
});

describe('settings that contradict each other', () => {
  it('are never ignored: given shares are used, and shares beside an even spread are refused', async () => {
    const counts = { a: 10, b: 20, c: 30 };
    const shares = { a: 1 / 6, b: 2 / 6, c: 3 / 6 };
    const result = (await drive(inThisThread, {
      ...{ id: 'counts-claim', request: { counts, shares }, sample: NO_READINGS },
    })) as ClaimResult;
    expect(result.statistic).toBeCloseTo(0, 12);
    const { request } = analysisById('counts-claim');
    expect(request.safeParse({ counts, shares, spread: 'evenly' }).success).toBe(false);
  });
});

describe('figures at the ends of what numbers hold', () => {
  it('keep their digits: a mean near shape 0, a quantile at a log mean of 300, t about 10⁹', async () => {
    const euler = 0.5772156649015329;
    const mean = (shape: number) =>
      distribution(familyByName('generalized-extreme-value'), { location: 0, scale: 1, shape }).mean;
    expect(mean(1e-9)).toBeCloseTo(euler + 1e-9 * (1.6449340668482264 / 2 + euler ** 2 / 2), 15);
    expect(mean(9.999e-4)).toBeCloseTo(mean(1.0001e-3) - 2e-7 * 0.989, 8);
    const law = distribution(familyByName('lognormal'), { logMean: 300, logSd: 1 });
    expect(law.quantile(0.975) / law.quantile(0.5)).toBeCloseTo(Math.exp(1.959963984540054), 12);
    const values = Float64Array.from({ length: 8 }, (_, i) => 1e9 + 0.1 * i);
    const claims = { column: 'x', claimed: 1e9 };
    const sample = { ...sampleOf(values), name: 'x' };
    const result = (await drive(inThisThread, { id: 'mean-claim', request: claims, sample })) as ClaimResult;
    const plain = Array.from(values, (x) => x - 1e9);
    const m = plain.reduce((a, b) => a + b) / 8;
    const s = Math.sqrt(plain.reduce((a, x) => a + (x - m) ** 2, 0) / 7);
    expect(result.statistic! / (m / (s / Math.sqrt(8)))).toBeCloseTo(1, 12);
    const [low, high] = formatApart(1e9 + 0.08, 1e9 + 0.31, () => '1.0000 × 10⁹')!;
    expect(low).not.toBe(high);
  });
});
