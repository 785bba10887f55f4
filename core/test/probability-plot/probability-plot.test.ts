import { describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import { drive } from '../../src/road/runner.js';
import { plotPicture, plotTable } from '../../src/analyses/fit/plot-picture.js';
import { probabilityPlotAnalysis, type ProbabilityPlotResult } from '../../src/analyses/fit/probability-plot.js';
import { normalQuantile } from '../../src/numeric/standard-normal.js';
import { betaLower } from '../../src/numeric/beta-tails.js';
import { percentTicks } from '../../src/probability-plot/percent-axis.js';
import { plottingPositions, POSITION_RULES } from '../../src/probability-plot/positions.js';
import {
  bandRanks,
  calibrateBand,
  outsideBand,
  simulateOrderedScores,
} from '../../src/probability-plot/whole-plot-band.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';

const plot = async (values: Float64Array, settings: object = {}) =>
  (await drive(inThisThread, {
    id: 'probability-plot',
    request: { column: 'thickness', ...settings },
    sample: sampleOf(values),
  })) as ProbabilityPlotResult;

describe('plotting positions', () => {
  it.each(POSITION_RULES)('%s rise inside (0, 1) and are symmetric', (rule) => {
    for (const n of [3, 4, 48]) {
      const p = plottingPositions(n, rule);
      for (let i = 0; i < n; i++) {
        expect(p[i]! > (p[i - 1] ?? 0) && p[i]! < 1).toBe(true);
        expect(p[i]! + p[n - 1 - i]!).toBeCloseTo(1, 14);
      }
    }
  });

  it('are (i − ½)/n at midpoints and i/(n + 1) after Weibull', () => {
    expect(plottingPositions(4, 'midpoint')).toEqual(Float64Array.of(0.125, 0.375, 0.625, 0.875));
    expect(plottingPositions(4, 'weibull')[0]).toBeCloseTo(0.2, 15);
  });

  it('split the chance of the i-th least reading in half at median ranks', () => {
    const p = plottingPositions(10, 'median-rank');
    for (let i = 1; i <= 10; i++) expect(betaLower(i, 11 - i, p[i - 1]!, 1 - p[i - 1]!)).toBeCloseTo(0.5, 10);
    // The first has a closed form: 1 − 2^(−1/n).
    expect(p[0]).toBeCloseTo(1 - 0.5 ** 0.1, 12);
  });
});

describe('whole-plot band', () => {
  it('holds wholly the share of new normal samples that it promises', () => {
    const n = 20;
    const ranks = bandRanks(n);
    const band = calibrateBand(
      [simulateOrderedScores({ n, ranks, rounding: null }, createStream(1, 0), 8000)],
      ranks,
      0.9,
    );
    const fresh = simulateOrderedScores({ n, ranks, rounding: null }, createStream(2, 0), 8000);
    let inside = 0;
    for (let r = 0; r < 8000; r++) {
      if (ranks.every((_, j) => fresh[r * n + j]! >= band.lower[j]! && fresh[r * n + j]! <= band.upper[j]!)) inside++;
    }
    expect(Math.abs(inside / 8000 - 0.9)).toBeLessThan(0.016);
    expect(band.coverage).toBeGreaterThanOrEqual(0.9);
  });

  it('leaves each rank out about equally often', () => {
    const n = 15;
    const ranks = bandRanks(n);
    const band = calibrateBand(
      [simulateOrderedScores({ n, ranks, rounding: null }, createStream(3, 0), 8000)],
      ranks,
      0.95,
    );
    const fresh = simulateOrderedScores({ n, ranks, rounding: null }, createStream(4, 0), 20_000);
    const out = ranks.map((_, j) => {
      let count = 0;
      for (let r = 0; r < 20_000; r++) {
        const z = fresh[r * n + j]!;
        if (z < band.lower[j]! || z > band.upper[j]!) count++;
      }
      return count / 20_000;
    });
    const mean = out.reduce((a, b) => a + b) / n;
    for (const share of out) expect(Math.abs(share - mean)).toBeLessThan(0.5 * mean + 0.001);
  });

  it('takes all ranks of a short column and the whole tails of a long one', () => {
    expect(bandRanks(48)).toHaveLength(48);
    const ranks = bandRanks(100_000);
    expect(ranks.length).toBeLessThan(260);
    expect(ranks.slice(0, 40)).toEqual(Array.from({ length: 40 }, (_, i) => i));
    expect(ranks.at(-1)).toBe(99_999);
    expect(ranks.map((r) => 99_999 - r).reverse()).toEqual(ranks);
  });

  it('finds every reading outside, also between the ranks at which a long column is calibrated', () => {
    const scores = [-2, -1, -0.5, 0, 0.5, 1, 2];
    const band = { ranks: [0, 3, 6], lower: [-3, -0.5, 1], upper: [-1, 0.5, 3] };
    // Half way between ranks 0 and 3 in score (−1) the limits are half way too: −1.75 and −0.25.
    const inside = [-2, -1.74, -1.1, 0, 0.6, 1.7, 2];
    expect(outsideBand(inside, scores, band, 1)).toEqual([]);
    expect(outsideBand([-2, -1.76, -1.1, 0, 0.6, 1.76, 3.1], scores, band, 1)).toEqual([1, 5, 6]);
  });

  it('counts all readings outside a long bent column and names the first twenty rows', async () => {
    const bent = Float64Array.from({ length: 3000 }, (_, i) => Math.sin(i * 12.9898) * 0.3);
    const { band } = await plot(bent, { replicates: 999 });
    expect(band!.outside).toHaveLength(20);
    expect(band!.outsideCount).toBeGreaterThan(1500);
  });

  it('holds at most four million numbers, and says where that is fewer replicates than could be asked', async () => {
    const sample = sampleOf(Float64Array.from({ length: 200 }, (_, i) => Math.sin(i)));
    const resolved = probabilityPlotAnalysis.resolve(
      probabilityPlotAnalysis.request.parse({ column: 'x', replicates: 1_000_000 }),
      sample,
    );
    expect(resolved.replicates! * bandRanks(200).length).toBe(4_000_000);
    const many = await plot(sample.values, { replicates: 1_000_000 });
    expect(many.band!.simulated!.replicates).toBe(20_000);
    expect(many.notes.map(({ text }) => text).join()).toContain('of 200 readings at most 20\u202f000 are run');
    const few = await plot(sample.values, { replicates: 999 });
    expect(few.notes.map(({ code }) => code)).not.toContain('most-replicates');
  });

  it('says when there are too few replicates for its confidence', async () => {
    const result = await plot(column('flat-100'), { replicates: 199, confidence: 0.999 });
    expect(result.notes.map((n) => n.code)).toContain('few-replicates');
  });
});

describe('analysis probability-plot', () => {
  it('keeps every reading with its row, its own rank and score', async () => {
    const values = Float64Array.of(8.2, 7.9, 8.2, 8);
    const result = await plot(values, { band: 'none' });
    expect([...result.rows]).toEqual([2, 4, 1, 3]);
    expect([...result.readings]).toEqual([7.9, 8, 8.2, 8.2]);
    expect([...result.positions]).toEqual([0.125, 0.375, 0.625, 0.875]);
    expect(result.scores[0]).toBeCloseTo(-1.1503493803760079, 13);
    expect(result.band).toBeNull();
  });

  it('names the far reading outside the band and none for a normal column', async () => {
    const far = column('one-far-25');
    const farRow = far.indexOf(Math.max(...far)) + 1;
    const lowRow = far.indexOf(Math.min(...far)) + 1;
    const result = await plot(far);
    expect([farRow, lowRow].some((row) => result.band!.outside.includes(row))).toBe(true);
    expect((await plot(column('normal-1000'))).band!.outside).toEqual([]);
  });

  it('is a straight line of correlation 1 for normal scores themselves', async () => {
    const scores = (await plot(column('normal-40'), { band: 'none' })).scores;
    expect((await plot(Float64Array.from(scores), { band: 'none' })).correlation).toBeCloseTo(1, 12);
  });

  it('says why two readings cannot be plotted', async () => {
    const result = (await plot(Float64Array.of(1, 2))) as unknown as { available: boolean; reason: string };
    expect(result).toMatchObject({ available: false });
    expect(result.reason).toContain('has 2 readings; a probability plot needs at least 3');
  });
});

describe('the picture of a probability plot', () => {
  const far = Float64Array.from([7.8, 7.92, 7.94, 7.97, 9.9, 8.1, 7.96, 8.17, 8, 7.95, 8.16, 8.07]);

  it('holds all readings, the line through mean and sd, and the band once around', async () => {
    const result = await plot(far, { replicates: 499 });
    const { across, up, line, band, outside } = plotPicture(result);
    const { mean, sd } = result.law.parameters;
    expect(across.min).toBeLessThan(7.8);
    expect(across.max).toBeGreaterThan(9.9);
    expect(up.max).toBeGreaterThan(Math.max(...result.scores));
    line.up.forEach((score, i) => expect(line.across[i]).toBeCloseTo(mean! + sd! * score, 12));
    expect(band!.across).toHaveLength(24);
    expect([band!.across[0], band!.across.at(-1)]).toEqual([result.band!.lower[0], result.band!.upper[0]]);
    expect([...outside].map((i) => result.rows[i]!)).toEqual(result.band!.outside);
    expect(result.band!.outside).toContain(5);
    const bare = plotPicture(await plot(far, { band: 'none' }));
    expect([bare.band, bare.outside.size]).toEqual([null, 0]);
  });

  it('ticks in percent are at their normal scores and do not overlap', () => {
    for (const reach of [1.2, 2.6, 4.8]) {
      const ticks = percentTicks({ min: -reach, max: reach }, normalQuantile);
      expect(ticks.find(({ percent }) => percent === 50)!.score).toBe(0);
      for (let i = 1; i < ticks.length; i++) expect(ticks[i]!.score - ticks[i - 1]!.score).toBeGreaterThan(reach / 20);
    }
    const two = percentTicks({ min: -3, max: 3 }, normalQuantile).find(({ percent }) => percent === 2)!;
    expect(two.score).toBeCloseTo(-2.053749, 6);
  });

  it('has a table whose differences are from the line', async () => {
    const result = await plot(far, { band: 'none' });
    const [head, ...lines] = plotTable(result);
    expect(head).toEqual(['i', 'row', 'reading', 'p', 'score', 'expected', 'observed − expected']);
    for (const [, , reading, , score, expected, difference] of lines as number[][]) {
      expect(expected).toBeCloseTo(result.law.parameters.mean! + result.law.parameters.sd! * score!, 12);
      expect(difference).toBeCloseTo(reading! - expected!, 12);
    }
    expect(lines.map((line) => line[1])).toEqual([...result.rows]);
  });
});

describe('the band over coarse steps', () => {
  it('is left by few clean samples whose steps are one SD', async () => {
    let left = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const values = new Float64Array(20);
      fillNormals(createStream(seed, 5), values);
      for (let i = 0; i < 20; i++) values[i] = Math.round(10.3 + values[i]!);
      const sample = { ...sampleOf(values), resolution: 1 };
      const request = { column: sample.name, replicates: 400 };
      const plot = (await drive(inThisThread, { id: 'probability-plot', request, sample })) as ProbabilityPlotResult;
      if (plot.band!.outsideCount > 0) left++;
    }
    // 5 % would be two of forty; without rounded samples nearly all leave it.
    expect(left).toBeLessThan(7);
  });
});
