import { inThisThread } from '@verdict/core/analyses';
import type {
  CurvesResult,
  OneSampleResult,
  PlanResult,
  PropagateResult,
  PopulationResult,
  SimulateResult,
} from '@verdict/core/analyses';
import { NO_READINGS } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { describe, expect, it } from 'vitest';
import { drawMarks } from '../src/charts/draw-marks.js';
import type { Mark } from '../src/charts/marks.js';
import type { Panels } from '../src/charts/picture.js';
import { propagatePanels } from '../src/charts/pictures/propagate.js';
import { populationPanels, simulatePanels } from '../src/charts/pictures/simulate.js';
import { curvesPanels, planPanels } from '../src/charts/pictures/simulated-power.js';

const run = async <R>(id: string, request: object) =>
  (await drive(inThisThread, { id, request, sample: NO_READINGS })) as R;
const marksOf = <K extends Mark['kind']>(panels: Panels | null, kind: K) =>
  panels!.panels.flatMap(({ marks }) => marks.filter((mark): mark is Extract<Mark, { kind: K }> => mark.kind === kind));
const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);

describe('the picture of p', () => {
  it('shades just those below the level, with the line of a p that is uniform', async () => {
    const result = await run<SimulateResult>('simulate', { test: 't', shiftInSd: 0.3, replicates: 2_000 });
    const picture = simulatePanels(result, null);
    const [above, below] = marksOf(picture, 'bars');
    expect(sum(below!.heights)).toBe(result.belowAlpha!.count);
    expect(sum(above!.heights) + sum(below!.heights)).toBe(2_000);
    expect(marksOf(picture, 'line')[0]).toMatchObject({ x: [0, 1], y: [100, 100] });
    expect(marksOf(picture, 'rule').map(({ at }) => at)).toEqual([0.05]);
    expect(picture!.x).toMatchObject({ from: -0.02, to: 1.02 });
    expect(picture!.hits[0]).toMatchObject({ bar: result.distribution.examples[0] });
  });

  it('is made of dots while they are few, the chosen one filled', async () => {
    const result = await run<SimulateResult>('simulate', { test: 't', replicates: 30 });
    const picture = simulatePanels(result, { number: 4, value: result.dots[3]! });
    const points = marksOf(picture, 'points');
    expect(points[0]!.x.length + points[1]!.x.length).toBe(30);
    expect(points[2]!.x).toHaveLength(1);
    expect(marksOf(picture, 'rule').at(-1)).toMatchObject({ at: result.dots[3], words: 'sample 4' });
    expect(marksOf(picture, 'line')).toEqual([]);
    expect(simulatePanels({ ...result, replicates: 0 }, null)).toBeNull();
  });
});

describe('the picture of a figure', () => {
  it('has the theoretical distribution over the bars, and the true value', async () => {
    const result = await run<SimulateResult>('simulate', { n: 4, parameters: [8, 0.1], replicates: 5_000 });
    const picture = simulatePanels(result, null);
    const [law] = marksOf(picture, 'line');
    expect(law!.y).toEqual(result.theory!.expected);
    expect(marksOf(picture, 'rule')[0]).toMatchObject({ at: 8, words: 'true 8.0000' });
    expect(picture!.legend!.map(({ words }) => words)).toEqual(['samples', 'expected: normal with σ/√n']);
  });

  it('of counts has the distribution as marks at its values', async () => {
    const result = await run<SimulateResult>('simulate', { statistic: 'share', upper: 1, n: 6, replicates: 5_000 });
    const picture = simulatePanels(result, null);
    expect(result.distribution.values!.length).toBeLessThanOrEqual(7);
    const [law] = marksOf(picture, 'points');
    expect(law).toMatchObject({ marker: 'diamond', x: result.distribution.values });
    // All but what no sample came to.
    expect(sum(law!.y)).toBeGreaterThan(4_950);
    expect(sum(law!.y)).toBeLessThanOrEqual(5_000 + 1e-6);
  });
});

describe('the picture of intervals', () => {
  it('has a hundred lines, those that miss in another colour, none of them beyond the picture', async () => {
    const result = await run<SimulateResult>('simulate', { interval: 'mean', n: 3, replicates: 400 });
    const picture = simulatePanels(result, { number: 2, value: null })!;
    const lines = marksOf(picture, 'line');
    expect(lines).toHaveLength(100);
    const misses = result.firsts.filter(({ covers }, i) => !covers && i !== 1).length;
    expect(lines.filter(({ tone }) => tone === 'ochre')).toHaveLength(misses);
    expect(lines[1]).toMatchObject({ tone: 'green' });
    for (const { x } of lines) {
      expect(Math.min(...x)).toBeGreaterThanOrEqual(picture.x.from - 1e-9);
      expect(Math.max(...x)).toBeLessThanOrEqual(picture.x.to + 1e-9);
    }
    expect(picture.hits[0]!.words).toMatch(/^sample 1: .+ to .+, (covers|misses) 0/);
    expect(picture.y.title).toBe('the first 100 samples');
  });
});

describe('the picture of a population', () => {
  it('hfrom the readings of a sample below it, those that are different in another colour', async () => {
    const asked = { mixedShare: 0.4, mixture: 'moved', mixedBy: 6, n: 12 };
    const population = await run<PopulationResult>('population', { mixedShare: 0.4, mixture: 'moved', mixedBy: 6 });
    const sample = await run<OneSampleResult>('simulated-sample', { ...asked, number: 3 });
    const picture = populationPanels(population, sample);
    const [alike, odd] = marksOf(picture, 'points');
    expect(alike!.x.length + odd!.x.length).toBe(12);
    expect(odd!.x.length).toBe(sample.groups[0]!.strange.filter(Boolean).length);
    expect([...alike!.y, ...odd!.y].every((y) => y < 0)).toBe(true);
    expect(picture.hits).toHaveLength(12);
    expect(marksOf(populationPanels(population, null), 'points')).toEqual([]);
    const law = await run<PopulationResult>('population', { family: 'poisson' });
    expect(marksOf(populationPanels(law, null), 'columns')).toHaveLength(1);
  });
});

describe('the pictures of power', () => {
  it('have one line and band a test, what is read off, and an axis that fits errors', async () => {
    const result = await run<CurvesResult>('power-curves', { tests: ['t', 'sign'], shiftInSd: 0.6, replicates: 500 });
    const picture = curvesPanels(result)!;
    expect(marksOf(picture, 'area')).toHaveLength(2);
    expect(marksOf(picture, 'points').map(({ x }) => x.length)).toEqual([7, 7]);
    expect(picture.legend!.map(({ words }) => words)[0]).toMatch(/^t test of the mean, 80.% at n = \d+$/);
    expect(picture.y.to).toBeCloseTo(1.02, 12);
    const errors = await run<CurvesResult>('power-curves', { family: 'exponential', replicates: 500, values: [5, 40] });
    expect(curvesPanels(errors)!.y.to).toBeLessThan(0.5);
    expect(curvesPanels(errors)!.y.title).toContain('false-alarm rate, %');
    expect(curvesPanels({ ...errors, curves: [] })).toBeNull();
  });

  it('of a plan mark the reported size, from near the least power that was simulated', async () => {
    const result = await run<PlanResult>('plan', { test: 't', shiftInSd: 0.5 });
    const picture = planPanels(result)!;
    expect(marksOf(picture, 'rule').find(({ across }) => across === 'x')).toMatchObject({ at: Math.sqrt(34) });
    expect(picture.y.from).toBeLessThan(Math.min(...result.tried.map(({ power }) => power)));
    expect(planPanels({ ...result, tried: [] })).toBeNull();
  });
});

describe('the picture of a formula', () => {
  it('has every interval over the trials, the first order as a curve, limits at their place', async () => {
    const inputs = {
      a: { family: 'lognormal', parameters: [1, 0.1] },
      b: { family: 'lognormal', parameters: [0.3, 0.2] },
    };
    const result = await run<PropagateResult>('propagate', { inputs, formula: 'a / b', trials: 50_000, upper: 3.2 });
    const picture = propagatePanels(result)!;
    const [bars] = marksOf(picture, 'bars');
    expect(sum(bars!.heights) + result.distribution.below + result.distribution.above).toBe(50_000);
    const rows = picture.y.ticks!.filter(({ words }) => /[a-z%]/.test(words)).map(({ words }) => words);
    expect(rows).toEqual(['95 %', 'shortest interval', 'first order']);
    const [curve, told] = marksOf(picture, 'line');
    expect(curve).toMatchObject({ tone: 'ochre' });
    // As much lies under the curve as in the bars.
    const area = curve!.y.slice(1).reduce((all, y, i) => all + y * (curve!.x[i + 1]! - curve!.x[i]!), 0);
    expect(area / (50_000 * result.frame!.width)).toBeCloseTo(1, 2);
    expect(told!.x).toEqual([result.interval!.lower, result.interval!.upper]);
    expect(marksOf(picture, 'rule').map(({ at }) => at)).toEqual([result.mean, 3.2]);
    expect(picture.hits[0]!.words).toMatch(/^95 %: 1\.30 to 3\.1\d$/);
  });

  it('of what has no mean shows the trials alone', async () => {
    const result = await run<PropagateResult>('propagate', {
      inputs: { a: { family: 'cauchy' } },
      formula: 'a',
      trials: 5_000,
    });
    const picture = propagatePanels(result)!;
    expect(marksOf(picture, 'rule')).toEqual([]);
    expect(picture.legend).toHaveLength(1);
    expect(propagatePanels({ ...result, trials: 0 })).toBeNull();
  });
});

describe('narrow columns', () => {
  it('are filled, since they have no room for an outline', () => {
    const filled: string[] = [];
    const context = {
      ...{ lineWidth: 1, globalAlpha: 1, strokeStyle: '', fillStyle: '' },
      save() {},
      restore() {},
      beginPath() {},
      rect() {},
      clip() {},
      fillRect(this: { fillStyle: string }) {
        filled.push(this.fillStyle);
      },
      strokeRect() {},
    };
    const ground = {
      ...{ context, colours: { soft: 'soft', card: 'card', ochre: 'ochre', series: [] } },
      ...{ left: 0, right: 100, top: 0, bottom: 100, taken: [] },
      x: (value: number) => value,
      y: (value: number) => 100 - value,
    };
    const columns = (step: number): Mark => ({
      ...{ kind: 'columns', x: [1, 2], y: [3, 4], filled: [false, true], tone: 'ochre', step },
    });
    drawMarks(ground as never, [columns(2), columns(40)]);
    expect(filled).toEqual(['soft', 'ochre', 'card', 'ochre']);
  });
});
