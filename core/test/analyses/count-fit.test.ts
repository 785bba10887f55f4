import { describe, expect, it } from 'vitest';
import { countHint } from '../../src/analyses/fit/count-hint.js';
import type { CountFitResult } from '../../src/analyses/fit/count-fit-result.js';
import { cellWords, COUNT_FIT_FIGURES, countTable } from '../../src/analyses/fit/count-fit-words.js';
import { countFitAnalysis, poissonInterval } from '../../src/analyses/fit/count-fit.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { binomial } from '../../src/distributions/families/binomial.js';
import { negativeBinomial } from '../../src/distributions/families/negative-binomial.js';
import { poisson } from '../../src/distributions/families/poisson.js';
import { chiSquareOf, countsInCells, pooledCells, shownCells } from '../../src/goodness-of-fit/counts/cells.js';
import { dispersionOf } from '../../src/goodness-of-fit/counts/dispersion.js';
import { cumulativeOf, drawCounts } from '../../src/goodness-of-fit/counts/model.js';
import { createStream } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { foundFigures } from '../../src/road/figure.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { samplesBeside } from '../../src/table/split.js';
import { column, reference } from '../reference.js';
import { sampleOf } from '../samples.js';
import { drawn as samplesDrawn } from '../thorough.js';

const named = (name: string, values: ArrayLike<number>): Sample => ({
  ...sampleOf(Float64Array.from(values)),
  name,
  unit: '',
  resolution: 1,
});
const run = (values: ArrayLike<number>, settings: object = {}) =>
  drive(inThisThread, {
    id: 'count-fit',
    request: { column: 'pinholes', replicates: 999, ...settings },
    sample: named('pinholes', values),
  });
async function fitted(values: ArrayLike<number>, settings: object = {}): Promise<CountFitResult> {
  const result = await run(values, settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as CountFitResult;
}
async function refusal(values: ArrayLike<number>, settings: object = {}): Promise<string> {
  const result = await run(values, settings);
  return isUnavailable(result) ? result.reason : 'none';
}
const drawn = (mean: number, n: number, seed: number) => {
  const values = new Float64Array(n);
  poisson.of({ mean }).sample(createStream(seed, 0), values);
  return values;
};
const finding = (result: CountFitResult) =>
  countFitAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');

describe('counts fitted', () => {
  it('have the Poisson mean and likelihood of the reference', async () => {
    const known =
      reference<Record<string, Record<string, { parameters: { mean: number }; logLikelihood: number }>>>('fits')[
        'counts-90'
      ]!.poisson!;
    const result = await fitted(column('counts-90'));
    expect(result.parameters.mean).toBeCloseTo(known.parameters.mean, 12);
    const own = result.families.find(({ family }) => family === 'poisson')!;
    expect(own.logLikelihood).toBeCloseTo(known.logLikelihood, 8);
    expect(own.aicc).toBeCloseTo(2 - 2 * known.logLikelihood + 4 / 88, 8);
    expect(result.total).toBe(194);
    expect(result.standardErrors.mean).toBeCloseTo(Math.sqrt(known.parameters.mean / 90), 6);
  });

  it('are compared by AICc, each with its own likelihood, and those that do not apply say why', async () => {
    const values = new Float64Array(200);
    negativeBinomial.of({ size: 1.5, probability: 0.3 }).sample(createStream(3, 0), values);
    const result = await fitted(values);
    expect(result.families[0]!.family).toBe('negative-binomial');
    // Its ends are the minimum and maximum of the counts: AICc would rank it too high.
    expect(result.apart.map(({ family }) => family)).toEqual(['discrete-uniform']);
    expect(result.left).toEqual([{ family: 'binomial', reason: expect.stringContaining('trials') }]);
    const { size, probability } = result.families[0]!.parameters as { size: number; probability: number };
    const law = negativeBinomial.of({ size, probability });
    const likelihood = values.reduce((sum, x) => sum + law.logDensity(x), 0);
    expect(result.families[0]!.logLikelihood).toBeCloseTo(likelihood, 8);
    expect(result.notes.find(({ code }) => code === 'better-family')!.text).toContain(
      'Another distribution may describe the counts better: by AICc, a Poisson distribution has',
    );
    expect(finding(result)).toContain(
      'The counts depart from a Poisson distribution with mean 3.32 (χ² = 132, p = 0.0010).',
    );
  });

  it('have exact intervals of a Poisson mean: 0, 5 and 100 events of Garwood’s table', () => {
    // Garwood (1936), 95 %: 0 → 0 – 3.689, 5 → 1.623 – 11.668, 100 → 81.36 – 121.63.
    const told = [0, 5, 100].map((total) => poissonInterval(total, 1, 0.95));
    expect(told[0]!.lower).toBe(0);
    expect(told[0]!.upper).toBeCloseTo(3.689, 3);
    expect(told[1]!.lower).toBeCloseTo(1.623, 3);
    expect(told[1]!.upper).toBeCloseTo(11.668, 3);
    expect(told[2]!.lower).toBeCloseTo(81.36, 2);
    expect(told[2]!.upper).toBeCloseTo(121.63, 2);
  });

  it('give the method in a sentence, with the trials if there are any', () => {
    const said = (settings: object) =>
      methodOf(
        countFitAnalysis,
        countFitAnalysis.resolve(countFitAnalysis.request.parse({ column: 'pinholes', ...settings }), named('x', [1])),
      );
    expect(said({})).toContain(
      'Compare pinholes with the Poisson distribution by the χ² test with pooled cells, at least',
    );
    expect(said({ family: 'binomial', trials: 20 })).toContain(
      'Compare pinholes with the binomial distribution of 20 trials each by the χ² test with',
    );
    expect(said({ family: 'binomial', beside: ['tiles'] })).toContain(
      'Compare pinholes out of tiles with the binomial distribution by the χ² test with pooled',
    );
  });
});

describe('pooled cells', () => {
  it('expect enough each, all of n together, whatever was counted', () => {
    for (const mean of [0.5, 2, 20, 3_000]) {
      const cumulative = cumulativeOf({ family: 'poisson', trials: null }, { mean });
      for (const [n, least] of [
        [20, 5],
        [50, 5],
        [50, 1],
        [1000, 5],
      ] as const) {
        const cells = pooledCells(cumulative, n, 0, least);
        if (cells.length === 0) continue;
        expect(cells.reduce((sum, { expected }) => sum + expected, 0)).toBeCloseTo(n, 8);
        expect(Math.min(...cells.map(({ expected }) => expected))).toBeGreaterThanOrEqual(least * (1 - 1e-9));
        cells.slice(1).forEach(({ from }, i) => expect(from).toBe(cells[i]!.to! + 1));
        expect(cells[0]!.from).toBeNull();
        expect(cells.at(-1)!.to).toBeNull();
        // None could be cut in two.
        for (const { from, to, expected } of cells.slice(1, -1))
          if (from !== to) expect(expected - n * (cumulative(to!) - cumulative(to! - 1))).toBeLessThan(least);
      }
    }
  });

  it('are none where there are too few counts for two', () => {
    const cumulative = cumulativeOf({ family: 'poisson', trials: null }, { mean: 0.05 });
    expect(pooledCells(cumulative, 20, 0, 5)).toEqual([]);
  });

  it('hold the typed counts, and give χ² as by hand', () => {
    const cells = [
      { from: null, to: 0, expected: 10 },
      { from: 1, to: 2, expected: 12 },
      { from: 3, to: null, expected: 8 },
    ];
    const observed = countsInCells(cells, Float64Array.of(...[0, 0, 0, 0, 1, 2, 2, 3, 9]));
    expect(observed).toEqual([4, 3, 2]);
    expect(chiSquareOf(cells, observed)).toBeCloseTo(36 / 10 + 81 / 12 + 36 / 8, 12);
  });

  it('for the picture are every value, or even stretches where there are many', () => {
    const cumulative = cumulativeOf({ family: 'poisson', trials: null }, { mean: 500 });
    for (const [least, greatest] of [
      [0, 9],
      [430, 580],
      [3, 3],
    ] as const) {
      const cells = shownCells(cumulative, 100, least, greatest);
      expect(cells.length).toBeLessThan(63);
      expect(cells.reduce((sum, { expected }) => sum + expected, 0)).toBeCloseTo(100, 8);
    }
    expect(
      [
        { from: null, to: 0 },
        { from: null, to: 4 },
        { from: 3, to: 3 },
        { from: 3, to: 5 },
        { from: 8, to: null },
      ].map(cellWords),
    ).toEqual([...['0', '4 or fewer', '3', '3 – 5', '8 or more']]);
  });
});

describe('tests of counts', () => {
  it('have the exact conditional p of the dispersion: all ways to deal out 6 events on 5 counts', async () => {
    const counts = [4, 1, 1, 0, 0];
    const observed = dispersionOf(Float64Array.from(counts), null);
    let [above, below, ways, zeros] = [0, 0, 0, 0];
    for (let code = 0; code < 5 ** 6; code++) {
      const dealt = new Float64Array(5);
      for (let event = 0, rest = code; event < 6; event++, rest = Math.floor(rest / 5)) dealt[rest % 5]!++;
      const d = dispersionOf(dealt, null);
      ways++;
      if (d >= observed - 1e-9) above++;
      if (d <= observed + 1e-9) below++;
      if (dealt.filter((x) => x === 0).length >= 2) zeros++;
    }
    const exact = Math.min(1, 2 * Math.min(above / ways, below / ways));
    const replicates = 40_000;
    const result = await fitted(counts, { replicates });
    const error = (p: number) => 4 * Math.sqrt((p * (1 - p)) / replicates);
    expect(Math.abs(result.dispersion!.pSimulated!.pValue - exact)).toBeLessThan(2 * error(exact / 2));
    expect(Math.abs(result.zeros.pSimulated!.pValue - zeros / ways)).toBeLessThan(error(zeros / ways));
  });

  it('deal Poisson counts out with the sum kept, one by one and by halves alike', () => {
    for (const mean of [3, 60]) {
      const n = 8;
      const draw = drawCounts({ family: 'poisson', trials: null }, { mean }, n);
      const state = createStream(5, 0);
      const counts = new Float64Array(n);
      const sums = new Float64Array(n);
      let squares = 0;
      const rounds = 4_000;
      for (let r = 0; r < rounds; r++) {
        draw(counts, state);
        expect(counts.reduce((a, b) => a + b, 0)).toBe(mean * n);
        counts.forEach((x, i) => (sums[i] = sums[i]! + x));
        squares += (counts[n - 1]! - mean) ** 2;
      }
      // Multinomial: mean T/n, variance T/n (1 − 1/n).
      const variance = mean * (1 - 1 / n);
      for (const sum of sums) expect(Math.abs(sum / rounds - mean)).toBeLessThan(4 * Math.sqrt(variance / rounds));
      expect(squares / rounds / variance).toBeCloseTo(1, 0);
    }
  });

  it.each([
    [0.5, 20],
    [2, 50],
    [20, 20],
  ])('reject Poisson counts of mean %d, n = %d, in no more than 5 of 100, and not much less', async (mean, n) => {
    const samples = 150;
    const rejected = { chiSquare: 0, dispersion: 0 };
    for (let s = 0; s < samples; s++) {
      const values = drawn(mean, n, 1_000 * n + s);
      if (values.every((x) => x === 0)) continue;
      const { chiSquare, dispersion } = await fitted(values, { replicates: 199, seed: s });
      if (chiSquare && chiSquare.pSimulated!.pValue <= 0.05) rejected.chiSquare++;
      if (dispersion!.pSimulated!.pValue <= 0.05) rejected.dispersion++;
    }
    const error = Math.sqrt((0.05 * 0.95) / samples);
    for (const count of Object.values(rejected)) expect(count / samples).toBeLessThan(0.05 + 4 * error);
    if (mean > 1)
      for (const count of Object.values(rejected)) expect(count / samples).toBeGreaterThan(0.05 - 4 * error);
  });

  it('give p by formula only where its conditions hold, and then near the simulated one', async () => {
    const few = await fitted(drawn(0.5, 20, 1));
    expect(few.dispersion!.pAsymptotic).toBeNull();
    const many = await fitted(drawn(20, 50, 2), { replicates: 4_999 });
    expect(Math.abs(many.dispersion!.pAsymptotic! - many.dispersion!.pSimulated!.pValue)).toBeLessThan(0.05);
    expect(Math.abs(many.chiSquare!.pAsymptotic! - many.chiSquare!.pSimulated!.pValue)).toBeLessThan(0.08);
  });

  it('say more zeros than there should be, and counts that vary less than chance', async () => {
    const zeros = [...new Array<number>(30).fill(0), ...drawn(4, 20, 9)];
    expect((await fitted(zeros)).notes.map(({ code }) => code)).toContain('zero-inflated');
    const even = Array.from({ length: 30 }, (_, i) => 9 + (i % 3));
    const result = await fitted(even, { test: 'dispersion' });
    expect(result.notes.map(({ code }) => code)).toContain('underdispersed');
    expect(finding(result)).toContain('D = ');
    expect(countTable(result)[0]).toEqual(['cells', 'count', 'observed', 'expected', 'difference']);
    expect(foundFigures(COUNT_FIT_FIGURES, [result]).length).toBeGreaterThan(7);
  });
});

describe('binomial counts', () => {
  const withTrials = (counts: number[], trials: (number | null)[], settings: object = {}) => {
    const tiles = named(
      'tiles',
      trials.flatMap((m) => (m === null ? [] : [m])),
    );
    const rows = Int32Array.from(trials.flatMap((m, i) => (m === null ? [] : [i + 1])));
    return drive(inThisThread, {
      id: 'count-fit',
      request: { column: 'pinholes', beside: ['tiles'], family: 'binomial', replicates: 999, ...settings },
      sample: samplesBeside([named('pinholes', counts), { ...tiles, rows }]),
    });
  };

  it('with the same trials in every row are as with trials typed', async () => {
    const counts = [3, 1, 0, 2, 4, 1, 1, 2, 0, 3, 2, 2];
    const typed = await fitted(counts, { family: 'binomial', trials: 20 });
    const rowwise = (await withTrials(
      counts,
      counts.map(() => 20),
    )) as CountFitResult;
    expect(rowwise).toEqual(typed);
    expect(typed.rate!.value).toBeCloseTo(21 / 240, 14);
    expect(typed.parameters.probability).toBeCloseTo(21 / 240, 14);
  });

  it('with individual trials are compared with the mixture, and left out without trials', async () => {
    const counts = [3, 1, 0, 2, 14, 11, 1, 2];
    const trials = [20, 20, 10, 20, 100, 100, null, 10];
    const result = (await withTrials(counts, trials)) as CountFitResult;
    expect(result.n).toBe(7);
    expect(result.trials).toEqual({ each: null, total: 280 });
    expect(result.parameters.probability).toBeCloseTo(33 / 280, 14);
    const p = 33 / 280;
    const expected = [20, 20, 10, 20, 100, 100, 10].reduce((sum, m) => sum + (1 - p) ** m, 0);
    expect(result.zeros.expected).toBeCloseTo(expected, 10);
    expect(result.notes.map(({ code }) => code)).toContain('no-trials');
    const own = [20, 20, 10, 20, 100, 100, 10].map((m) => binomial.of({ trials: m, probability: p }));
    const likelihood = own.reduce((sum, law, i) => sum + law.logDensity([3, 1, 0, 2, 14, 11, 2][i]!), 0);
    expect(result.families.find(({ family }) => family === 'binomial')!.logLikelihood).toBeCloseTo(likelihood, 8);
  });

  it('hold their level with unequal trials', async () => {
    const trials = Array.from({ length: 20 }, (_, i) => 20 + 30 * (i % 4));
    const draw = drawCounts({ family: 'binomial', trials }, { probability: 0.1 }, 20);
    const state = createStream(77, 0);
    let rejected = 0;
    const samples = samplesDrawn(40, 100);
    for (let s = 0; s < samples; s++) {
      const counts = new Float64Array(20);
      draw(counts, state);
      const result = (await withTrials(Array.from(counts), trials, { replicates: 199, seed: s })) as CountFitResult;
      if (result.dispersion!.pSimulated!.pValue <= 0.05) rejected++;
    }
    expect(Math.abs(rejected / samples - 0.05)).toBeLessThan(4 * Math.sqrt((0.05 * 0.95) / samples));
  });

  it('more than their trials, or trials that are none, are named with their row', async () => {
    const reason = async (...given: Parameters<typeof withTrials>) => {
      const result = await withTrials(...given);
      return isUnavailable(result) ? result.reason : 'none';
    };
    const five = [1, 2, 3, 1, 2];
    expect(await reason(five, [20, 20, 2, 20, 20])).toContain(
      'Row 3: pinholes is 3, more than tiles (2). Check whether the two columns are swapped.',
    );
    expect(await reason(five, [20, 20, 20.5, 20, 20])).toContain(
      'tiles is not a column of counts: row 3 is 20.5, but counts must be whole numbers. Choose',
    );
    expect(await reason(five, [20, null, null, 20, 20])).toMatch(/^The number of trials is known for only 3 counts/);
    expect(await refusal(five, { family: 'binomial' })).toContain(
      'A binomial distribution needs the number of trials of each count. Enter it in the method,',
    );
    expect(await refusal(five, { family: 'binomial', trials: 2 })).toMatch(
      /^Row 3 of pinholes holds 3, more than 2 trials/,
    );
    expect(await refusal([0, 0, 0, 0, 0], { family: 'binomial', trials: 5 })).toMatch(
      /All trials had the same outcome/,
    );
  });
});

describe('bad counts', () => {
  it('are refused in words that say where', async () => {
    expect(await refusal([0, 0, 0, 0, 0, 0, 0, 0, 0, 0])).toMatch(/^All 10 counts of pinholes are 0.*below 0\.3\.$/);
    expect(await refusal([1, 2, -1, 3, 4])).toContain(
      'pinholes is not a column of counts: row 3 is -1, but counts cannot be negative. Choose a',
    );
    expect(await refusal([1, 2, 2.5, 3, 4])).toContain(
      'pinholes is not a column of counts: row 3 is 2.5, but counts must be whole numbers.',
    );
    expect(await refusal([3, 1])).toMatch(/needs at least 5/);
    expect(await refusal([1, 2, 1, 2, 1], { family: 'negative-binomial' })).toContain(
      'The counts vary no more than Poisson counts, so the size cannot be estimated. Use the',
    );
  });

  it('that are all one value are still tested: they vary too little', async () => {
    const result = await fitted(new Array<number>(30).fill(3));
    expect(result.dispersion!.statistic).toBe(0);
    expect(result.dispersion!.pSimulated!.pValue).toBeLessThan(0.01);
  });

  it('hints are given where a measure looks like counts, and not where it does not', () => {
    expect(countHint(named('faults', [0, 1, 2, 0, 1]), 'measure')).toContain(
      'All readings of faults are whole numbers. If they are counts, use the page “Counts”. If',
    );
    expect(countHint(named('faults', [0, 1, 2, 0, 1]), 'count')).toMatch(/column of counts/);
    expect(countHint(named('force', [1691, 1425, 1496, 1366, 1400]), 'measure')).toBeNull();
    expect(countHint(named('mass', [1.5, 2, 3, 4, 5]), 'measure')).toBeNull();
  });
});
