import { describe, expect, it } from 'vitest';
import { ANALYSES, analysisById, inThisThread } from '../../src/analyses/registry.js';
import { claimFigures, claimTable } from '../../src/analyses/claims/claim-figures.js';
import type { ClaimResult } from '../../src/analyses/claims/claim-result.js';
import { claimFinding, missedWords, pWords, readBack } from '../../src/analyses/claims/claim-words.js';
import type { ToleranceResult } from '../../src/analyses/claims/tolerance.js';
import { toleranceFigures } from '../../src/analyses/claims/tolerance.js';
import type { Alternative } from '../../src/claims/alternative.js';
import { clopperPearson } from '../../src/numeric/clopper-pearson.js';
import { NO_READINGS, type Sample } from '../../src/readings/sample.js';
import { toCensored } from '../../src/readings/censored.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { toWire } from '../../src/road/wire.js';
import { samplesBeside } from '../../src/table/split.js';
import { column, reference, relativeError } from '../reference.js';
import { sampleOf } from '../samples.js';

type P = Record<Alternative, number>;
const known = reference<Record<string, never>>('claims') as unknown as {
  twoGroups: {
    a: number[];
    b: number[];
    welch: { statistic: number; df: number; pValue: P; interval95: [number, number] };
    pooled: { pValue: number };
    f: { pValue: P };
    brownForsythe: { pValue: number };
    mannWhitney: { u: number };
  }[];
  paired: { a: number[]; b: number[]; statistic: number; pValue: number }[];
  share: { count: number; n: number; null: number; pValue: P; wilson95: [number, number] }[];
  rate: { count: number; exposure: number; null: number; pValue: P; interval95: [number, number] }[];
  several: {
    groups: number[][];
    oneWay: { statistic: number; pValue: number };
    kruskalWallis: { statistic: number; pAsymptotic: number };
    tukeyKramer: { pValue: number }[];
    brownForsythe: number;
  };
  tolerance: { n: number; share: number; confidence: number; oneSided: number; twoSided: number }[];
};
const ofColumn = reference<
  Record<
    string,
    {
      mean: { null: number; pValue: P; interval95: [number, number] };
      spread: { nullSd: number; pValue: P };
      median: { null: number; sign: { pValue: P }; signedRank: { pExact: P } };
    }
  >
>('claims');

const close = (found: number | null, expected: number, tolerance = 1e-9) =>
  expect(relativeError(found!, expected), `${found} for ${expected}`).toBeLessThan(tolerance);

async function result<R = ClaimResult>(id: string, request: object, sample: Sample): Promise<R> {
  const found = await drive(inThisThread, { id, request, sample });
  expect(isUnavailable(found), JSON.stringify(found).slice(0, 300)).toBe(false);
  toWire(found);
  return found as R;
}
async function reason(id: string, request: object, sample: Sample): Promise<string> {
  const found = await drive(inThisThread, { id, request, sample });
  expect(isUnavailable(found), JSON.stringify(found).slice(0, 200)).toBe(true);
  return (found as { reason: string }).reason;
}
const named = (name: string, values: ArrayLike<number>, more: Partial<Sample> = {}): Sample => ({
  ...sampleOf(Float64Array.from(values)),
  ...{ name, resolution: 0.01, ...more },
});
const beside = (...parts: Sample[]) => samplesBeside(parts);
const splitBy = (by: string, ...parts: Sample[]): Sample => ({
  ...samplesBeside(parts),
  name: 'thickness',
  groups: { by, samples: parts, without: 0 },
});
const X = { column: 'thickness' };
const TWO = { column: 'thickness', split: 'kiln' };
const plain = (text: string | null) => text?.replaceAll('\u00a0', ' ');
const told = (found: ClaimResult) =>
  claimFinding(found)
    .map(({ text }) => text)
    .join('');

describe('claims about one column', () => {
  it.each(['normal-40', 'right-skew-50', 'one-far-25', 'coarse-60'])(
    'have the p of the reference for %s, in each direction',
    async (name) => {
      const sample = named('thickness', column(name));
      const expected = ofColumn[name]!;
      for (const alternative of ['two-sided', 'less', 'greater'] as const) {
        const mean = await result('mean-claim', { ...X, claimed: expected.mean.null, alternative }, sample);
        close(mean.pValue, expected.mean.pValue[alternative]);
        const spread = await result('spread-claim', { ...X, claimed: expected.spread.nullSd, alternative }, sample);
        close(spread.pValue, expected.spread.pValue[alternative]);
        for (const [method, ps] of [
          ['sign', expected.median.sign.pValue],
          ['signed-rank', expected.median.signedRank.pExact],
        ] as const) {
          const median = await result(
            'median-claim',
            { ...X, claimed: expected.median.null, alternative, method },
            sample,
          );
          close(median.pValue, ps[alternative]);
        }
      }
      const { interval } = await result('mean-claim', { ...X, claimed: 0 }, sample);
      close(interval!.lower, expected.mean.interval95[0]);
      close(interval!.upper, expected.mean.interval95[1]);
    },
  );

  it('say the same of typed figures as of the readings they are of', async () => {
    const values = column('normal-40');
    const read = await result('mean-claim', { ...X, claimed: 100.5, noticeable: 1 }, named('thickness', values));
    const [group] = read.groups;
    const figures = { n: 40, mean: group!.centre, sd: group!.sd! };
    const typed = await result('mean-claim', { figures, claimed: 100.5, noticeable: 1 }, NO_READINGS);
    expect(typed.pValue! / read.pValue!).toBeCloseTo(1, 10);
    expect(typed.power).toEqual(read.power);
    expect(typed.typed).toBe(true);
    expect(await reason('mean-claim', { figures: { n: 1, mean: 3, sd: 0 }, claimed: 3 }, NO_READINGS)).toContain(
      'needs at least 2',
    );
    expect(() => analysisById('mean-claim').request.parse({ ...X, figures })).toThrow('not both');
  });

  it('are read back, worded, and never say that a claim is true', async () => {
    const sample = named('thickness', [8.02, 8.05, 7.98, 8.07, 8.01, 8.06, 8.04, 7.99, 8.03, 8.05]);
    const shown = await result(
      'mean-claim',
      { ...X, claimed: 8, alternative: 'greater', noticeable: 0.05, margin: 0.1 },
      sample,
    );
    expect(plain(readBack(shown))).toBe(
      'Claim: the mean of thickness is 8.00 mm. Alternative: the mean of thickness is above 8.00 mm.',
    );
    expect(plain(told(shown))).toContain(
      'The mean of thickness is above 8.00 mm. Mean 8.0300 mm, 95 % confidence interval at least',
    );
    expect(told(shown)).toContain(
      'The mean of thickness is above 8.00\u00a0mm. Mean 8.0300\u00a0mm, 95\u00a0% confidence interval at least',
    );
    expect(plain(missedWords(shown))).toMatch(
      /^With n = 10, a difference of 0\.05 mm is detected with .+ power\. For 80 % power, \d+ readings are needed\. The smallest difference detected with 80 % power is/u,
    );
    expect(pWords(shown)).toContain('in this direction');
    const not = await result('mean-claim', { ...X, claimed: 8.03 }, sample);
    expect(plain(told(not))).toContain('No evidence that the mean of thickness differs from 8.03 mm');
  });

  it('point out the wrong direction, a claim taken from the readings, an odd confidence, and one apart from the level', async () => {
    const sample = named('thickness', column('coarse-60'), { resolution: 0.5 });
    const codes = async (more: object) =>
      (await result('mean-claim', { ...X, ...more }, sample)).notes.map(({ code }) => code);
    expect(await codes({ claimed: 24.2, alternative: 'greater' })).toContain('other-way');
    expect(await codes({ claimed: 24.2, alternative: 'less' })).not.toContain('other-way');
    const mean = (await result('mean-claim', { ...X, claimed: 24 }, sample)).estimate!;
    expect(await codes({ claimed: Number(mean.toFixed(4)) })).toContain('claim-from-readings');
    expect(await codes({ claimed: 24.2 })).not.toContain('claim-from-readings');
    expect(await codes({ claimed: 24, confidence: 0.095 })).toEqual(
      expect.arrayContaining(['unusual-confidence', 'interval-and-level']),
    );
    expect(await codes({ claimed: 24 })).toEqual([]);
  });

  it('by z go by the known sd, also for a single reading', async () => {
    const one = await result(
      'mean-claim',
      { ...X, claimed: 8, method: 'z', knownSd: 0.1 },
      named('thickness', [8.196]),
    );
    close(one.statistic, 1.96, 1e-12);
    expect(one.pValue).toBeCloseTo(0.05, 4);
    expect(await reason('mean-claim', { ...X, claimed: 8, method: 'z' }, named('thickness', [8.2]))).toContain('known');
  });

  it('about an SD refuse 0, and give the ratio to the claim', async () => {
    const sample = named('thickness', column('normal-40'));
    expect(await reason('spread-claim', { ...X, claimed: 0 }, sample)).toContain('refute');
    const found = await result('spread-claim', { ...X, claimed: 2.2, noticeable: 0.5 }, sample);
    expect(found.measured).toContain(
      'Standard deviation 3.0006\u00a0mm, 1.36 times the claimed value; 95\u00a0% confidence interval',
    );
    expect(plain(missedWords(found))).toContain(
      'With n = 40, a standard deviation higher by 0.5 mm is detected with 49 % power. For 80 %',
    );
    const less = await result('spread-claim', { ...X, claimed: 2.2, alternative: 'less', noticeable: 5 }, sample);
    expect(less.power!.chance).toBe(1);
  });

  it('about mean and sd share the level between the two, and look at all of the normal that is claimed', async () => {
    const sample = named('thickness', column('normal-40'));
    const found = await result('mean-and-sd-claim', { ...X, claimed: 100.5, claimedSd: 2.2 }, sample);
    const { mean, spread } = ofColumn['normal-40']!;
    close(found.pValue, 2 * Math.min(mean.pValue['two-sided'], spread.pValue['two-sided']));
    expect(found.extras.map(({ key }) => key)).toEqual(['p-mean', 'p-sd', 'sd', 'sd-interval', 'a2', 'd']);
    expect(found.measured).toContain(
      'Mean 102.32\u00a0mm (1.82\u00a0mm above the claim; t(39) = 3.83, p = 0.00045); standard deviation 3.00\u00a0mm (1.36',
    );
    expect(pWords(found)).toBeNull();
    close(found.law!.p, mean.pValue['two-sided']);
  });

  it.each(known.share)('about a share of $count in $n have the p and the interval of the reference', async (one) => {
    const figures = { count: one.count, n: one.n };
    for (const alternative of ['two-sided', 'less', 'greater'] as const)
      close(
        (await result('share-claim', { figures, claimed: one.null, alternative }, NO_READINGS)).pValue,
        one.pValue[alternative],
      );
    const { interval } = await result('share-claim', { figures, claimed: one.null }, NO_READINGS);
    close(interval!.lower, one.wilson95[0]);
    close(interval!.upper, one.wilson95[1]);
    const exact = await result(
      'share-claim',
      { figures, claimed: one.null, method: 'clopper-pearson', alternative: 'greater' },
      NO_READINGS,
    );
    close(exact.interval!.lower, clopperPearson(one.count, one.n, 0.9)[0]);
    expect(exact.interval!.upper).toBeNull();
  });

  it('about a share count readings against limits, labels, and counts out of their trials', async () => {
    const sample = named('thickness', [7.8, 7.9, 8, 8.1, 8.2, 8.3]);
    const share = async (more: object) =>
      (await result('share-claim', { ...X, claimed: 0.5, ...more }, sample)).statistic;
    expect(await share({ lower: 7.9, upper: 8.2 })).toBe(2);
    expect(await share({ of: 'within', lower: 7.9, upper: 8.2 })).toBe(4);
    expect(await share({ of: 'below', lower: 7.9, upper: 8.2 })).toBe(1);
    expect(await share({ of: 'above', upper: 8.1 })).toBe(2);
    expect(await reason('share-claim', { ...X, claimed: 0.5 }, sample)).toContain(
      'Enter the limits, or enter specification limits for thickness in Readings.',
    );
    expect(await reason('share-claim', { ...X, claimed: 0.5, lower: 9, upper: 8 }, sample)).toContain(
      'The upper limit 8 is below the lower limit 9.',
    );
    const labels = named('fault', [0, 1, 1, 2, 1], { levels: ['chip', 'crack', 'stain'], resolution: null });
    expect((await result('share-claim', { column: 'fault', level: 'crack', claimed: 0.5 }, labels)).statistic).toBe(3);
    expect(await reason('share-claim', { column: 'fault', level: 'moss', claimed: 0.5 }, labels)).toContain(
      'chip, crack, stain',
    );
    const counts = named('scrapped', [2, 0, 1], { resolution: 1 });
    const withTrials = beside(counts, named('glazed', [250, 200, 50], { resolution: 1 }));
    const counted = await result(
      'share-claim',
      { column: 'scrapped', beside: ['glazed'], of: 'counts', claimed: 0.01 },
      withTrials,
    );
    expect([counted.statistic, counted.n]).toEqual([3, 500]);
    expect(
      await reason('share-claim', { column: 'scrapped', of: 'counts', trials: 1, claimed: 0.01 }, counts),
    ).toContain('more than 1 trials');
    expect(() => analysisById('share-claim').request.parse({ figures: { count: 9, n: 3 } })).toThrow('swapped');
    expect(() => analysisById('share-claim').request.parse({ figures: { count: 1, n: 3 }, claimed: 25 })).toThrow(
      '0.02 means 2 %',
    );
  });

  it('about a share of 0 or 1 are refuted by a single one', async () => {
    const p = async (count: number, claimed: number) =>
      (await result('share-claim', { figures: { count, n: 20 }, claimed }, NO_READINGS)).pValue;
    expect([await p(0, 0), await p(1, 0), await p(20, 1), await p(19, 1)]).toEqual([1, 0, 1, 0]);
  });

  it('count readings censored where that settles it, and say so where it does not', async () => {
    const censored = toCensored([{ row: 4, limit: 0.05, side: -1 }]);
    const sample = named('thickness', [0.1, 0.2, 0.3], { ...censored, beyondLimit: 1 });
    const found = await result('share-claim', { ...X, of: 'above', upper: 0.25, claimed: 0.5 }, sample);
    expect([found.statistic, found.n]).toEqual([1, 4]);
    expect(await reason('share-claim', { ...X, of: 'below', lower: 0.02, claimed: 0.5 }, sample)).toContain('row 4');
    expect(await reason('mean-claim', { ...X, claimed: 1 }, sample)).toContain(
      'A t test needs every reading as a number (4 readings, 1 below 0.05). The probability plot',
    );
  });

  it.each(known.rate)('about a rate of $count over $exposure have p and interval of the reference', async (one) => {
    const figures = { count: one.count, exposure: one.exposure };
    for (const alternative of ['two-sided', 'less', 'greater'] as const)
      close(
        (await result('rate-claim', { figures, claimed: one.null, alternative }, NO_READINGS)).pValue,
        one.pValue[alternative],
      );
    const { interval } = await result('rate-claim', { figures, claimed: one.null }, NO_READINGS);
    expect(Math.abs(interval!.lower! - one.interval95[0])).toBeLessThan(1e-9);
    close(interval!.upper, one.interval95[1]);
  });

  it('about a rate add up counts, with the exposure of each, and say where they come in clusters', async () => {
    const counts = named('pinholes', [0, 9, 0, 0, 8, 0, 0, 11, 0, 1], { resolution: 1 });
    const found = await result('rate-claim', { column: 'pinholes', claimed: 3 }, counts);
    expect([found.statistic, found.estimate]).toEqual([29, 2.9]);
    expect(found.assumptions[0]).toMatchObject({ holds: false });
    const over = beside(counts, named('area', [1, 2, 1, 1, 2, 1, 1, 2, 1, 1], { resolution: 1 }));
    expect(
      (await result('rate-claim', { column: 'pinholes', beside: ['area'], claimed: 3 }, over)).estimate,
    ).toBeCloseTo(29 / 13, 12);
    expect(await reason('rate-claim', { ...X, claimed: 3 }, named('thickness', [1.5, 2]))).toContain(
      'thickness is not a column of counts: row 1 is 1.5, but counts must be whole numbers.',
    );
  });
});

describe('tolerance limits', () => {
  it.each(known.tolerance)(
    'of $n readings have the factors of the reference',
    async ({ n, share, confidence, oneSided, twoSided }) => {
      const figures = { n, mean: 0, sd: 1 };
      const both = await result<ToleranceResult>('tolerance', { figures, share, confidence }, NO_READINGS);
      close(both.factor, twoSided, 1e-8);
      const upper = await result<ToleranceResult>(
        'tolerance',
        { figures, share, confidence, side: 'upper' },
        NO_READINGS,
      );
      close(upper.limits.upper, oneSided, 1e-8);
      expect(upper.limits.lower).toBeNull();
    },
  );

  it('by minimum and maximum give their coverage and the readings needed: 59 and 93 for 95 % with 95 % (Wilks 1941)', async () => {
    const sample = named('thickness', column('normal-40'));
    const ask = { ...X, method: 'extremes', share: 0.95 };
    expect((await result<ToleranceResult>('tolerance', { ...ask, side: 'lower' }, sample)).needed).toBe(59);
    const both = await result<ToleranceResult>('tolerance', ask, sample);
    expect(both.needed).toBe(93);
    expect(both.notes.map(({ code }) => code)).toContain('extremes-too-few');
    const asked = await result<ToleranceResult>('tolerance', { ...ask, lower: 0, upper: 1_000 }, sample);
    expect(
      analysisById('tolerance')
        .finding(asked)
        .map(({ text }) => text)
        .join(''),
    ).toContain('With 60.09\u00a0% confidence, at least 95\u00a0% of the population of thickness lies between');
  });

  it('are compared with the limits', async () => {
    const sample = named('thickness', column('normal-40'));
    const within = async (lower: number, upper: number) =>
      (await result<ToleranceResult>('tolerance', { ...X, lower, upper }, sample)).within;
    expect([await within(80, 130), await within(101, 130)]).toEqual([true, false]);
    expect(toleranceFigures(await result<ToleranceResult>('tolerance', X, sample)).length).toBeGreaterThan(4);
  });
});

describe('claims about two groups', () => {
  it.each(known.twoGroups)('have the figures of the reference', async ({ a, b, ...expected }) => {
    const sample = splitBy('kiln', named('north', a), named('south', b));
    for (const alternative of ['two-sided', 'less', 'greater'] as const) {
      close(
        (await result('two-means', { ...TWO, alternative }, sample)).pValue,
        expected.welch.pValue[alternative],
        1e-8,
      );
      close(
        (await result('two-spreads', { ...TWO, alternative, method: 'f' }, sample)).pValue,
        expected.f.pValue[alternative],
      );
    }
    const welch = await result('two-means', TWO, sample);
    close(welch.interval!.lower, expected.welch.interval95[0]);
    close(welch.df as number, expected.welch.df);
    close((await result('two-means', { ...TWO, method: 'pooled' }, sample)).pValue, expected.pooled.pValue, 1e-8);
    close((await result('two-spreads', TWO, sample)).pValue, expected.brownForsythe.pValue);
    expect((await result('two-medians', TWO, sample)).statistic).toBe(expected.mannWhitney.u);
  });

  it.each(known.paired)('in pairs have the t of the reference', async ({ a, b, statistic, pValue }) => {
    const sample = beside(named('line', a), named('bench', b));
    const found = await result('two-means', { column: 'line', beside: ['bench'], method: 'paired' }, sample);
    close(found.statistic, statistic);
    close(found.pValue, pValue);
    const ranks = await result('two-medians', { column: 'line', beside: ['bench'], method: 'signed-rank' }, sample);
    expect(ranks.pMethod).toBe('exact');
    expect(
      await reason('two-means', { ...TWO, method: 'paired' }, splitBy('kiln', named('north', a), named('south', b))),
    ).toContain('A paired test needs two columns whose rows belong together. Choose a second column');
  });

  it('pair rows that hold both, and say how many do not', async () => {
    const a = named('line', [1.1, 1.3, 1.2, 1.6]);
    const b = { ...named('bench', [1.0, 1.25, 1.5]), rows: Int32Array.of(1, 2, 4) };
    const found = await result('two-means', { column: 'line', beside: ['bench'], method: 'paired' }, beside(a, b));
    expect(found.n).toBe(3);
    expect(found.notes.map(({ text }) => text).join()).toContain('1 reading has no partner');
  });

  it('by deviations from medians give their difference in the unit, and the ratio of the standard deviations', async () => {
    const sample = splitBy('kiln', named('north', [8, 8.1, 7.9, 8.2]), named('south', [8, 8.3, 7.5, 8.6]));
    const found = await result('two-spreads', { ...TWO, alternative: 'greater' }, sample);
    expect([found.claimed, found.estimate! < 0]).toEqual([0, true]);
    expect(found.notes.find(({ code }) => code === 'other-way')!.text).toContain(
      'The difference is opposite to the alternative: the alternative is “greater”, but the',
    );
    const rows = claimFigures(found).map(({ name, texts }) => `${name} ${plain(texts[0]!)}`);
    expect(rows.some((row) => row.startsWith('claimed'))).toBe(false);
    expect(rows).toContainEqual(expect.stringMatching(/^ratio of the SDs 0\.\d+$/));
  });

  it('that are not shifted at all are no claim taken from the readings, nor is a claim at the decimals they are written with', async () => {
    const sample = splitBy('kiln', named('north', [8, 8.1, 7.9]), named('south', [8, 8.1, 7.9]));
    expect((await result('two-medians', TWO, sample)).notes.map(({ code }) => code)).not.toContain(
      'claim-from-readings',
    );
    const median = await result('median-claim', { ...X, claimed: 8 }, named('thickness', [7.9, 8, 8.1]));
    expect(median.notes.map(({ code }) => code)).not.toContain('claim-from-readings');
  });

  it('choose two of several, change the sign with their order, and word the direction', async () => {
    const sample = splitBy(
      'kiln',
      named('a', [1, 2, 3.5, 2.2]),
      named('b', [4, 5, 6.5, 5.2]),
      named('c', [9, 8, 7.5, 8.2]),
    );
    const one = await result('two-means', { ...TWO, first: 'b', second: 'c' }, sample);
    const other = await result('two-means', { ...TWO, first: 'c', second: 'b' }, sample);
    expect(one.difference).toBe(-other.difference!);
    const less = await result('two-means', { ...TWO, first: 'b', second: 'c', alternative: 'less' }, sample);
    expect(less.sought).toBe('the mean of thickness is lower in b than in c');
    expect(await reason('two-means', { ...TWO, first: 'z' }, sample)).toContain(
      'There are no readings in “z”. The groups are: a, b, c.',
    );
    expect(await reason('two-means', X, named('thickness', [1, 2]))).toContain(
      'Choose a label column to split by, or a second column.',
    );
  });

  it('by typed figures are the same as by readings', async () => {
    const [a, b] = [named('north', column('normal-40')), named('south', column('one-far-25'))];
    const read = await result('two-means', TWO, splitBy('kiln', a, b));
    const figures = read.groups.map(({ n, centre, sd }) => ({ n, mean: centre, sd: sd! }));
    close((await result('two-means', { figures }, NO_READINGS)).pValue, read.pValue!, 1e-12);
    const f = await result('two-spreads', { ...TWO, method: 'f' }, splitBy('kiln', a, b));
    close((await result('two-spreads', { figures, method: 'f' }, NO_READINGS)).pValue, f.pValue!, 1e-12);
    expect(await reason('two-spreads', { figures }, NO_READINGS)).toContain(
      'The Brown–Forsythe test needs readings. For typed figures choose the F test.',
    );
  });

  it('about shares have Fisher’s p, Newcombe’s interval and the ratios', async () => {
    const figures = [
      { count: 12, n: 17 },
      { count: 3, n: 17 },
    ];
    const found = await result('two-shares', { figures }, NO_READINGS);
    close(found.pValue, 0.0048957925729217495);
    expect(found.extras.map(({ key }) => key)).toEqual([
      'newcombe',
      'risk-ratio',
      'risk-ratio-interval',
      'odds-ratio',
      'odds-ratio-interval',
    ]);
    const sample = splitBy('kiln', named('north', [7.8, 8, 8.1, 8.3]), named('south', [8, 8, 8, 8.1]));
    const limits = await result('two-shares', { ...TWO, lower: 7.9, upper: 8.2 }, sample);
    expect([limits.groups[0]!.centre, limits.groups[1]!.centre]).toEqual([0.5, 0]);
  });

  it('take readings censored by their ranks where these are settled', async () => {
    const below = { ...toCensored([{ row: 9, limit: 0.05, side: -1 as const }]), beyondLimit: 1 };
    const sample = splitBy('kiln', named('north', [0.1, 0.2, 0.4], below), named('south', [0.3, 0.5, 0.6, 0.7]));
    const found = await result('two-medians', TWO, sample);
    expect([found.n, found.statistic, found.interval]).toEqual([8, 1, null]);
    const among = { ...toCensored([{ row: 9, limit: 0.35, side: -1 as const }]), beyondLimit: 1 };
    const unsettled = splitBy('kiln', named('north', [0.1, 0.2, 0.4], among), named('south', [0.3, 0.5]));
    expect(await reason('two-medians', TWO, unsettled)).toContain(
      'north, row 9: known only to lie below 0.35, which lies among the readings, so it has no',
    );
  });
});

describe('claims about several groups', () => {
  const groups = known.several.groups.map((values, i) => named(`mill ${'ABC'[i]}`, values));
  const sample = splitBy('mill', ...groups);

  it('have the figures of the reference', async () => {
    const f = await result('several-means', { ...TWO, method: 'one-way' }, sample);
    close(f.statistic, known.several.oneWay.statistic);
    close(f.pValue, known.several.oneWay.pValue);
    f.pairs.forEach(({ pValue }, i) => close(pValue, known.several.tukeyKramer[i]!.pValue, 1e-8));
    close((await result('several-spreads', TWO, sample)).pValue, known.several.brownForsythe);
    const h = await result('several-medians', { ...TWO, method: 'chi-square' }, sample);
    close(h.statistic, known.several.kruskalWallis.statistic);
    close(h.pValue, known.several.kruskalWallis.pAsymptotic);
  });

  it('permute the ranks for few readings, with p near that of the curve', async () => {
    const found = await result('several-medians', TWO, sample);
    expect(found.pMethod).toBe('simulated');
    expect(Math.abs(found.pValue! - known.several.kruskalWallis.pAsymptotic)).toBeLessThan(0.02);
  });

  it('take two hundred groups, and no more', async () => {
    const many = (count: number) =>
      splitBy('batch', ...Array.from({ length: count }, (_, i) => named(`b${i}`, [i % 7, (i % 7) + 1 + (i % 3)])));
    // Not the usual bootstrap, which two hundred small groups keep busy for ten seconds.
    const found = await result('several-means', { ...TWO, method: 'one-way' }, many(200));
    expect(found.groups).toHaveLength(200);
    expect(found.pairs).toEqual([]);
    expect(await reason('several-means', TWO, many(201))).toContain('at most 200');
  });

  it('say which group is too small or has no spread', async () => {
    const withOne = splitBy('mill', groups[0]!, named('mill D', [4]));
    expect(await reason('several-means', TWO, withOne)).toContain('mill D has 1 reading');
    const flat = splitBy('mill', groups[0]!, named('mill E', [4, 4, 4]));
    expect(await reason('several-means', TWO, flat)).toContain('mill E');
    expect((await result('several-means', { ...TWO, method: 'one-way' }, flat)).pValue).toBeLessThan(0.001);
  });
});

describe('any claim', () => {
  const odd: [string, number[]][] = [
    ['one reading', [8]],
    ['two readings', [8, 8.1]],
    ['all equal', [8, 8, 8, 8]],
    ['huge', [1e300, 2e300, -1e300]],
    ['tiny', [1e-300, 2e-300, 3e-300]],
    ['far off', [1e9 + 0.1, 1e9 + 0.2, 1e9 + 0.3, 1e9 + 0.25]],
    ['whole numbers', [1, 2, 2, 3, 3, 3, 4]],
  ];
  const ids = ANALYSES.map(({ id }) => id as string).filter((id) =>
    /claim$|^two-(means|spreads|medians|shares)|^several-|tolerance/.test(id),
  );

  it.each(odd)('of %s is a result without NaN, or a reason in a sentence', async (_, values) => {
    const one = named('thickness', values);
    const two = splitBy(
      'kiln',
      named('north', values),
      named(
        'south',
        values.map((x) => x * 1.01),
      ),
    );
    for (const id of ids) {
      const grouped = /^two-|^several-|^table/.test(id);
      const claims = { claimed: id === 'share-claim' ? 0.1 : 8, claimedSd: 0.1, lower: 7.9, upper: 8.05 };
      const takes = Object.keys(claims).filter(
        (key) => analysisById(id).request.safeParse({ ...X, [key]: claims[key as keyof typeof claims] }).success,
      );
      const settings = Object.fromEntries(takes.map((key) => [key, claims[key as keyof typeof claims]]));
      const request = {
        ...(grouped ? TWO : X),
        ...settings,
        ...(grouped && id.startsWith('two-means') ? { claimed: 0 } : {}),
      };
      const found = await drive(inThisThread, { id, request, sample: grouped ? two : one });
      const wire = toWire(found) as { available: boolean; reason?: string };
      if (!wire.available) expect(wire.reason).toMatch(/^\p{Lu}?.*\.$/u);
      if (!wire.available) expect(wire.reason).not.toContain('no finite number');
    }
  });

  it('has figures, a table, a finding and a sentence that leave nothing open', async () => {
    const sample = splitBy('kiln', named('north', column('normal-40')), named('south', column('one-far-25')));
    for (const id of ids.filter((one) => /^two-(means|spreads|medians)|^several-/.test(one))) {
      const request = analysisById(id).resolve(analysisById(id).request.parse(TWO), sample);
      const found = await result(id, request, sample);
      const rows = claimFigures(found);
      expect(rows.length).toBeGreaterThan(2);
      for (const { texts, name } of rows) expect(`${name} ${texts.join()}`).not.toMatch(/NaN|undefined|null|Infinity/);
      expect(claimTable(found).length).toBeGreaterThan(2);
      const words = [
        told(found),
        methodOf(analysisById(id), request),
        missedWords(found),
        pWords(found),
        readBack(found),
      ].join(' ');
      expect(words).not.toMatch(/NaN|undefined|null|Infinity|\d{9}/);
    }
  });

  it('is refused for labels, where numbers are meant', async () => {
    const labels = named('fault', [0, 1, 1], { levels: ['chip', 'crack'] });
    expect(await reason('mean-claim', { column: 'fault', claimed: 1 }, labels)).toBe(
      'fault is a label column; this analysis needs numbers.',
    );
    expect(await reason('describe', { column: 'fault' }, labels)).toContain(
      'fault is a label column; this analysis needs numbers.',
    );
  });
});
