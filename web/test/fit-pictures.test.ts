import {
  inThisThread,
  type CountFitResult,
  type GalleryResult,
  type LineUpResult,
  type PowerResult,
  type TransformResult,
  type TwoSamplesResult,
} from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { samplesBeside } from '@verdict/core/table';
import type { Chart } from 'chart.js';
import { describe, expect, it } from 'vitest';
import { chartOf, pointable, pointedIn } from '../src/charts/drawn.js';
import type { Mark } from '../src/charts/marks.js';
import { isSheet, type Panels } from '../src/charts/picture.js';
import { countPanels } from '../src/charts/pictures/counts.js';
import { gallerySheet } from '../src/charts/pictures/gallery.js';
import { lineUpSheet } from '../src/charts/pictures/line-up.js';
import { powerPanels } from '../src/charts/pictures/power.js';
import { transformSheet } from '../src/charts/pictures/transform.js';
import { twoSamplesPanels } from '../src/charts/pictures/two-samples.js';
import { cellAt, inRows } from '../src/charts/sheet.js';
import type { ChartColours } from '../src/charts/theme.js';
import { DRAWINGS } from '../src/stages/fit/drawings.js';
import { drawnAgain } from './kept.js';

function sampleOf(values: readonly number[], name = 'thickness'): Sample {
  const none = { missing: 0, setAside: 0, unreadable: 0, beyondLimit: 0 };
  const rows = Int32Array.from(values, (_, i) => i + 1);
  return { name, unit: 'mm', values: Float64Array.from(values), rows, resolution: null, ...none };
}
const READINGS = Array.from({ length: 25 }, (_, i) => 8 + (((i * 7) % 25) / 25) ** 2);
const COUNTS = [0, 0, 1, 2, 0, 1, 4, 3, 0, 1, 1, 2];
const run = <R>(id: string, request: object, sample = sampleOf(READINGS)) =>
  drive(inThisThread, { id, request: { column: 'thickness', ...request }, sample }) as Promise<R>;
const colours = { series: [] } as unknown as ChartColours;
const pointsOf = (marks: readonly Mark[]) => marks.flatMap((mark) => (mark.kind === 'points' ? [mark] : []));

const NO_BOUNDS = { lower: null, target: null, upper: null };

describe('a sheet of small pictures', () => {
  it('lays its cells in rows, and knows which lies where', async () => {
    const boxes = inRows(20, 5);
    expect(boxes).toHaveLength(20);
    expect(boxes[7]).toEqual({ left: 0.4, top: 0.25, width: 0.2, height: 0.25 });
    const sheet = lineUpSheet(await run<LineUpResult>('line-up', { seed: 3 }), 'thickness', null)!;
    const chart = { chartArea: { left: 0, right: 500, top: 0, bottom: 400 } } as Chart;
    expect(cellAt(sheet, chart, 250, 150)).toBe(7);
    expect(cellAt(sheet, chart, 499, 399)).toBeNull();
    expect(cellAt(sheet, chart, 490, 380)).toBe(19);
    expect(isSheet(sheet)).toBe(true);
    expect(pointable(sheet)).toBe(20);
    expect(pointedIn(sheet, 7)).toEqual({ words: 'position 8', bar: 7 });
    expect(chartOf(sheet, colours, 2).data).toMatchObject({ pointed: 2 });
  });

  it('of a line-up reveals nothing before the pick: every cell is named by its place only', async () => {
    const before = lineUpSheet(await run<LineUpResult>('line-up', { seed: 3 }), 'thickness', 4)!;
    expect(before.cells.map(({ name }) => name)).toEqual(Array.from({ length: 20 }, (_, i) => String(i + 1)));
    expect(before.cells.filter(({ tinted }) => tinted)).toEqual([]);
    expect(before.cells.findIndex(({ chosen }) => chosen)).toBe(3);
    const result = await run<LineUpResult>('line-up', { seed: 3, pick: 4 });
    const after = lineUpSheet(result, 'thickness', 4)!;
    expect(after.cells.findIndex(({ tinted }) => tinted) + 1).toBe(result.place);
    expect(after.cells[result.place! - 1]!.name).toContain('thickness');
  });

  it('holds every mark of its cells within their axes', async () => {
    for (const as of ['plot', 'histogram']) {
      const { cells } = lineUpSheet(await run<LineUpResult>('line-up', { seed: 3, as }), 'thickness', null)!;
      for (const { marks, x, y } of cells) {
        for (const mark of pointsOf(marks)) {
          expect(Math.min(...mark.x)).toBeGreaterThan(x[0]);
          expect(Math.max(...mark.x)).toBeLessThan(x[1]);
          expect(Math.max(...mark.y)).toBeLessThan(y[1]);
        }
        for (const mark of marks) if (mark.kind === 'bars') expect(Math.max(...mark.heights)).toBeLessThan(y[1]);
      }
    }
  });

  it('of known samples has the readings and one of them large, all eight below', async () => {
    const result = await run<GalleryResult>('gallery', {});
    const { cells } = gallerySheet(result, 'thickness', 'histogram', 'heavy');
    expect(cells).toHaveLength(10);
    expect(cells[0]!.name).toMatch(/^thickness, p of A² /);
    expect(cells[1]!.words).toContain('a t distribution with 3 degrees of freedom');
    expect(cells.filter(({ chosen }) => chosen).map(({ name }) => name)).toEqual(['heavy tails']);
    expect(gallerySheet(result, 'thickness', 'plot', 'no such kind').cells[1]!.name).toMatch(/^normal: /);
  });
});

describe('pictures of the other questions of Fit', () => {
  it('what n can detect: steps of equal width, the interval, and power 0.8', async () => {
    const result = await run<PowerResult>('power', { replicates: 199 });
    const far = powerPanels(result, 'departure')!;
    expect(far.x.ticks!.map(({ words }) => words)).toEqual(['0.1', '0.2', '0.3', '0.5', '0.7', '1', '1.5']);
    expect(far.hits).toHaveLength(7);
    expect(far.hits[3]!.words).toContain(
      'a lognormal distribution with log SD 0.5 (skewness 1.75): power 58\u00a0%, 95 % interval 51\u00a0%',
    );
    const many = powerPanels(result, 'n')!;
    expect(many.x.ticks![0]!.words).toBe('8');
    expect(many.panels[0]!.marks.filter((mark) => mark.kind === 'rule')).toHaveLength(3);
    // Before anything is simulated there is nothing to draw.
    expect(powerPanels({ ...result, curves: [] } as PowerResult, 'departure')).toBeNull();
    const families = await run<PowerResult>('power', { replicates: 199, family: 'exponential' });
    expect(powerPanels(families, 'departure')!.legend).toHaveLength(4);
  });

  it('counts: bars side by side, or hanging from expected values', async () => {
    const result = await run<CountFitResult>('count-fit', { replicates: 199 }, sampleOf(COUNTS, 'faults'));
    const rects = ({ panels }: Panels) => panels[0]!.marks.flatMap((mark) => (mark.kind === 'rect' ? [mark] : []));
    const beside = rects(countPanels(result, 'faults', 'beside'));
    expect(beside).toHaveLength(2 * result.cells.length);
    expect(beside[0]!.y).toEqual([0, 4]);
    const hanging = rects(countPanels(result, 'faults', 'hanging'));
    result.cells.forEach(({ observed, expected }, i) => {
      const [foot, top] = hanging[i]!.y;
      expect(top).toBeCloseTo(Math.sqrt(expected), 12);
      expect(top - foot).toBeCloseTo(Math.sqrt(observed), 12);
    });
    expect(countPanels(result, 'faults', 'beside').hits[0]!.words).toContain('0: 4 observed, 3.44 expected');
  });

  it('a transformation: both scales with ticks of their own, limits on either', async () => {
    const bent = READINGS.map((x) => Math.exp((x - 8) * 5));
    const limits = { lowerLimit: 0, target: 1, upperLimit: 50 };
    const asked = { by: 'logarithm', replicates: 199, ...limits };
    const result = await run<TransformResult>('transform', asked, sampleOf(bent, 'mass'));
    const { cells } = transformSheet(result, 'mass');
    expect(cells.map(({ name }) => name)).toEqual([
      expect.stringMatching(/^before, p of A² /),
      expect.stringMatching(/^the logarithm, p of A² /),
      'histogram and limits',
      'histogram and limits',
    ]);
    const rules = cells.map(({ marks }) => marks.flatMap((mark) => (mark.kind === 'rule' ? [mark.at] : [])));
    expect(rules.map(({ length }) => length)).toEqual([0, 0, 3, 2]);
    const { mean, sd } = result.after;
    expect(rules[3]).toEqual([(0 - mean) / sd, (Math.log(50) - mean) / sd]);
    // A tick stands where its words say.
    const ticks = cells[1]!.ticks!;
    for (const { at, words } of ticks) expect(mean + sd * at).toBeCloseTo(Number(words.replace('−', '-')), 10);
    expect(ticks.length).toBeGreaterThan(2);
    const plain = transformSheet({ ...result, before: { ...result.before, bounds: NO_BOUNDS } }, 'mass');
    expect(plain.cells[2]!.name).toBe('histogram');
  });

  it('two samples: on one range, with the line of equal quantiles', async () => {
    const sample = samplesBeside([
      sampleOf(READINGS, 'thickness'),
      sampleOf(
        READINGS.map((x) => x + 1),
        'b',
      ),
    ]);
    const result = await run<TwoSamplesResult>('two-samples', { beside: ['b'], replicates: 199 }, sample);
    const { x, y, hits } = twoSamplesPanels(result);
    expect([x.from, x.to]).toEqual([y.from, y.to]);
    expect(hits).toHaveLength(25);
    expect(hits[0]!.words).toMatch(/^2\s% lie below 8\.\d+ mm of thickness and 9\.\d+ mm of b$/);
  });

  it('are drawn again from what was kept', async () => {
    const kept = async (analysis: string, request: object, sample?: Sample) =>
      drawnAgain(DRAWINGS, analysis, { column: 'thickness', ...request }, await run(analysis, request, sample));
    expect((await kept('line-up', { seed: 3, pick: 4 }))!.title).toBe('line-up of thickness');
    expect((await kept('transform', { replicates: 199 }))!.title).toBe('thickness before and after transformation');
    expect((await kept('power', { replicates: 199 }))!.title).toBe('power with 25 readings of thickness');
    expect((await kept('count-fit', { replicates: 199 }, sampleOf(COUNTS)))!.title).toBe(
      'thickness observed and expected',
    );
    expect(await kept('gallery', {})).toBeUndefined();
  });
});
