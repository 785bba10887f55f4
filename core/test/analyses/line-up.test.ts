import { describe, expect, it } from 'vitest';
import type { LineUpResult } from '../../src/analyses/fit/line-up-result.js';
import { lineUpAnalysis } from '../../src/analyses/fit/line-up.js';
import { LINE_UP_FIGURES } from '../../src/analyses/fit/line-up-words.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { chanceOfAlike, chanceOfIndependent, PLACES, placeOfSubject } from '../../src/probability-plot/line-up.js';
import { drawnRanks, packCell, sheetCell, unpackCell, type PlotCell } from '../../src/probability-plot/sheet-cell.js';
import { normal } from '../../src/distributions/families/normal.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { foundFigures } from '../../src/road/figure.js';
import { drive } from '../../src/road/runner.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';
import { drawn as samplesDrawn } from '../thorough.js';

const run = (values: Float64Array, settings: object = {}) =>
  drive(inThisThread, { id: 'line-up', request: { column: 'thickness', ...settings }, sample: sampleOf(values) });
async function lineUp(values: Float64Array, settings: object = {}): Promise<LineUpResult> {
  const result = await run(values, settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as LineUpResult;
}
const finding = (result: LineUpResult) =>
  lineUpAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');
function normals(n: number, seed: number): Float64Array {
  const values = new Float64Array(n);
  fillNormals(createStream(seed, 0), values);
  return values;
}
/** A seed whose sheet has the readings at a place. */
const seedFor = (place: number, from = 0) => {
  for (let seed = from; ; seed++) if (placeOfSubject(seed) + 1 === place) return seed;
};

describe('a line-up', () => {
  it('does not reveal the readings before a pick, and all cells have the same size', async () => {
    const result = await lineUp(column('normal-40'), { seed: 7 });
    expect(result.place).toBeNull();
    expect(result.viewers).toEqual([]);
    expect(result.pValue).toBeNull();
    expect(result.cells).toHaveLength(PLACES);
    const sizes = new Set(result.cells!.map((cell) => (cell as PlotCell).readings.length));
    expect([...sizes]).toEqual([40]);
    expect(finding(result)).toContain('Which one differs from the others?');
    // What the readings were is not told by their unit either: mean 0 and sd 1 for all.
    for (const cell of result.cells as PlotCell[]) {
      const mean = cell.readings.reduce((a, b) => a + b, 0) / 40;
      expect(Math.abs(mean)).toBeLessThan(1e-3);
    }
  });

  it('hides the readings at the place of the seed, and gives the key apart', async () => {
    const values = column('normal-40');
    const { cells, place } = await lineUp(values, { seed: 7, pick: 1 });
    const sorted = values.slice().sort();
    const mean = sorted.reduce((a, b) => a + b, 0) / 40;
    const sd = Math.sqrt(sorted.reduce((a, x) => a + (x - mean) ** 2, 0) / 39);
    const own = (cells as PlotCell[])[place! - 1]!;
    sorted.forEach((x, i) => expect(Math.abs(own.readings[i]! - (x - mean) / sd)).toBeLessThan(6e-5));
    const key = await lineUp(values, { seed: 7, part: 'key' });
    expect(key).toMatchObject({ place, cells: null });
    expect(finding(key)).toContain(`position ${place}`);
  });

  it('puts every place alike: 20 000 seeds by χ² with 19 degrees of freedom', () => {
    const counts = new Array<number>(PLACES).fill(0);
    for (let seed = 0; seed < 20_000; seed++) counts[placeOfSubject(seed)]!++;
    const chi2 = counts.reduce((sum, count) => sum + (count - 1000) ** 2 / 1000, 0);
    // The 0.9999 quantile.
    expect(chi2).toBeLessThan(50.8);
  });

  it('is right 1 time in 20 among normal samples, for who picks at random and for who picks the crookedest', async () => {
    const samples = samplesDrawn(400, 2_000);
    let [byChance, byEye] = [0, 0];
    for (let s = 0; s < samples; s++) {
      const { cells, place } = await lineUp(normals(12, s), { seed: s + 50_000, pick: 1 });
      if (place === 1) byChance++;
      const crooked = (cells as PlotCell[]).map(({ readings, scores }) =>
        readings.reduce((sum, x, i) => sum + (x - scores[i]!) ** 2, 0),
      );
      if (crooked.indexOf(Math.max(...crooked)) + 1 === place) byEye++;
    }
    const error = Math.sqrt((0.05 * 0.95) / samples);
    expect(Math.abs(byChance / samples - 0.05)).toBeLessThan(4 * error);
    expect(Math.abs(byEye / samples - 0.05)).toBeLessThan(4 * error);
  });

  it('finds a lopsided sample by the same eye nearly always', async () => {
    let found = 0;
    for (let s = 0; s < 50; s++) {
      const values = normals(48, s).map((z) => Math.exp(z));
      const { cells, place } = await lineUp(values, { seed: s, pick: 1 });
      const crooked = (cells as PlotCell[]).map(({ readings, scores }) =>
        readings.reduce((sum, x, i) => sum + (x - scores[i]!) ** 2, 0),
      );
      if (crooked.indexOf(Math.max(...crooked)) + 1 === place) found++;
    }
    expect(found).toBeGreaterThan(45);
  });

  it('gives p = 1/20 for one correct pick, which is not below 0.05', async () => {
    const result = await lineUp(column('normal-40'), { seed: seedFor(3), pick: 3 });
    expect(result).toMatchObject({ right: 1, counted: 1, pValue: 0.05, pMethod: 'exact', place: 3 });
    expect(finding(result)).toContain('picked out');
    expect(finding(result)).toContain(
      'The readings were picked out from 19 samples of a normal distribution at position 3 (p =',
    );
    expect(finding(result)).toContain(
      'The readings were picked out from 19 samples of a normal distribution at position 3 (p =',
    );
    const wrong = await lineUp(column('normal-40'), { seed: seedFor(3), pick: 4 });
    expect(wrong).toMatchObject({ right: 0, pValue: 1 });
    expect(finding(wrong)).toContain(
      'The readings were not distinguished from 19 samples of a normal distribution: they were',
    );
  });

  it('combines viewers, those who had seen the plot only if there are no others', async () => {
    const [a, b, c] = [seedFor(3), seedFor(5, 100), seedFor(9, 200)];
    const before = [
      { seed: a, pick: 3, seen: false },
      { seed: b, pick: 5, seen: true },
    ];
    const result = await lineUp(column('normal-40'), { before, seed: c, pick: 9 });
    expect(result).toMatchObject({ counted: 2, right: 2 });
    expect(result.pValue).toBeCloseTo(1 / 39, 14);
    expect(result.pIndependent).toBeCloseTo(1 / 400, 14);
    expect(result.notes.map(({ code }) => code)).toEqual(expect.arrayContaining(['seen', 'alike']));
    expect(finding(result)).toContain('by 2 of 2 viewers');
    expect(foundFigures(LINE_UP_FIGURES, [result]).map(({ texts }) => texts[0])).toEqual(['2', '2', '0.026', '0.0025']);
    const alone = await lineUp(column('normal-40'), { seed: c, pick: 9, seen: true });
    expect(alone).toMatchObject({ counted: 1, right: 1 });
    expect(alone.notes[0]!.text).toContain(
      'The viewer had seen a plot of these readings before: the pick is weaker evidence.',
    );
  });

  it('refuses a sheet that two viewers share, and a place that there is not', async () => {
    const before = [{ seed: 7, pick: 3 }];
    await expect(run(column('normal-40'), { seed: 7, pick: 2, before })).rejects.toThrow(/one seed occurs twice/);
    await expect(run(column('normal-40'), { pick: 21 })).rejects.toThrow(/1 to 20/);
  });

  it('works for any family, as plot or as histogram', async () => {
    const values = column('weibull-80');
    for (const family of ['weibull', 'gamma', 'exponential', 'laplace']) {
      for (const as of ['plot', 'histogram']) {
        const { cells, law } = await lineUp(values, { family, as });
        expect(law.family).toBe(family);
        expect(cells!.every(({ kind }) => kind === as)).toBe(true);
      }
    }
    const claimed = await lineUp(values, { family: 'exponential', parameters: { scale: 100 } });
    expect(claimed.law.estimated).toEqual([]);
  });

  it('is refused in words where there is too little to see', async () => {
    for (const values of [Float64Array.of(1, 2, 3, 4), Float64Array.of(5, 5, 5, 5, 5, 5)]) {
      const result = await run(values);
      expect(isUnavailable(result)).toBe(true);
    }
  });
});

describe('chances of right picks', () => {
  it('are binomial where viewers are independent', () => {
    const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n - 1, k - 1) * n) / k);
    for (const [viewers, right] of [
      [1, 1],
      [3, 2],
      [5, 1],
      [10, 4],
    ] as const) {
      let sum = 0;
      for (let j = right; j <= viewers; j++) sum += choose(viewers, j) * 0.05 ** j * 0.95 ** (viewers - j);
      expect(chanceOfIndependent(viewers, right)).toBeCloseTo(sum, 13);
    }
    expect(chanceOfIndependent(4, 0)).toBe(1);
  });

  it('are those of the oddest of all samples where viewers judge alike', () => {
    // All K right: the readings are the oddest of 19 K + 1 samples.
    for (const viewers of [1, 2, 3, 8]) expect(chanceOfAlike(viewers, viewers)).toBe(1 / (19 * viewers + 1));
    expect(chanceOfAlike(6, 0)).toBeCloseTo(1, 12);
    // By summing over how odd the readings are.
    const steps = 400_000;
    let two = 0;
    for (let k = 0; k < steps; k++) {
      const right = ((k + 0.5) / steps) ** 19;
      two += (3 * right ** 2 * (1 - right) + right ** 3) / steps;
    }
    expect(chanceOfAlike(3, 2)).toBeCloseTo(two, 8);
    expect(chanceOfAlike(3, 2)).toBeGreaterThan(chanceOfIndependent(3, 2));
  });
});

describe('a cell of a sheet', () => {
  it('keeps the ends of many readings and never more marks than can be distinguished', () => {
    expect(drawnRanks(5)).toEqual([0, 1, 2, 3, 4]);
    for (const n of [241, 1_000, 10_000]) {
      const ranks = drawnRanks(n);
      expect(ranks).toHaveLength(240);
      expect(new Set(ranks).size).toBe(240);
      expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
      expect(ranks.slice(0, 30)).toEqual(Array.from({ length: 30 }, (_, i) => i));
      expect(ranks.at(-1)).toBe(n - 1);
    }
  });

  it('comes back from numbers as it was', () => {
    const sorted = normals(300, 3).sort();
    const law = normal.of({ mean: 0, sd: 1 });
    for (const kind of ['plot', 'histogram'] as const) {
      const cell = sheetCell(kind, sorted, law, null);
      expect(unpackCell(packCell(cell))).toEqual(cell);
    }
  });

  it('as a histogram has bars of area 1 in units of sd, whatever the unit', () => {
    const sorted = normals(300, 3)
      .map((z) => 5000 + 250 * z)
      .sort();
    const cell = sheetCell('histogram', sorted, normal.of({ mean: 5000, sd: 250 }), null);
    if (cell.kind !== 'histogram') throw new Error('no histogram');
    const area = cell.heights.reduce((sum, h, i) => sum + h * (cell.edges[i + 1]! - cell.edges[i]!), 0);
    expect(area).toBeCloseTo(1, 2);
    expect(Math.max(...cell.curve.y)).toBeCloseTo(0.4, 1);
  });
});
