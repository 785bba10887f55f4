import { inThisThread } from '@verdict/core/analyses';
import type { BootstrapResult, PermutationResult, PlansResult, ReplicateResult } from '@verdict/core/analyses';
import { toSample, type Sample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { samplesBeside } from '@verdict/core/table';
import { describe, expect, it } from 'vitest';
import type { Mark } from '../src/charts/marks.js';
import { bootstrapPanels, permutationPanels, plansPanels, replicatePanels } from '../src/charts/pictures/resample.js';

const FORMAT = { unit: 'mm', resolution: 0.01, decimal: 'point', thousands: 'none' } as const;
const sampleOf = (name: string, cells: string[]): Sample => toSample({ ...FORMAT, name }, cells, new Set());
const north = sampleOf('north', ['8.02', '7.94', '8.11', '8.05', '7.97', '8.09', '8.01', '8.00']);
const south = sampleOf('south', ['8.19', '8.17', '8.22', '8.08', '8.31', '8.20', '8.12', '8.04']);
const all = samplesBeside([north, south]);
const two: Sample = { ...all, name: 'thickness', groups: { ...all.groups!, by: 'kiln' } };
const run = async <R>(id: string, request: object, sample: Sample) =>
  (await drive(inThisThread, { id, request: { column: 'thickness', ...request }, sample })) as R;
const MEANS = { statistic: 'difference-of-means', split: 'kiln' };
const marksOf = <K extends Mark['kind']>(panels: { panels: readonly { marks: readonly Mark[] }[] } | null, kind: K) =>
  panels!.panels.flatMap(({ marks }) => marks.filter((mark): mark is Extract<Mark, { kind: K }> => mark.kind === kind));

describe('the picture of a permutation', () => {
  it('shades just those that count into p, with the readings and what lies as far', async () => {
    const result = await run<PermutationResult>('permutation', MEANS, two);
    const picture = permutationPanels(result, null);
    const rules = marksOf(picture, 'rule');
    expect(rules.map(({ at }) => at)).toEqual([result.observed, -result.observed]);
    const [columns] = marksOf(picture, 'columns');
    const bars = marksOf(picture, 'bars')[1];
    const shaded = columns
      ? columns.y.reduce((sum, y, i) => sum + (columns.filled[i] ? y : 0), 0)
      : bars!.heights.reduce((a, b) => a + b, 0);
    expect(shaded).toBe(result.exact!.atLeastAsFar);
    expect(picture!.legend![0]!.words).toContain(`${result.exact!.atLeastAsFar} of`);
  });

  it('is made of dots while they are few, each the replicate of its number; the axis does not move', async () => {
    const drawn = (replicates: number) =>
      run<PermutationResult>('permutation', { ...MEANS, way: 'drawn', replicates }, two);
    const [one, many] = [await drawn(1), await drawn(150)];
    const picture = permutationPanels(many, { number: 7, statistic: many.dots[6]! });
    expect(picture!.hits.map(({ bar }) => bar)).toEqual(Array.from({ length: 150 }, (_, i) => i + 1));
    const points = marksOf(picture, 'points');
    expect(points[0]!.x.length + points[1]!.x.length).toBe(150);
    expect(points[2]!.x).toHaveLength(1);
    const single = permutationPanels(one, null)!;
    expect(single.x.from).toBeGreaterThanOrEqual(picture!.x.from);
    expect(single.x.to - single.x.from).toBeGreaterThan(0.8 * (picture!.x.to - picture!.x.from));
  });

  it('nothing is drawn before a replicate is known', async () => {
    const result = await run<PermutationResult>('permutation', MEANS, two);
    expect(permutationPanels({ ...result, frame: null }, null)).toBeNull();
  });
});

describe('the picture of a bootstrap', () => {
  it('has every interval above the replicates, the reported one green, and the formula’s', async () => {
    const result = await run<BootstrapResult>('bootstrap', {}, north);
    const picture = bootstrapPanels(result, null)!;
    const lines = marksOf(picture, 'line').filter(({ y }) => y[0] === y[1]);
    const known = Object.values(result.intervals).filter(Boolean).length;
    expect(lines).toHaveLength(known + 1);
    expect(lines.filter(({ tone }) => tone === 'green').map(({ x }) => [...x])).toEqual([
      [result.intervals.studentised!.lower, result.intervals.studentised!.upper],
    ]);
    expect(picture.y.ticks!.map(({ words }) => words)).toEqual(expect.arrayContaining(['BCa', 'basic', 't']));
    // Beside a replicate there is room for one of them, and the formula's.
    const short = bootstrapPanels(result, { number: 3, statistic: 8 })!;
    expect(marksOf(short, 'line').filter(({ y }) => y[0] === y[1])).toHaveLength(2);
    expect(marksOf(short, 'rule').at(-1)!.words).toBe('number 3');
  });
});

describe('one replicate', () => {
  it('stands below the readings it was drawn from, by group or in pairs', async () => {
    const asked = { ...MEANS, by: 'shuffling', number: 3 };
    const result = await run<ReplicateResult>('replicate', asked, two);
    const picture = replicatePanels(result, false, 'thickness');
    expect(picture.panels.map(({ name }) => name)).toEqual(['thickness, observed', 'permutation 3']);
    expect(marksOf(picture, 'points').map(({ x }) => x.length)).toEqual([8, 8, 8, 8]);
    const pairs = await run<ReplicateResult>(
      'replicate',
      { statistic: 'correlation', beside: ['south'], by: 'shuffling' },
      all,
    );
    const cloud = replicatePanels(pairs, true, 'north');
    expect(marksOf(cloud, 'points').map(({ x }) => [...x])).toEqual([
      pairs.dots[0]!.original,
      pairs.dots[0]!.replicate,
    ]);
  });
});

describe('precision of larger samples', () => {
  it('stand one below the other, each narrower than the one before', async () => {
    const result = await run<PlansResult>('bootstrap-plans', {}, north);
    const lines = marksOf(plansPanels(result), 'line').filter(({ y }) => y[0] === y[1]);
    const widths = lines.map(({ x }) => x[1]! - x[0]!);
    expect(widths).toHaveLength(4);
    expect(widths).toEqual([...widths].sort((a, b) => b - a));
  });
});
