import { describe, expect, it } from 'vitest';
import type { GoodnessOfFitResult } from '../../src/analyses/fit/goodness-of-fit-result.js';
import { goodnessOfFitAnalysis } from '../../src/analyses/fit/goodness-of-fit.js';
import type { NormalityResult } from '../../src/analyses/fit/normality-result.js';
import { normalityAnalysis } from '../../src/analyses/fit/normality.js';
import { PARTS_COLUMNS, partsFigures, partsTests, seriesLawFigures } from '../../src/analyses/fit/parts-figures.js';
import { testsFinding } from '../../src/analyses/fit/parts-words.js';
import type { ProbabilityPlotResult } from '../../src/analyses/fit/plot-result.js';
import { plotSeries, seriesTable } from '../../src/analyses/fit/plot-series.js';
import { probabilityPlotAnalysis } from '../../src/analyses/fit/probability-plot.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { createStream } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { isInParts, partsWords, type InParts } from '../../src/road/in-parts.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { toWire } from '../../src/road/wire.js';
import { sampleOf } from '../samples.js';
import { drawn as samplesDrawn } from '../thorough.js';

function drawn(family: string, parameters: Record<string, number>, n: number, seed: number): Float64Array {
  const values = new Float64Array(n);
  distribution(familyByName(family), parameters).sample(createStream(seed, 0), values);
  return values;
}
const named = (name: string, values: Float64Array): Sample => ({ ...sampleOf(values), name });

/** Parts of one sample, as a label column makes them. */
function split(parts: readonly Sample[]): Sample {
  const values = Float64Array.from(parts.flatMap((part) => [...part.values]));
  return { ...sampleOf(values), groups: { by: 'kiln', samples: [...parts], without: 0 } };
}
const north = named('north', drawn('normal', { mean: 8, sd: 0.1 }, 30, 1));
const south = named('south', drawn('lognormal', { logMean: 0, logSd: 1 }, 40, 2));
const both = split([north, south]);
const BY = { column: 'thickness', split: 'kiln', replicates: 999 };
const run = <T>(id: string, sample: Sample, request: object) =>
  drive(inThisThread, { id, request, sample }) as Promise<T>;
const words = (pieces: readonly { text: string }[]) => pieces.map(({ text }) => text).join('');

describe('an analysis of parts', () => {
  it.each(['probability-plot', 'normality', 'goodness-of-fit'])(
    'is bit for bit that of each part alone (%s)',
    async (id) => {
      const family = id === 'goodness-of-fit' ? { family: 'logistic', replicates: 199 } : {};
      const result = await run<InParts<object>>(id, both, { ...BY, ...family });
      expect(isInParts(result)).toBe(true);
      expect(result.parts.map(({ name, n }) => [name, n])).toEqual([
        ['north', 30],
        ['south', 40],
      ]);
      for (const [i, part] of [north, south].entries()) {
        const { split: _, ...alone } = { ...BY, ...family };
        expect(toWire(result.parts[i]!.result)).toEqual(toWire(await run(id, part, alone)));
      }
    },
  );

  it('states notes on one part with its name, notes on all once, and why a part has no result', async () => {
    const two = named('east', Float64Array.of(1, 2));
    const result = await run<InParts<NormalityResult>>('normality', split([north, south, two]), BY);
    expect(result.notes.map(({ text }) => text)).toContainEqual('east has 2 readings; the test needs at least 3.');
    expect(isUnavailable(result.parts[2]!.result)).toBe(true);
    const small = [named('a', north.values.slice(0, 9)), named('b', north.values.slice(9, 19))];
    const alike = await run<InParts<NormalityResult>>('normality', split(small), { ...BY, alpha: 0.4 });
    expect(alike.notes.filter(({ code }) => code === 'unusual-level')).toHaveLength(1);
  });

  it('is in the sentence with the source of its series', () => {
    const request = probabilityPlotAnalysis.request.parse({ ...BY, together: 'apart' });
    expect(methodOf(probabilityPlotAnalysis, request)).toContain(
      'Probability plot of thickness by kiln, separate plots, midpoint positions, scale of the',
    );
    const alone = probabilityPlotAnalysis.request.parse({ column: 'thickness' });
    expect(methodOf(probabilityPlotAnalysis, alone)).toContain(
      'Probability plot of thickness, midpoint positions, scale of the normal distribution with',
    );
    const beside = probabilityPlotAnalysis.request.parse({ column: 'thickness', beside: ['width'] });
    expect(methodOf(probabilityPlotAnalysis, beside)).toContain(
      'Probability plot of thickness and width, one plot, midpoint positions, scale of the normal',
    );
  });
});

describe('what the tests of parts say together', () => {
  const of = { by: 'kiln', parts: [1, 2, 3].map((n) => ({ name: String(n), n, result: {} })) };
  const say = (...ps: (number | null)[]) =>
    words(
      testsFinding(
        of,
        ps.map((p, i) => ({ name: 'ABC'[i]!, p })),
        'a normal distribution',
        0.05,
      ),
    );

  it('shares the level among them', () => {
    expect(say(0.02, 0.3, 0.4)).toBe(
      'No evidence against a normal distribution in any of 3 groups by kiln (significance level 0.05, Holm-adjusted for 3 tests). Smallest p: A (p = 0.020).',
    );
    expect(say(0.01, 0.3, 0.02)).toContain(
      'The readings depart from a normal distribution in A (p = 0.010) and C (p = 0.020)',
    );
    expect(say(0.01, 0.02, 0.03)).toContain(
      'The readings depart from a normal distribution in A (p = 0.010), B (p = 0.020) and C (p =',
    );
    expect(say(0.01, null, 0.02)).toBe('The p-values of 3 groups by kiln are being simulated.');
    expect(say()).toBe('None of 3 groups by kiln can be tested.');
  });

  it('claims something false of at most 5 in 100 splits of normal readings in four', async () => {
    let claimed = 0;
    const splits = samplesDrawn(25, 80);
    for (let k = 0; k < splits; k++) {
      const parts = [0, 1, 2, 3].map((i) => named(`g${i}`, drawn('normal', { mean: 0, sd: 1 }, 12, 1_000 + 4 * k + i)));
      const result = await run<InParts<NormalityResult>>('normality', split(parts), { ...BY, replicates: 199 });
      if (words(normalityAnalysis.finding(result)).includes('depart from')) claimed++;
    }
    expect(claimed / splits).toBeLessThan(0.05 + 4 * Math.sqrt((0.05 * 0.95) / splits));
  });

  it('names the departing part, the bands, and the claim', async () => {
    const normality = await run<InParts<NormalityResult>>('normality', both, BY);
    expect(words(normalityAnalysis.finding(normality))).toMatch(/depart from a normal distribution in south/);
    const plots = await run<InParts<ProbabilityPlotResult>>('probability-plot', both, BY);
    expect(words(probabilityPlotAnalysis.finding(plots))).toContain(
      '2 groups by kiln, each plotted against its own fitted normal distribution; outside the',
    );
    const claim = { ...BY, family: 'normal', parameters: [8, 0.1] };
    const fitted = await run<InParts<GoodnessOfFitResult>>('goodness-of-fit', both, claim);
    expect(words(goodnessOfFitAnalysis.finding(fitted))).toContain('the claimed normal distribution in south');
    expect(partsWords({ by: null, parts: of.parts })).toBe('3 columns');
  });
});

describe('series on common axes', () => {
  const plots = (request: object, sample = both) =>
    run<InParts<ProbabilityPlotResult>>('probability-plot', sample, { ...BY, replicates: 200, ...request });

  it('have one range, that of all', async () => {
    const { series, caution } = plotSeries(await plots({}));
    const [a, b] = series.map(({ picture }) => picture);
    expect(caution).toBeNull();
    expect([a!.across.min, a!.across.max, a!.up.min, a!.up.max]).toEqual([
      b!.across.min,
      b!.across.max,
      b!.up.min,
      b!.up.max,
    ]);
    for (const { plot, picture } of series) {
      expect(picture.across.min).toBeLessThanOrEqual(plot.readings[0]!);
      expect(picture.across.max).toBeGreaterThanOrEqual(plot.readings[plot.n - 1]!);
    }
  });

  it('share a paper where their families have no shape left, and are drawn against what each expects where they have', async () => {
    const positive = split([
      named('a', drawn('weibull', { shape: 2, scale: 3 }, 25, 3)),
      named('b', drawn('weibull', { shape: 5, scale: 1 }, 25, 4)),
    ]);
    const weibull = plotSeries(await plots({ family: 'weibull' }, positive));
    expect(weibull.series.map(({ plot }) => plot.axis)).toEqual(['percent', 'percent']);
    const gamma = plotSeries(await plots({ family: 'gamma' }, positive));
    expect(gamma.series.map(({ plot }) => plot.axis)).toEqual(['quantiles', 'quantiles']);
    expect(gamma.caution).toContain(
      'The scale of this distribution depends on its parameters, which differ between the',
    );
    const claimed = plotSeries(await plots({ family: 'gamma', parameters: [2, 1] }, positive));
    expect(claimed.caution).toBeNull();
  });

  it('keep their own n, positions and table under their name', async () => {
    const result = await plots({});
    const table = seriesTable(result);
    expect(table).toHaveLength(1 + 30 + 40);
    expect(table[0]!.slice(0, 3)).toEqual(['series', 'i', 'row']);
    expect([table[1]![0], table[31]![0], table[31]![1]]).toEqual(['north', 'south', 1]);
    expect(table[1]![4]).toBeCloseTo(0.5 / 30, 12);
  });

  it('are in tables: a row each for the chosen test, a column each for all tests and for the distributions', async () => {
    const result = await run<InParts<NormalityResult>>('normality', both, BY);
    const rows = partsFigures(result);
    expect(rows.map(({ name, texts }) => [name, texts[0]])).toEqual([
      ['north', '30'],
      ['south', '40'],
    ]);
    expect(rows.every(({ texts }) => texts.length === PARTS_COLUMNS.length)).toBe(true);
    expect(rows[1]!.meaning).toContain('depart from');
    const tests = partsTests(result);
    expect([tests.heads, tests.rows.length]).toEqual([['north', 'south'], 9]);
    const laws = seriesLawFigures(await plots({ upperLimit: 9 }));
    expect(laws.rows.map(({ name }) => name)).toEqual(['mean', 'standard deviation', 'outside the limits']);
    expect(laws.rows[0]!.texts[0]).toMatch(/^8\.\d+ ± 0\.0\d+$/);
  });
});
