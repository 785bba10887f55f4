import { describe, expect, it } from 'vitest';
import { analysisById, inThisThread } from '../../src/analyses/registry.js';
import type { ClaimResult } from '../../src/analyses/claims/claim-result.js';
import type { BootstrapResult } from '../../src/analyses/resample/bootstrap-result.js';
import { statisticOffers, usualStatistic, type LookedAt } from '../../src/analyses/resample/looked-at.js';
import { formatOffset, formatStatistic } from '../../src/road/formatted.js';
import type { PermutationResult } from '../../src/analyses/resample/permutation-result.js';
import { conventionWords, tailsWords } from '../../src/analyses/resample/permutation-words.js';
import type { PlansResult } from '../../src/analyses/resample/plans.js';
import { readCounts } from '../../src/analyses/resample/typed-counts.js';
import type { ReplicateResult } from '../../src/analyses/resample/replicate.js';
import { bothWelch, wilsonOf } from '../resampling/resample-formulas.js';
import { NO_READINGS, type Sample } from '../../src/readings/sample.js';
import { remembering } from '../../src/road/remembered.js';
import { drive } from '../../src/road/runner.js';
import { chunkReplicates, performChunk } from '../../src/road/kernels.js';
import { samplesBeside } from '../../src/table/split.js';
import type { Piece, Unavailable } from '../../src/road/analysis.js';
import { normalQuantile } from '../../src/numeric/standard-normal.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';

const named = (name: string, values: ArrayLike<number>, own: Partial<Sample> = {}): Sample => ({
  ...sampleOf(Float64Array.from(values)),
  name,
  ...own,
});
const north = named('north', [8.02, 7.94, 8.11, 8.05, 7.97, 8.09], { resolution: 0.01, unit: 'mm' });
const south = named('south', [8.19, 8.17, 8.22, 8.08, 8.31, 8.2], { resolution: 0.01, unit: 'mm' });
const grouped = (...samples: Sample[]): Sample => {
  const all = samplesBeside(samples);
  return { ...all, name: 'thickness', groups: { ...all.groups!, by: 'kiln' } };
};
const two = grouped(north, south);

async function found<R>(id: string, request: object, sample: Sample): Promise<R> {
  const asked = sample === NO_READINGS ? request : { column: 'thickness', ...request };
  const result = (await drive(inThisThread, { id, request: asked, sample })) as R & Partial<Unavailable>;
  if (result.available === (false as never)) throw new Error((result as Unavailable).reason);
  return result;
}
const refused = async (id: string, request: object, sample: Sample): Promise<string> =>
  ((await drive(inThisThread, { id, request: { column: 'thickness', ...request }, sample })) as Unavailable).reason;
const said = (id: string, result: unknown) =>
  (analysisById(id).finding as (of: unknown) => Piece[])(result)
    .map(({ text }) => text)
    .join('');
const codes = ({ notes }: { notes: readonly { code: string }[] }) => notes.map(({ code }) => code);

describe('permutation', () => {
  const means = { statistic: 'difference-of-means', split: 'kiln' };

  it('counts all arrangements where they can be counted, both tails and p in every direction', async () => {
    const result = await found<PermutationResult>('permutation', means, two);
    expect(result).toMatchObject({ pMethod: 'exact', arrangements: 924, replicates: 0, drawn: null });
    const { exact, p } = result;
    expect(exact!.farBelow + exact!.farAbove).toBe(exact!.atLeastAsFar);
    expect(p).toEqual({
      less: exact!.below / 924,
      greater: exact!.above / 924,
      twoSided: exact!.atLeastAsFar / 924,
      doubled: (2 * exact!.below) / 924,
    });
    expect(tailsWords(result)).toBe(
      `${exact!.farBelow} at or below −0.1650\u00a0mm, ${exact!.farAbove} at or above 0.1650\u00a0mm`,
    );
    expect(said('permutation', result)).toContain(
      'Evidence against the hypothesis that the distribution does not depend on kiln. The mean',
    );
    expect(conventionWords(result)).toContain(
      '3 at or below −0.1650\u00a0mm, 3 at or above 0.1650\u00a0mm, ties included. One-sided p: 0.0032',
    );
    expect(result.formula!.pValue).toBeCloseTo(bothWelch(north.values, south.values), 14);
  });

  it('draws at random if they are too many or on request, and gives the error of p', async () => {
    const drawn = await found<PermutationResult>('permutation', { ...means, way: 'drawn', replicates: 5_000 }, two);
    expect(drawn.replicates).toBe(5_000);
    expect(drawn.pMethod).toBe('exact');
    expect(codes(drawn)).toContain('counted-besides');
    const many = grouped(named('a', column('normal-40').subarray(0, 20)), named('b', column('normal-40').subarray(20)));
    const result = await found<PermutationResult>('permutation', means, many);
    expect(result).toMatchObject({ pMethod: 'simulated', replicates: 10_000, exact: null });
    const { atLeastAsFar, pSimulated, pValue } = result;
    expect(pValue).toBe((atLeastAsFar + 1) / 10_001);
    expect(pSimulated!.pInterval[0]).toBeLessThan(pValue!);
    expect(conventionWords(result)).toContain(
      '2\u202f958 at or below −0.51420\u00a0mm, 3\u202f047 at or above 0.51420\u00a0mm, ties included. The observed',
    );
  });

  it('a single shuffle is a run, and one more shuffle leaves those before as they are', async () => {
    const run = (replicates: number) =>
      found<PermutationResult>('permutation', { ...means, way: 'drawn', replicates }, two);
    const [one, some, more] = [await run(1), await run(12), await run(200)];
    expect(one.dots).toEqual(more.dots.slice(0, 1));
    expect(some.dots).toEqual(more.dots.slice(0, 12));
    // The axis does not move.
    expect(one.frame).toEqual(more.frame);
  });

  it('the replicate behind a dot is the same for everybody: its readings give its statistic', async () => {
    const run = await found<PermutationResult>('permutation', { ...means, way: 'drawn', replicates: 50 }, two);
    const alone = await found<ReplicateResult>('replicate', { ...means, by: 'shuffling', number: 31 }, two);
    expect(alone.statistic).toBeCloseTo(run.dots[30]!, 12);
    const meanOf = (name: string) => {
      const own = alone.readings.filter(({ now }) => now === name).map(({ value }) => value);
      return own.reduce((a, b) => a + b, 0) / own.length;
    };
    expect(meanOf('north') - meanOf('south')).toBeCloseTo(alone.statistic!, 12);
    expect(alone.readings.filter(({ moved }) => moved).every(({ group, now }) => group !== now)).toBe(true);
    const counted = await found<ReplicateResult>('replicate', { ...means, by: 'counting', number: 924 }, two);
    expect(said('replicate', counted)).toContain('Permutation 924: 0.1750\u00a0mm; 10 readings changed place.');
    expect(await refused('replicate', { ...means, by: 'counting', number: 925 }, two)).toContain(
      'There are only 924 permutations. Choose a number from 1 to 924.',
    );
  });

  it('turns the signs of one column about a claim, and of pairs about 0', async () => {
    const one = { statistic: 'mean', claimed: 8 };
    const result = await found<PermutationResult>('permutation', one, north);
    expect(result).toMatchObject({ design: 'signs', arrangements: 64, centre: 8, pMethod: 'exact' });
    expect(result.observed).toBeCloseTo(8.03, 12);
    expect(await refused('permutation', { statistic: 'mean' }, north)).toContain(
      'Enter the claimed value of the mean of north.',
    );
    const pairs = { ...samplesBeside([north, south]), name: 'north' };
    const paired = await found<PermutationResult>(
      'permutation',
      { statistic: 'mean-of-differences', beside: ['south'] },
      pairs,
    );
    // All six are less: 2 of 64 ways are as far.
    expect(paired.exact!.atLeastAsFar).toBe(2);
    const replicate = { statistic: 'mean-of-differences', beside: ['south'], by: 'counting', number: 2 };
    const turned = await found<ReplicateResult>('replicate', replicate, pairs);
    expect(turned.readings.filter(({ moved }) => moved)).toHaveLength(1);
  });

  it('far from 0 ties are still ties: signs about a claim keep their digits', async () => {
    const far = named('x', [1e9 + 0.1, 1e9 + 0.2, 1e9 - 0.1, 1e9 - 0.2, 1e9 + 0.3]);
    const near = named('x', [0.1, 0.2, -0.1, -0.2, 0.3]);
    const at = async (sample: Sample, claimed: number) =>
      (await found<PermutationResult>('permutation', { statistic: 'mean', claimed }, sample)).exact;
    expect(await at(far, 1e9)).toEqual(await at(near, 0));
  });

  it('shuffles one column over another, and several groups', async () => {
    const pairs = samplesBeside([north, south]);
    const r = await found<PermutationResult>('permutation', { statistic: 'correlation', beside: ['south'] }, pairs);
    expect(r).toMatchObject({ design: 'pairs', arrangements: 720 });
    const three = grouped(north, south, named('east', [8, 8.1, 8.05]));
    const f = await found<PermutationResult>(
      'permutation',
      { statistic: 'f', split: 'kiln', replicates: 2_000 },
      three,
    );
    expect(f).toMatchObject({ oneSided: true, alternative: 'greater' });
    expect(f.formula!.pValue).toBeLessThan(0.01);
    // Of three groups the first two are meant where a statistic is of two.
    const first = await found<PermutationResult>('permutation', means, three);
    expect(first.groups.map(({ name }) => name)).toEqual(['north', 'south']);
  });

  it('takes typed counts, compared with Fisher, and labels', async () => {
    const figures = [
      { count: 8, n: 10 },
      { count: 3, n: 10 },
    ];
    const result = await found<PermutationResult>(
      'permutation',
      { statistic: 'difference-of-shares', figures },
      NO_READINGS,
    );
    // Each way to deal is one way to fill the table: the two tests are the same.
    expect(result.p!.greater).toBeCloseTo(0.5 * 0.0697, 3);
    expect(result.pMethod).toBe('exact');
    const labels = (values: number[], name: string): Sample => ({
      ...named(name, values),
      levels: ['sound', 'chipped'],
      resolution: null,
    });
    const split = grouped(labels([0, 0, 1, 0], 'early'), labels([1, 1, 0, 1, 1], 'late'));
    const asked = { statistic: 'difference-of-shares', split: 'shift', level: 'chipped' };
    const shares = await found<PermutationResult>('permutation', asked, { ...split, levels: ['sound', 'chipped'] });
    expect(shares.observed).toBeCloseTo(0.25 - 0.8, 12);
    expect(shares.arrangements).toBe(126);
  });

  it.each([
    [
      { statistic: 'difference-of-means', split: 'kiln' },
      grouped(named('a', [5, 5]), named('b', [5, 5, 5])),
      'All readings are equal, so a permutation changes nothing.',
    ],
    [
      { statistic: 'sd' },
      north,
      'A permutation does not change the standard deviation of north. Compare two groups, or use',
    ],
    [{ statistic: 'difference-of-means' }, north, 'Choose a label column to split by, or a second column.'],
    [
      { statistic: 'correlation', split: 'kiln' },
      two,
      'Pairs need two columns whose rows belong together. Choose a second column instead of a',
    ],
    [{ statistic: 'mean', claimed: 8 }, named('a', [8, 8]), 'All differences are 0, so there are no signs to permute.'],
    [{ statistic: 'difference-of-shares', split: 'kiln' }, two, 'Enter the limits'],
    [
      { statistic: 'formula', split: 'kiln' },
      two,
      'Enter a formula, for example sd / mean, or mean1 / mean2 for two groups.',
    ],
  ])('refuses %j in words', async (request, sample, words) => {
    expect(await refused('permutation', request, sample)).toContain(words);
  });

  it('one reading against many, and one against one, say what they can and cannot show', async () => {
    const single = grouped(named('a', [9]), north);
    const result = await found<PermutationResult>('permutation', means, single);
    expect(result).toMatchObject({ arrangements: 7, pValue: 1 / 7 });
    expect(codes(result)).toEqual(expect.arrayContaining(['few-arrangements', 'one-reading']));
    const pair = await found<PermutationResult>('permutation', means, grouped(named('a', [9]), named('b', [8])));
    expect(pair.pValue).toBe(1);
  });
});

describe('bootstrap', () => {
  it('gives the statistic, its standard error and the recommended interval with the reason', async () => {
    const sample = { ...named('thickness', column('normal-40')), unit: 'mm', resolution: 0.1 };
    const result = await found<BootstrapResult>('bootstrap', {}, sample);
    expect(result).toMatchObject({ main: 'studentised', recommended: 'studentised', replicates: 10_000, undefined: 0 });
    const sd = await found<BootstrapResult>('bootstrap', { statistic: 'sd' }, sample);
    expect(sd).toMatchObject({ main: 'bca', why: 'corrects for skewness and bias' });
    expect(said('bootstrap', result)).toMatch(
      /^The mean of thickness: .+\u00a0mm, standard error .+ \(10\u202f000 bootstrap replicates\)\. 95\u00a0% confidence interval .+ \(studentised, .+\)\.$/,
    );
    expect(result.formula!.name).toBe('t');
    const { studentised, bca } = result.intervals;
    expect(studentised!.lower).toBeLessThan(result.observed);
    expect(bca!.lowerError).toBeGreaterThan(0);
    const asked = await found<BootstrapResult>('bootstrap', { interval: 'basic' }, sample);
    expect(asked.main).toBe('basic');
  });

  it('the studentised interval of a mean is within a tenth of a standard error of that by t for normal scores', async () => {
    const scores = Float64Array.from({ length: 40 }, (_, i) => normalQuantile((i + 0.5) / 40));
    const result = await found<BootstrapResult>('bootstrap', { replicates: 50_000 }, named('x', scores));
    const { studentised } = result.intervals;
    expect(Math.abs(studentised!.lower - result.formula!.lower!)).toBeLessThan(0.1 * result.standardError!);
    expect(Math.abs(studentised!.upper - result.formula!.upper!)).toBeLessThan(0.1 * result.standardError!);
  });

  it('for many readings fewer replicates are drawn by default', async () => {
    const many = named(
      'x',
      Float64Array.from({ length: 20_000 }, (_, i) => Math.sin(i)),
    );
    for (const id of ['bootstrap', 'permutation'] as const) {
      const request = analysisById(id).request.parse({ column: 'x' });
      expect(analysisById(id).resolve(request, many)).toMatchObject({ replicates: 1_000 });
    }
  });

  it('grows from one replicate, says when there are too few for an interval', async () => {
    const run = (replicates: number) => found<BootstrapResult>('bootstrap', { replicates }, north);
    const [one, ten, more] = [await run(1), await run(10), await run(150)];
    expect(one).toMatchObject({ standardError: null, main: null, replicates: 1 });
    expect(said('bootstrap', one)).toContain('The mean of north: 8.030\u00a0mm (1 bootstrap replicate so far).');
    expect(said('bootstrap', ten)).toContain(
      'The mean of north: 8.030\u00a0mm, standard error 0.025\u00a0mm (10 bootstrap replicates). An',
    );
    // Five replicates beyond either end: 199 of them at 95 %.
    expect((await run(198)).main).toBeNull();
    expect((await run(199)).main).toBe('studentised');
    expect(more.dots.slice(0, 10)).toEqual(ten.dots);
    const alone = await found<ReplicateResult>('replicate', { number: 7 }, north);
    expect(alone.statistic).toBeCloseTo(ten.dots[6]!, 12);
    expect(alone.readings).toHaveLength(6);
    expect(said('replicate', alone)).toMatch(/^Replicate 7: .*of 6 readings were not drawn\.$/);
  });

  it('cautions: few readings, near the level, few values, undefined replicates, a formula exists', async () => {
    expect(codes(await found<BootstrapResult>('bootstrap', {}, north))).toContain('small-n');
    const forty = named('x', column('normal-40'));
    const edge = { statistic: 'percentile', percentile: 1 };
    expect(codes(await found<BootstrapResult>('bootstrap', edge, forty))).toContain('edge');
    const coarse = named(
      'x',
      column('normal-40').map((x) => Math.round(x / 5) * 5),
      { resolution: 5 },
    );
    const few = await found<BootstrapResult>('bootstrap', { statistic: 'median' }, coarse);
    expect(codes(few)).toContain('few-values');
    expect(few.main).toBe('percentile');
    const moved = await found<BootstrapResult>('bootstrap', { statistic: 'median', smooth: 'half-step' }, coarse);
    expect(codes(moved)).not.toContain('few-values');
    const skew = await found<BootstrapResult>('bootstrap', { statistic: 'skewness' }, named('x', [1, 2, 9]));
    expect(skew.undefined).toBeGreaterThan(0);
    expect(codes(skew)).toContain('undefined-replicates');
    // A replicate without a figure keeps its number among the dots.
    const drawn = await found<BootstrapResult>(
      'bootstrap',
      { statistic: 'skewness', replicates: 60 },
      named('x', [1, 2, 9]),
    );
    expect(drawn.dots).toHaveLength(60);
    expect(drawn.dots.filter((dot) => dot === null)).toHaveLength(drawn.undefined);
    const after = drawn.dots.findIndex((dot, i) => dot !== null && drawn.dots.slice(0, i).includes(null));
    const alone = await found<ReplicateResult>(
      'replicate',
      { statistic: 'skewness', number: after + 1 },
      named('x', [1, 2, 9]),
    );
    expect(alone.statistic).toBeCloseTo(drawn.dots[after]!, 12);
  });

  it('of typed counts, compared with Wilson; of two groups, pairs, a formula', async () => {
    const figures = [{ count: 58, n: 110 }];
    const share = await found<BootstrapResult>('bootstrap', { statistic: 'share', figures }, NO_READINGS);
    expect(share.observed).toBeCloseTo(58 / 110, 14);
    const exact = Math.sqrt((share.observed * (1 - share.observed)) / 110);
    expect(Math.abs(share.standardError! - exact)).toBeLessThan((4 * exact) / Math.sqrt(20_000));
    expect([share.formula!.lower, share.formula!.upper]).toEqual(wilsonOf(58, 110));
    const kiln = { split: 'kiln' };
    for (const statistic of ['difference-of-means', 'difference-of-medians', 'log-ratio-of-sds'])
      expect((await found<BootstrapResult>('bootstrap', { ...kiln, statistic }, two)).standardError).toBeGreaterThan(0);
    const pairs = samplesBeside([north, south]);
    for (const statistic of ['correlation', 'slope', 'mean-of-differences', 'median-of-differences'])
      expect(
        (await found<BootstrapResult>('bootstrap', { beside: ['south'], statistic }, pairs)).standardError,
      ).toBeGreaterThan(0);
    const ratio = { ...kiln, statistic: 'formula', formula: 'mean1 / mean2' };
    const formula = await found<BootstrapResult>('bootstrap', ratio, two);
    expect(formula.observed).toBeCloseTo(8.03 / 8.195, 12);
    expect(formula.what).toBe('mean1 / mean2 of north and south');
  });

  it.each([
    [{}, named('x', [8]), 'needs at least 2'],
    [
      {},
      named('x', [8, 8, 8]),
      'All readings are equal, so the mean of x is the same in every replicate and the bootstrap',
    ],
    [
      { smooth: 'half-step' },
      named('x', [8, 9], { resolution: null }),
      'Smoothing needs the resolution of the readings. Enter it in Readings, or choose no',
    ],
    [
      { statistic: 'cv' },
      named('x', [-1, 1]),
      'The coefficient of variation of x cannot be calculated from these readings, because the',
    ],
    [{ statistic: 'formula', formula: 'mean1' }, north, 'There is no statistic “mean1”'],
    [
      { statistic: 'f', split: 'kiln' },
      two,
      'F and the largest difference cannot be negative, so their bootstrap is biased. Use a',
    ],
    [
      { times: 100 },
      named(
        'x',
        Float64Array.from({ length: 100_001 }, (_, i) => i),
      ),
      'A replicate would hold more than 10\u202f000\u202f000 readings. Choose a smaller multiplier.',
    ],
  ] as [object, Sample, string][])('refuses %j in words', async (request, sample, words) => {
    expect(await refused('bootstrap', request, sample)).toContain(words);
  });

  it('larger samples: the standard error falls with the root', async () => {
    const plans = await found<PlansResult>('bootstrap-plans', {}, named('x', column('normal-40')));
    expect(plans.plans.map(({ n }) => n)).toEqual([40, 80, 200, 400]);
    const [now, twice, , ten] = plans.plans;
    expect(Math.abs(now!.standardError / twice!.standardError - Math.SQRT2)).toBeLessThan(0.1);
    expect(Math.abs(now!.standardError / ten!.standardError - Math.sqrt(10))).toBeLessThan(0.25);
    expect(said('bootstrap-plans', plans)).toContain(
      'The mean of x: 102.32\u00a0mm, standard error 0.47445\u00a0mm. Expected standard error: 0.33301\u00a0mm',
    );
  });
});

describe('a value that is 0 up to rounding', () => {
  it('is written without sign', () => {
    const told = { unit: 'mm', resolution: 0.01, as: 'reading', kind: 'difference' } as const;
    expect(formatStatistic(-0.00001, told)).toBe('0.0000\u00a0mm');
    expect(formatOffset(-0.0012, told)).toBe('−0.0012\u00a0mm');
    expect(formatStatistic(-0.1, { ...told, as: 'share' })).toBe('−10 percentage points');
  });
});

describe('a claim on a spread', () => {
  it('has the bootstrap interval besides that by χ², the same as in Resample', async () => {
    const sample = named('x', column('right-skew-50'));
    const claim = await found<ClaimResult>('spread-claim', { claimed: 1 }, sample);
    const sd = await found<BootstrapResult>('bootstrap', { statistic: 'sd', replicates: 2_000 }, sample);
    const { bca } = sd.intervals;
    expect(claim.extras[0]).toMatchObject({ key: 'redrawn', value: [bca!.lower, bca!.upper] });
    // χ² leans on normality: of lopsided readings its interval is too narrow.
    expect(bca!.upper - bca!.lower).toBeGreaterThan(claim.interval!.upper! - claim.interval!.lower!);
    const typed = { claimed: 1, figures: { n: 50, mean: 2, sd: 1.1 } };
    const ofFigures = await found<ClaimResult>('spread-claim', typed, NO_READINGS);
    expect(ofFigures.extras.map(({ key }) => key)).toEqual(['ratio']);
  });
});

describe('what is offered', () => {
  const looked: LookedAt = { kind: 'measure', name: 'thickness', groups: 1, split: false, limits: false };
  const offered = (what: 'bootstrap' | 'permutation', own: Partial<LookedAt>) =>
    statisticOffers(what, { ...looked, ...own })
      .filter(({ whyNot }) => whyNot === null)
      .map(({ id }) => id);

  it('follows statistic, with a reason for the rest; the usual one is always among them', () => {
    expect(offered('bootstrap', {})).toContain('mean');
    expect(offered('bootstrap', {})).not.toContain('share');
    expect(offered('bootstrap', { groups: 2, split: true })).toEqual(
      expect.arrayContaining(['difference-of-means', 'log-ratio-of-sds', 'formula']),
    );
    expect(offered('permutation', {})).toEqual(['mean', 'median']);
    expect(offered('permutation', { groups: 3, split: true })).toContain('f');
    expect(offered('permutation', { kind: 'label', groups: 2, split: true })).toEqual(['difference-of-shares']);
    for (const what of ['bootstrap', 'permutation'] as const)
      for (const own of [
        {},
        { groups: 2, split: true },
        { groups: 2 },
        { groups: 5, split: true },
        { kind: 'count' as const },
      ])
        expect(offered(what, own)).toContain(usualStatistic(what, { ...looked, ...own }));
  });
});

describe('typed counts', () => {
  it.each([
    [{ count: '58', n: '110' }, { figures: [{ count: 58, n: 110 }] }],
    [{ count: '8', n: '10', count2: '3', n2: '10' }, { figures: [8, 3].map((count) => ({ count, n: 10 })) }],
    [{ count: '58' }, { field: 'n', problem: 'Enter total n.' }],
    [
      { count: '8', n: '10', count2: '3' },
      { field: 'n2', problem: 'Enter its total.' },
    ],
    [
      { count: '8', n: '10', n2: '3' },
      { field: 'count2', problem: 'Enter the second count.' },
    ],
    [
      { count: 'x', n: '10' },
      { field: 'count', problem: '“x” is not a number.' },
    ],
    [
      { count: '12', n: '10' },
      { field: 'count', problem: 'The count must not be larger than the total.' },
    ],
  ])('%j', (texts, expected) => {
    expect(readCounts(texts)).toEqual(expected);
  });

  it('are limited to what can be drawn one by one', () => {
    expect(readCounts({ count: '1', n: '100', count2: '1', n2: '1000000' })).toMatchObject({ field: 'n2' });
    expect(readCounts({ count: '1.5', n: '100' })).toMatchObject({ field: 'count' });
  });
});

describe('a run that goes on', () => {
  it('works out only what is new, with the bits of an unbroken one', async () => {
    const worked: number[] = [];
    const counting = {
      ...inThisThread,
      chunk: async (...[order, k]: Parameters<typeof performChunk>) => {
        if (order.replicates > 200) worked.push(chunkReplicates(order, k));
        return performChunk(order, k);
      },
    };
    const pool = remembering(counting, 1_000_000);
    const sample = named('x', column('normal-40'));
    const run = (executor: typeof pool, replicates: number) =>
      drive(executor, { id: 'bootstrap', request: { column: 'x', replicates }, sample });
    await run(pool, 12_000);
    expect(worked).toEqual([5_000, 5_000, 2_000]);
    const longer = await run(pool, 20_000);
    expect(worked.slice(3)).toEqual([5_000, 5_000]);
    expect(longer).toEqual(await run(inThisThread, 20_000));
  });
});
