import {
  advance,
  inThisThread,
  readOff,
  type ProbabilityPlotResult,
  type BoxResult,
  type DotsResult,
  type EmpiricalResult,
  type HistogramResult,
  type InOrderResult,
} from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { samplesBeside } from '@verdict/core/table';
import type { Chart } from 'chart.js';
import { describe, expect, it } from 'vitest';
import { freeLine } from '../src/charts/draw-marks.js';
import type { Ground, Mark } from '../src/charts/marks.js';
import { hitAt, panelsChart, scoreTicks, tickWords } from '../src/charts/panels.js';
import type { Panels } from '../src/charts/picture.js';
import { boxPanels } from '../src/charts/pictures/box.js';
import { dotsPanels } from '../src/charts/pictures/dots.js';
import { headHeight, headWords } from '../src/charts/head.js';
import { legendHeight } from '../src/charts/legend.js';
import { plotDrawing, visibleMarks } from '../src/charts/pictures/probability-plot.js';
import { histogramPanels } from '../src/charts/pictures/histogram.js';
import { orderPanels, visibleReadings } from '../src/charts/pictures/in-order.js';
import { stepsPanels, visibleSteps } from '../src/charts/pictures/empirical.js';
import { boundsBeyond, valueAxis, type Setting } from '../src/charts/value-axis.js';
import { SvgContext } from '../src/charts/svg-context.js';
import { fromText, rangeOf, shareSlip, typedValue } from '../src/workbench/run/field-values.js';

const NO_BOUNDS = { lowerLimit: null, target: null, upperLimit: null };
const plain: Setting = { bounds: NO_BOUNDS, titles: {}, lines: [], hold: null };
const NONE: ReadonlySet<number> = new Set();

function sampleOf(values: number[], name = 'thickness', resolution: number | null = 0.01): Sample {
  const none = { missing: 0, setAside: 0, unreadable: 0, beyondLimit: 0 };
  const rows = Int32Array.from(values, (_, i) => i + 1);
  return { name, unit: 'mm', values: Float64Array.from(values), rows, resolution, ...none };
}
function done<Result>(id: string, sample: Sample, request: object = {}): Result {
  const stage = advance(id, { column: sample.name, ...request }, sample, []);
  return (stage as { result: Result }).result;
}
const wave = (n: number) => Array.from({ length: n }, (_, i) => Number((8 + Math.sin(i * 12.9898) * 0.3).toFixed(2)));
const two = samplesBeside([
  sampleOf(wave(30)),
  sampleOf(
    wave(50).map((x) => x + 1),
    'width',
  ),
]);
const marksOf = <K extends Mark['kind']>({ panels }: Panels, kind: K) =>
  panels.flatMap(({ marks }) => marks.filter((mark) => mark.kind === kind)) as Extract<Mark, { kind: K }>[];

describe('a histogram as a picture', () => {
  it('has bars from 0 up on an axis that starts at 0, with areas that sum to 1 as densities', () => {
    for (const scale of ['count', 'share', 'density'] as const) {
      const result = done<HistogramResult>('histogram', sampleOf(wave(60)), { scale, curve: 'normal' });
      const picture = histogramPanels(result, plain, NONE);
      expect(picture.y.from).toBe(0);
      const [{ edges, heights }] = marksOf(picture, 'bars') as [Extract<Mark, { kind: 'bars' }>];
      const area = heights.reduce((sum, height, i) => sum + height * (edges[i + 1]! - edges[i]!), 0);
      const total = heights.reduce((sum, height) => sum + height, 0);
      if (scale === 'density') expect(area).toBeCloseTo(1, 10);
      else expect(total).toBeCloseTo(scale === 'count' ? 60 : 1, 10);
      // The curve has the area of the bars.
      const [curve] = marksOf(picture, 'line');
      let under = 0;
      for (let i = 1; i < curve!.x.length; i++) {
        under += ((curve!.y[i]! + curve!.y[i - 1]!) / 2) * (curve!.x[i]! - curve!.x[i - 1]!);
      }
      expect(under / area).toBeGreaterThan(0.8);
      expect(under / area).toBeLessThan(1.001);
      expect(Math.max(...heights)).toBeLessThanOrEqual(picture.y.to);
    }
  });

  it('has one panel for each part over common axes, and names each bar', () => {
    const result = done<HistogramResult>('histogram', two, { beside: ['width'] });
    const picture = histogramPanels(result, plain, NONE);
    expect(picture.panels.map(({ name }) => name)).toEqual(['thickness, 30', 'width, 50']);
    expect(new Set(marksOf(picture, 'bars').map(({ edges }) => edges)).size).toBe(1);
    expect(picture.hits[0]!.words).toMatch(/^thickness, 7\.\d+ to below [\d.]+ mm: \d+ readings?, [\d.]+\u00a0%$/);
    expect(picture.hits.at(-1)!.words).toMatch(/ to \d/);
    const { options } = panelsChart(picture, {} as never, null);
    expect(Object.keys(options!.scales!)).toEqual(['x', 'y0', 'y1']);
    expect((options!.scales!.y0 as { max: number }).max).toBe((options!.scales!.y1 as { max: number }).max);
  });
});

describe('the axis of readings', () => {
  const result = done<BoxResult>('box', sampleOf(wave(40)));
  it('reaches to limits that lie near, and names those that lie far in words', () => {
    const near: Setting = { ...plain, bounds: { lowerLimit: 7.6, target: null, upperLimit: 20 } };
    const axis = valueAxis(result, 7.7, 8.3, near);
    expect(axis.from).toBeLessThan(7.6);
    expect(axis.to).toBeLessThan(8.5);
    expect(boundsBeyond(result, axis, near)).toEqual(['upper limit 20.00 mm lies to the right of the picture']);
    expect(axis.title).toBe('thickness, mm');
  });

  it('has room for readings that are all equal, and stays still while something is dragged', () => {
    const { from, to } = valueAxis(result, 8, 8, plain);
    expect(to).toBeGreaterThan(from);
    expect(valueAxis(result, 7, 9, { ...plain, hold: { from: 1, to: 2 } })).toMatchObject({ from: 1, to: 2 });
  });

  it('does not draw the limits of one column over several', () => {
    const beside = done<BoxResult>('box', two, { beside: ['width'] });
    const picture = boxPanels(beside, { ...plain, bounds: { lowerLimit: 7.9, target: 8, upperLimit: 8.1 } });
    expect(marksOf(picture, 'rule')).toEqual([]);
  });

  it('has ticks with enough decimals to differ, and whole or half scores', () => {
    expect([7.8, 8, 8.2].map((x) => tickWords(x, 0.2))).toEqual(['7.8', '8.0', '8.2']);
    expect(tickWords(-5, 5)).toBe('\u22125');
    expect(tickWords(1e300, 1e299)).toBe('1.0000 × 10³⁰⁰');
    const ticks = scoreTicks({ from: 7.7, to: 8.3 }, { mean: 8, sd: 0.1, divisor: 'n' });
    expect(ticks.map(({ words }) => words)).toEqual(['\u22123', '\u22122', '\u22121', '0', '1', '2', '3']);
    expect(ticks[3]!.at).toBe(8);
  });
});

describe('boxes, steps, dots and order as pictures', () => {
  it('turn a box upright with its axes, and name the readings outside', () => {
    const sample = sampleOf([...wave(40), 11]);
    const lying = boxPanels(done('box', sample), plain);
    const upright = boxPanels(done('box', sample, { direction: 'upright' }), plain);
    expect(upright.y).toEqual(lying.x);
    expect(marksOf(upright, 'rect')[0]!.y).toEqual(marksOf(lying, 'rect')[0]!.x);
    const far = lying.hits.find(({ row }) => row === 41)!;
    expect(far.words).toBe('row 41: 11.00 mm, beyond three IQR');
    expect(upright.hits.find(({ row }) => row === 41)!.y).toEqual([11, 11]);
    expect(lying.x.to).toBeGreaterThan(11);
  });

  it('step from 0 to 1, and omit only steps that cannot be distinguished', () => {
    const result = done<EmpiricalResult>('empirical', sampleOf(wave(40)));
    const [line] = marksOf(stepsPanels(result, plain), 'line').filter(({ stepped }) => stepped);
    expect([line!.y[0], line!.y.at(-1)]).toEqual([0, 1]);
    const many = Array.from({ length: 100_000 }, (_, i) => i / 100_000);
    const seen = visibleSteps(many);
    expect(seen.length).toBeLessThan(1_600);
    expect([seen[0], seen.at(-1)]).toEqual([0, many.length - 1]);
    const gaps = seen.slice(1).map((i, k) => many[i]! - many[seen[k]!]!);
    expect(Math.max(...gaps)).toBeLessThan(2 / 1_500);
    expect(visibleSteps([5])).toEqual([0]);
  });

  it('lay up to four groups over one another with colour and marker, more in panels of their own', () => {
    const part = (k: number) => sampleOf(wave(20), `g${k}`);
    const of = (count: number) => {
      const sample = samplesBeside(Array.from({ length: count }, (_, k) => part(k)));
      return stepsPanels(done('empirical', sample, { beside: ['x'] }), plain);
    };
    expect(of(4).panels).toHaveLength(1);
    expect(new Set(marksOf(of(4), 'points').map(({ marker }) => marker)).size).toBe(4);
    expect(of(5).panels).toHaveLength(5);
  });

  it('have a dot for every reading, and every reading in its row', () => {
    const dots = dotsPanels(done<DotsResult>('dots', sampleOf(wave(60))), plain);
    const [{ counts }] = marksOf(dots, 'dots') as [Extract<Mark, { kind: 'dots' }>];
    expect(counts.reduce((a, b) => a + b, 0)).toBe(60);
    const order = orderPanels(done<InOrderResult>('in-order', sampleOf(wave(60))), plain);
    expect(order.hits.map(({ row }) => row)).toEqual(Array.from({ length: 60 }, (_, i) => i + 1));
  });

  it('join neighbouring rows only, and keep the least and the greatest of 100 000', () => {
    const sample = { ...sampleOf(wave(6)), rows: Int32Array.of(1, 2, 3, 7, 8, 20) };
    const lines = marksOf(orderPanels(done('in-order', sample), plain), 'line').filter(
      ({ tone }) => tone === 'gridLine',
    );
    expect(lines.map(({ x }) => x)).toEqual([
      [1, 2, 3],
      [7, 8],
    ]);
    const values = Array.from({ length: 100_000 }, (_, i) => Math.sin(i * 12.9898));
    values[50_000] = 9;
    const seen = visibleReadings({ rows: values.map((_, i) => i + 1), values });
    expect(seen).toContain(50_000);
    expect(seen.length).toBeLessThan(100_000);
  });
});

describe('a probability plot as a picture', () => {
  const settled = async (cells: number[], request: object = {}) => {
    const job = { id: 'probability-plot', request: { column: 'thickness', replicates: 499, ...request } };
    return (await drive(inThisThread, { ...job, sample: sampleOf(cells) })) as ProbabilityPlotResult;
  };
  const FAR = [7.8, 7.92, 7.94, 7.97, 9.9, 8.1, 7.96, 8.17, 8, 7.95, 8.16, 8.07];

  it('draws every reading at its own score, those outside the band apart, and names row, value and share', async () => {
    const result = await settled(FAR);
    const picture = plotDrawing(result, 'thickness').panels;
    const [inside, outside] = marksOf(picture, 'points');
    expect([...inside!.x, ...outside!.x].sort((a, b) => a - b)).toEqual([...result.readings]);
    expect(outside!.x).toContain(9.9);
    expect(outside!.tone).toBe('ochre');
    expect(picture.x.title).toBe('thickness, mm');
    expect(picture.hits[0]).toMatchObject({ words: 'row 1: 7.80 mm, 4.17 % at or below; expected 7.196 mm', row: 1 });
    expect(picture.hits.map(({ row }) => row)).toEqual([...result.rows]);
    expect(picture.legend!.map(({ words }) => words)).toEqual([
      '95 % of normal samples lie entirely within the shaded band',
      'a reading outside the band',
    ]);
  });

  it('has a band and its words only when there is one', async () => {
    const bare = plotDrawing(await settled(FAR, { band: 'none' }), 'thickness').panels;
    expect([marksOf(bare, 'area'), bare.legend]).toEqual([[], []]);
  });

  it('stands on the scale of its family, with limits, and lines at what is read off', async () => {
    const request = { family: 'weibull', band: 'line', lowerLimit: 7, target: 8, upperLimit: 20 };
    const result = await settled(FAR, request);
    const { panels, along, placeOf, readingAt, readMarks } = plotDrawing(result, 'thickness');
    expect(along).toBe('x');
    expect(readingAt(placeOf(8.2))).toBeCloseTo(8.2, 12);
    const rules = marksOf(panels, 'rule');
    // The upper limit lies far off: it does not squeeze the readings together.
    expect(rules.map(({ words }) => words)).toEqual(['lower limit 7.00', 'target 8.00']);
    expect(rules[1]!.at).toBeCloseTo(Math.log(8), 12);
    expect(panels.y.ticks!.map(({ words }) => words)).toContain('50');
    for (const { at, words } of panels.x.ticks!) expect(Math.exp(at)).toBeCloseTo(Number(words), 9);
    const read = readOff(result, { share: 0.5 }, 0.95)!;
    expect(readMarks(read).map((mark) => (mark as { across: string }).across)).toEqual(['x', 'y']);
    const equal = plotDrawing({ ...result, axis: 'quantiles', sides: 'readings-up' }, 'thickness');
    expect([equal.along, equal.panels.equal]).toEqual(['y', true]);
    expect(equal.panels.x.title).toBe('expected under the Weibull, mm');
    expect(plotDrawing({ ...result, axis: 'difference' }, 'thickness').along).toBeNull();
  });

  it('thins 100 000 marks to what the pixels can show and keeps both tails whole', () => {
    const x = Array.from({ length: 100_000 }, (_, i) => i / 1000);
    const few = visibleMarks(x, x);
    expect(few.length).toBeLessThan(3000);
    expect(few.slice(0, 50)).toEqual(Array.from({ length: 50 }, (_, i) => i));
    expect(few.at(-1)).toBe(99_999);
    expect(visibleMarks(x.slice(0, 2000), x)).toHaveLength(2000);
  });
});

describe('a legend', () => {
  const ruler = { measureText: (text: string) => ({ width: text.length * 6 }) } as CanvasRenderingContext2D;
  const entry = (words: string) => ({ words, tone: 'ink' as const });
  it('takes as many lines as the width asks for, none for nothing', () => {
    expect(legendHeight(ruler, [], 800)).toBe(0);
    const one = legendHeight(ruler, [entry('readings'), entry('a curve')], 800);
    expect(legendHeight(ruler, [entry('readings'), entry('a curve')], 120)).toBeGreaterThan(one);
    expect(one).toBeGreaterThan(0);
  });
});

describe('the words above a picture', () => {
  const ruler = { measureText: (text: string) => ({ width: text.length * 6 }) } as CanvasRenderingContext2D;
  const rule = (at: number, words: string, more: object = {}): Mark => ({
    ...{ kind: 'rule', across: 'x', at, tone: 'green', words },
    ...more,
  });
  const headed = (...marks: Mark[]): Panels => ({
    ...{ x: { from: 0, to: 10, title: '' }, y: { from: 0, to: 1, title: '' }, hits: [] },
    panels: [
      { name: '', marks },
      { name: '', marks },
    ],
  });
  it('stand side by side where they are apart, on lines of their own where they are not, and once for all panels', () => {
    const lines = (...marks: Mark[]) => headWords(ruler, headed(...marks), 600).map(({ line }) => line);
    expect(lines(rule(2, 'lower limit'), rule(7, 'target'))).toEqual([0, 0]);
    expect(lines(rule(5, 'lower limit'), rule(5.2, 'target'))).toEqual([0, 1]);
    expect(headHeight(ruler, headed(rule(5, 'a'), rule(5.1, 'b')), 600)).toBeGreaterThan(
      headHeight(ruler, headed(rule(5, 'a')), 600),
    );
    expect(headHeight(ruler, headed(), 600)).toBe(0);
  });

  it('point the way to a limit beyond the picture, and stay on it at its ends', () => {
    const [low, high, last] = headWords(
      ruler,
      headed(rule(-3, '7', { stays: true }), rule(12, '9', { stays: true }), rule(9.9, 'upper limit')),
      600,
    );
    expect([low!.words, high!.words]).toEqual(['← 7', '9 →']);
    expect([low!.before, last!.before]).toEqual([false, true]);
  });
});

describe('pointing', () => {
  const scale = (from: number, to: number, top: number, bottom: number) => ({
    ...{ top, bottom },
    getPixelForValue: (value: number) => from + (to - from) * value,
  });
  const chart = { scales: { x: scale(0, 100, 0, 0), y0: scale(100, 0, 0, 100) } } as unknown as Chart;
  const at = (x: [number, number], y: [number, number]) => ({ panel: 0, x, y, words: '' });
  const picture = (hits: Panels['hits']): Panels => ({ x: {} as never, y: {} as never, panels: [], hits });

  it('finds the nearest point within reach, else the bar that holds the place, else nothing', () => {
    const hits = [at([0.2, 0.4], [0, 0.5]), at([0.8, 0.8], [0.5, 0.5])];
    expect(hitAt(picture(hits), chart, 82, 52)).toBe(1);
    // A bar is wide: anywhere above its foot.
    expect(hitAt(picture(hits), chart, 30, 20)).toBe(0);
    expect(hitAt(picture(hits), chart, 60, 50)).toBeNull();
  });

  it('puts words that would cover others on the next line', () => {
    const ground = { taken: [], top: 0 } as unknown as Ground;
    expect([freeLine(ground, 0, 50), freeLine(ground, 40, 50), freeLine(ground, 200, 50)]).toEqual([10, 28, 10]);
  });
});

describe('what is drawn, written down as SVG', () => {
  const context = () =>
    new SvgContext(
      { width: 100, height: 80 },
      { font: '', measureText: (text: string) => ({ width: text.length * 6 }) as TextMetrics },
    );

  it('keeps lines with their dashes, areas with their clips, circles and turned text', () => {
    const c = context();
    c.save();
    c.beginPath();
    c.rect(0, 0, 50, 50);
    c.clip();
    c.strokeStyle = '#123';
    c.setLineDash([4, 2]);
    c.beginPath();
    c.moveTo(1, 2);
    c.lineTo(30, 40);
    c.stroke();
    c.restore();
    c.beginPath();
    c.arc(10, 10, 4, 0, 2 * Math.PI);
    c.fill();
    c.translate(20, 30);
    c.rotate(-Math.PI / 2);
    c.font = "600 12px 'IBM Plex Sans', sans-serif";
    c.textAlign = 'center';
    c.fillText('a < b & "c"', 0, 0);
    const svg = c.toSvg('#fff');
    expect(svg).toContain('<clipPath id="clip0"><path d="M0 0L50 0L50 50L0 50Z"/></clipPath>');
    expect(svg).toContain(
      '<g clip-path="url(#clip0)"><path d="M1 2L30 40" fill="none" stroke="#123" stroke-width="1" stroke-dasharray="4 2"',
    );
    expect(svg).toContain('A4 4 0 1 1');
    expect(svg).toContain('transform="matrix(0 -1 1 0 20 30)"');
    expect(svg).toContain('font-weight="600" text-anchor="middle"');
    expect(svg).toContain('a &lt; b &amp; &quot;c&quot;');
    // What was clipped is no longer clipped once it is restored.
    expect(svg.indexOf('</g>')).toBeLessThan(svg.indexOf('A4 4'));
  });

  it('leaves a path that is being drawn alone when a rectangle comes between', () => {
    const c = context();
    c.beginPath();
    c.moveTo(0, 0);
    c.fillRect(1, 1, 2, 2);
    c.lineTo(9, 9);
    c.stroke();
    expect(c.toSvg('#fff')).toContain('d="M0 0L9 9"');
  });
});

describe('a field', () => {
  const width = { field: 'width', label: 'width', type: 'number', above: 0, empty: 'its own' } as const;
  const percents = { field: 'p', label: 'percentiles', type: 'numbers', min: 0, max: 100, empty: 'none' } as const;
  const decimals = { field: 'd', label: 'd', type: 'number', from: 0, to: 12, whole: true, empty: 'auto' } as const;
  it('takes what is in its range, nothing where it may be left out, and refuses the rest', () => {
    expect(typedValue(width, '0,25')).toEqual({ value: 0.25 });
    expect(typedValue(width, '')).toEqual({ value: undefined });
    expect(typedValue(width, 'its own')).toEqual({ value: undefined });
    for (const text of ['0', '-1', 'wide', '1e999']) expect(typedValue(width, text), text).toBeNull();
    expect(typedValue(percents, '5; 95, 2.5')).toEqual({ value: [5, 95, 2.5] });
    expect(typedValue(percents, '5 195')).toBeNull();
    expect(typedValue(decimals, '2.5')).toBeNull();
    expect(typedValue({ field: 'c', label: 'c', type: 'percent', min: 0.5, max: 0.999 }, '95 %')).toEqual({
      value: 0.95,
    });
    const confidence = { field: 'c', label: 'c', type: 'percent', min: 0.5, max: 0.999 } as const;
    expect(shareSlip(confidence, '0.95')).toBe(' For 95\u00a0% enter 95.');
    expect([shareSlip(confidence, '0.2'), shareSlip(confidence, '9.5'), shareSlip(width, '0.95')]).toEqual([
      '',
      '',
      '',
    ]);
    expect(rangeOf(width)).toBe('a number above 0');
    expect(rangeOf(decimals)).toBe('a whole number from 0 to 12');
    expect(fromText(percents, '5 95')).toEqual([5, 95]);
    const several = {
      field: 't',
      label: 'tests',
      type: 'choices',
      most: 3,
      options: [
        { value: 'a', text: 'A' },
        { value: 'b', text: 'B' },
      ],
    } as const;
    expect([fromText(several, 'b a'), fromText(several, 'b x'), fromText(several, 'x')]).toEqual([
      ['b', 'a'],
      ['b'],
      undefined,
    ]);
    expect(rangeOf({ field: 'v', label: 'v', type: 'numbers', min: -1e12, max: 1e12, empty: 'none' })).toBe(
      'numbers separated by spaces',
    );
    expect(fromText(decimals, 'x')).toBeUndefined();
  });
});
