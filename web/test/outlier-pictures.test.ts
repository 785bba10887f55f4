import {
  advance,
  inThisThread,
  type OutlierRulesResult,
  type OutliersResult,
  type OutlyingGroupsResult,
} from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { describe, expect, it } from 'vitest';
import type { Mark } from '../src/charts/marks.js';
import { groupBars } from '../src/charts/pictures/group-bars.js';
import { outlierRulesPanels } from '../src/charts/pictures/outlier-rules.js';
import { influencePanels, rowsPanels, stripPanels } from '../src/charts/pictures/outliers.js';
import { DRAWINGS } from '../src/stages/outliers/drawings.js';
import { lastFamily, rememberFamily } from '../src/workbench/frame/last-family.js';
import { drawnAgain } from './kept.js';

function sampleOf(values: ArrayLike<number>, name = 'thickness'): Sample {
  const none = { missing: 0, setAside: 0, unreadable: 0, beyondLimit: 0 };
  const rows = Int32Array.from(values, (_, i) => i + 1);
  return { name, unit: 'mm', values: Float64Array.from(values), rows, resolution: 0.01, ...none };
}
const step = (i: number, n: number) => (((i * 37) % n) + 0.5) / n;
const ordinary = (n: number) =>
  Array.from({ length: n }, (_, i) => Number((8 + 0.1 * Math.log(step(i, n) / (1 - step(i, n)))).toFixed(2)));
const run = <R>(id: string, request: object, sample: Sample) =>
  drive(inThisThread, { id, request: { column: 'thickness', replicates: 199, ...request }, sample }) as Promise<R>;
const FAR = sampleOf([...ordinary(30), 9.4]);
const outliers = (request: object = {}, sample = FAR) => run<OutliersResult>('outliers', request, sample);
const points = (marks: readonly Mark[], filled: boolean) =>
  marks.flatMap((mark) => (mark.kind === 'points' && !!mark.filled === filled ? [...mark.x] : []));

describe('the strip of readings', () => {
  it('has every reading once, the named ones filled, each said by its row', async () => {
    const { panels, hits, legend } = stripPanels(await outliers(), 'thickness');
    expect(points(panels[0]!.marks, true)).toEqual([9.4]);
    expect(points(panels[0]!.marks, false)).toHaveLength(30);
    expect(hits).toHaveLength(31);
    expect(hits.find(({ row }) => row === 31)!.words).toMatch(/^row 31: 9\.40 mm, z \d.*beyond the outer fence/);
    expect(legend!.map(({ words }) => words)).toEqual([
      expect.stringMatching(/^mean 8\.\d+$/),
      expect.stringMatching(/^generalised ESD, a further reading: \d/),
      expect.stringMatching(/^fences \d.* and \d/),
    ]);
  });

  it('with fences as the rule draws them once', async () => {
    const { legend } = stripPanels(await outliers({ rule: 'fences' }), 'thickness');
    expect(legend!.map(({ words }) => words.split(' ')[0])).toEqual(['mean', 'box-plot']);
  });

  it('of a hundred thousand is drawn in some thousand marks, the farthest among them', () => {
    const values = Float64Array.from({ length: 100_000 }, (_, i) => Math.sin(i * 12.9898) * 0.3 + 8);
    values[99_999] = 12;
    // What is shown before anything is simulated.
    const stage = advance('outliers', { column: 'thickness' }, sampleOf(values), []);
    const result = (stage.done ? stage.result : stage.partial) as OutliersResult;
    const { legend } = stripPanels(result, 'x');
    expect(legend!.at(-1)!.words).toMatch(/^a mark for every \d.* readings$/);
    for (const { hits } of [stripPanels(result, 'x'), rowsPanels(result, 'x'), influencePanels(result, 'x', 'sd')]) {
      expect(hits.length).toBeLessThan(20_000);
      expect(hits.length).toBeGreaterThan(100);
      for (const { row } of result.extremes) expect(hits.some((hit) => hit.row === row)).toBe(true);
    }
  });
});

describe('the other pictures of outliers', () => {
  it('over the rows: was it a time, a shift, a batch?', async () => {
    const { x, hits } = rowsPanels(await outliers(), 'thickness');
    expect(x.title).toBe('row');
    expect(hits[30]).toMatchObject({ row: 31, x: [31, 31], y: [9.4, 9.4] });
  });

  it('show how mean and SD change without a reading', async () => {
    const result = await outliers();
    const { hits, y } = influencePanels(result, 'thickness', 'mean');
    expect(y.title).toBe('change of the mean of thickness, mm');
    const { row, words } = hits.reduce((low, hit) => (hit.y[0] < low.y[0] ? hit : low));
    expect(row).toBe(31);
    expect(words).toMatch(/^without row 31: mean \d\.\d+, −0\.\d+$/);
    expect(influencePanels(result, 'thickness', 'sd').y.title).toContain('sd of thickness');
  });

  it('of rules have a curve each, rules of thumb dashed, clean samples apart', async () => {
    const result = await run<OutlierRulesResult>('outlier-rules', {}, FAR);
    const { panels, legend, hits } = outlierRulesPanels(result, 'same-end')!;
    const curves = panels[0]!.marks.filter((mark) => mark.kind === 'line');
    expect(curves).toHaveLength(7);
    expect(curves.every((mark) => mark.kind === 'line' && Math.min(...mark.x) === 2)).toBe(true);
    expect(legend!.filter(({ dash }) => dash).map(({ words }) => words)).toEqual([
      'modified z > 3.5',
      'box-plot fences',
      'z > 3',
    ]);
    expect(hits).toHaveLength(7 * 6);
    expect(outlierRulesPanels({ ...result, rules: [] }, 'one')).toBeNull();
  });

  it('of groups have a bar each, with critical values that follow their size', async () => {
    const parts = [ordinary(6), ordinary(6).map((x) => 3 * x), ordinary(3)];
    const samples = parts.map((values, k) => sampleOf(values, `k${k}`));
    const groups = { by: 'kiln', samples, without: 0 };
    const sample = { ...sampleOf(parts.flat()), groups };
    const result = await run<OutlyingGroupsResult>('outlying-groups', { split: 'kiln' }, sample);
    const k = groupBars(result, 'k')!;
    expect(k.hits.map(({ words }) => words.split(',')[0])).toEqual(['k0', 'k1', 'k2']);
    const bars = k.panels[0]!.marks.filter((mark) => mark.kind === 'rect');
    expect(bars.map((mark) => mark.kind === 'rect' && mark.fill)).toEqual(['green', 'ochre', 'green']);
    const h = groupBars(result, 'h')!;
    expect(h.y.from).toBeLessThan(0);
    expect(groupBars({ ...result, groups: result.groups.map((one) => ({ ...one, h: null })) }, 'h')).toBeNull();
    const kept = (analysis: string, request: object, found: unknown) =>
      drawnAgain(DRAWINGS, analysis, request, found)?.title;
    expect(kept('outlying-groups', { column: 'thickness', split: 'kiln' }, result)).toBe('spread of thickness by kiln');
    expect(kept('outliers', { column: 'thickness' }, await outliers())).toBe('outliers of thickness');
    expect(kept('outlier-screen', { column: 'thickness' }, {})).toBeUndefined();
  });
});

describe('the family last compared with a study', () => {
  it('is handed on from stage to stage, but for the normal that everything begins with', () => {
    rememberFamily('s1', 'gamma');
    rememberFamily('s2', 'normal');
    expect([lastFamily('s1'), lastFamily('s2'), lastFamily('s3'), lastFamily(undefined)]).toEqual([
      'gamma',
      null,
      null,
      null,
    ]);
  });
});
