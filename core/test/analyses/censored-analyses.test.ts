import { describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import { compareFamiliesAnalysis } from '../../src/analyses/fit/compare-families.js';
import { comparedRows } from '../../src/analyses/fit/compare-families-words.js';
import { goodnessOfFitAnalysis } from '../../src/analyses/fit/goodness-of-fit.js';
import { normalityAnalysis } from '../../src/analyses/fit/normality.js';
import type { CompareFamiliesResult } from '../../src/analyses/fit/compare-families-result.js';
import type { ProbabilityPlotResult } from '../../src/analyses/fit/plot-result.js';
import type { DescribeResult } from '../../src/analyses/shape/describe-result.js';
import { plotPicture, plotTable } from '../../src/analyses/fit/plot-picture.js';
import { noShapeWords } from '../../src/analyses/fit/plot-shapes.js';
import { probabilityPlotAnalysis } from '../../src/analyses/fit/probability-plot.js';
import { describeAnalysis } from '../../src/analyses/shape/describe.js';
import { COUNT_FIGURE } from '../../src/analyses/shape/figure-list.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { createStream } from '../../src/random/stream.js';
import { fingerprintOf } from '../../src/readings/fingerprint.js';
import { PLAIN_FORMAT } from '../../src/readings/number-format.js';
import { toSample, type Sample } from '../../src/readings/sample.js';
import { isUnavailable, type Unavailable } from '../../src/road/analysis.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { toWire } from '../../src/road/wire.js';

const columnOf = (cells: string[], aside: number[] = []): Sample =>
  toSample({ name: 'absorption', unit: '%', resolution: null, ...PLAIN_FORMAT }, cells, new Set(aside));

/** Lognormal readings with two decimals, those below a limit written as such. */
function limited(limit: number, n = 54): string[] {
  const values = new Float64Array(n);
  distribution(familyByName('lognormal'), { logMean: -1.2, logSd: 0.9 }).sample(createStream(11, 0), values);
  return Array.from(values, (x) => (x < limit ? `<${limit}` : x.toFixed(2)));
}

const asked = (analysis: { id: string }, sample: Sample, more: object): Promise<unknown> =>
  drive(inThisThread, { id: analysis.id, request: { column: 'c', ...more }, sample });

async function run<T>(analysis: { id: string }, sample: Sample, more = {}): Promise<T> {
  const result = await asked(analysis, sample, more);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as T;
}
const reason = async (analysis: { id: string }, sample: Sample, more = {}): Promise<string> =>
  ((await asked(analysis, sample, more)) as Unavailable).reason;

describe('cells censored', () => {
  it('come into a sample with row, limit and side; set aside they count as set aside', () => {
    const { censored, beyondLimit, values, setAside } = columnOf(['<0.05', '0.1', '>30', '<0.05', '0.2'], [4]);
    expect(censored).toEqual({
      rows: Int32Array.from([1, 3]),
      limits: Float64Array.from([0.05, 30]),
      sides: Int32Array.from([-1, 1]),
    });
    expect([beyondLimit, values.length, setAside]).toEqual([2, 2, 1]);
    expect(columnOf(['1', '2'])).not.toHaveProperty('censored');
  });

  it('are repeated according to their frequencies', () => {
    const column = { name: 'a', unit: '', resolution: null, ...PLAIN_FORMAT };
    const frequencies = { cells: ['3', '2'], format: PLAIN_FORMAT };
    const { beyondLimit, values } = toSample(column, ['<1', '4'], new Set(), frequencies);
    expect([beyondLimit, values.length]).toEqual([3, 2]);
  });

  it('change the fingerprint with their limits and sides, and without any it is as it was', () => {
    const prints = [['<1', '2'], ['<1.5', '2'], ['>1', '2'], ['2']].map((cells) => fingerprintOf(columnOf(cells)));
    expect(new Set(prints).size).toBe(4);
    expect(fingerprintOf(columnOf(['x', '2']))).toBe(fingerprintOf(columnOf(['2'])));
  });
});

describe('a probability plot with readings censored', () => {
  const sample = columnOf(limited(0.09));
  const known = sample.values.length;
  const request = { family: 'lognormal' };

  it('counts them: positions, distribution, words, table; nothing is left out', async () => {
    const plot = await run<ProbabilityPlotResult>(probabilityPlotAnalysis, sample, request);
    expect([plot.n, plot.readings.length, plot.n - known]).toEqual([54, known, sample.beyondLimit]);
    expect(sample.beyondLimit).toBeGreaterThan(2);
    // One limit below all others: the ranks go on after those below it.
    expect(plot.positions[0]).toBeCloseTo((sample.beyondLimit + 0.5) / 54, 12);
    expect(plot.notes.map(({ code }) => code)).toEqual(['censored', 'only-on-line']);
    const words = probabilityPlotAnalysis
      .finding(plot)
      .map(({ text }) => text)
      .join('');
    expect(words).toContain(`54 readings (${sample.beyondLimit} below 0.09)`);
    const table = plotTable(plot);
    expect(table[1]![0]).toBe(sample.beyondLimit + 1);
    expect(table.at(-1)!.slice(0, 3)).toEqual(['–', expect.any(Number), '<0.09']);
    expect(table).toHaveLength(55);
    expect(noShapeWords(plot)).toContain('Patterns are not tested if readings are censored.');
  });

  it('draws censored readings at the edge on their side, and the band on the line', async () => {
    const cells = [...limited(0.09), '>4', '>4'];
    const plot = await run<ProbabilityPlotResult>(probabilityPlotAnalysis, columnOf(cells), request);
    expect(plot.band?.kind).toBe('line');
    const { beyond, up, across } = plotPicture(plot);
    expect(new Set(beyond.up)).toEqual(new Set([up.min, up.max]));
    expect(beyond.across.every((x) => x >= across.min && x <= across.max)).toBe(true);
    const turned = plotPicture({ ...plot, sides: 'readings-up' });
    expect(turned.beyond.up).toEqual(beyond.across);
    expect(plotPicture({ ...plot, axis: 'difference' }).beyond.across).toEqual([]);
  });

  it('says in its kept sentence which band it has', async () => {
    const kept = probabilityPlotAnalysis.resolve(probabilityPlotAnalysis.request.parse({ column: 'c' }), sample);
    expect(methodOf(probabilityPlotAnalysis, kept)).toContain('a confidence band of the line');
    const plain = columnOf(['1', '2', '3', '4']);
    const other = probabilityPlotAnalysis.resolve(probabilityPlotAnalysis.request.parse({ column: 'c' }), plain);
    expect(other.band).toBe('whole-plot');
    // Worked out again from the kept request it is the same.
    const first = await run<ProbabilityPlotResult>(probabilityPlotAnalysis, sample, request);
    const again = await run<ProbabilityPlotResult>(probabilityPlotAnalysis, sample, { ...request, band: 'line' });
    expect(toWire(again)).toEqual(toWire(first));
  });

  it('runs a line through the quartiles of all readings, or along the distribution where these are not known', async () => {
    const line = async (limit: number) =>
      (
        await run<ProbabilityPlotResult>(probabilityPlotAnalysis, columnOf(limited(limit)), {
          ...request,
          line: 'quartiles',
        })
      ).line;
    const [all, some, half] = [await line(0.001), await line(0.09), await line(0.3)];
    expect(some.by).toBe('quartiles');
    expect(Math.abs(some.slope - all.slope)).toBeLessThan(0.05 * all.slope);
    expect(half.by).toBe('fit');
  });

  it('is refused in words where limits cross and where nothing is known', async () => {
    expect(await reason(probabilityPlotAnalysis, columnOf(['1', '2', '3', '<9', '>0.5']))).toContain(
      'Some readings lie below 9 and others above 0.5: ranks cannot be determined where such',
    );
    expect(await reason(compareFamiliesAnalysis, columnOf(['1', '2', '3', '4', '<9', '>0.5']))).toContain(
      'Some readings lie below 9 and others above 0.5: ranks cannot be determined where such',
    );
    expect(await reason(probabilityPlotAnalysis, columnOf(['<1', '<1', '<2', '>4']))).toContain('4 censored');
  });
});

describe('other analyses of readings censored', () => {
  const sample = columnOf(limited(0.09));

  it('where too little is known say that first: nothing can take such readings', async () => {
    const nothing = columnOf(['<1', '<1', '<2', '>4']);
    for (const analysis of [normalityAnalysis, goodnessOfFitAnalysis, compareFamiliesAnalysis, describeAnalysis]) {
      expect(await reason(analysis, nothing)).toBe('absorption has no readings (4 censored).');
    }
  });

  it('tests that need every reading say so', async () => {
    expect(await reason(normalityAnalysis, sample)).toContain(
      'A test of normality needs every reading as a number (54 readings, 3 below 0.09). The',
    );
    expect(await reason(goodnessOfFitAnalysis, sample, { family: 'gamma' })).toContain(
      'A test of fit needs every reading as a number (54 readings, 3 below 0.09). The',
    );
  });

  it('families are ranked by the likelihood of all readings, without A²', async () => {
    const result = await run<CompareFamiliesResult>(compareFamiliesAnalysis, sample);
    expect(result.n).toBe(54);
    expect(result.families.length).toBeGreaterThan(10);
    expect(result.families.every(({ statistic, pSimulated }) => statistic === null && pSimulated === null)).toBe(true);
    expect(comparedRows(result)[0]!.p).toBe('–');
    // Among the likeliest is the one they were drawn from.
    expect(result.families.find(({ family }) => family === 'lognormal')!.difference).toBeLessThan(2);
    expect(result.notes.map(({ code }) => code)).toEqual(expect.arrayContaining(['censored', 'no-test']));
    expect(toWire(result)).toBeTruthy();
  });

  it('a description gives their number, and is more accurate with them', async () => {
    const many = columnOf(limited(0.2, 1_000));
    const result = await run<DescribeResult>(describeAnalysis, many);
    const law = distribution(familyByName('lognormal'), { logMean: -1.2, logSd: 0.9 });
    const { n, beyond, fitted } = result.withBeyond!;
    expect([n, beyond]).toEqual([1_000, [{ side: 'below', limit: 0.2, count: many.beyondLimit }]]);
    expect(fitted!.family).toBe('lognormal');
    expect(Math.abs(fitted!.mean - law.mean)).toBeLessThan(0.3 * Math.abs(result.mean - law.mean));
    expect(COUNT_FIGURE.text(result)).toBe(`${many.values.length}, ${many.beyondLimit} below 0.20`);
    const note = result.notes.find(({ code }) => code === 'beyond-limit')!.text;
    expect(note).toContain(
      '338 below 0.20 of 1\u202f000 readings; the figures are calculated from the others. With the',
    );
    expect((await run<DescribeResult>(describeAnalysis, columnOf(['1', '2', '4']))).withBeyond).toBeUndefined();
  });
});
