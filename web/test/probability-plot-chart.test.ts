import { inThisThread, type ProbabilityPlotResult } from '@verdict/core/analyses';
import { toSample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { describe, expect, it } from 'vitest';
import {
  percentTicks,
  plotPoints,
  pointWords,
  probabilityPlotChart,
  readingRange,
  scoreRange,
  thinned,
  type PlotPoint,
} from '../src/charts/probability-plot-chart.js';

const COLOURS = {
  ink: '#111',
  soft: '#666',
  card: '#fff',
  gridLine: '#eee',
  green: '#0a0',
  tint: '#dfd',
  ochre: '#a60',
  ochreText: '#850',
  series: ['#0a0', '#a00', '#00a', '#a0a'],
};
const column = { name: 'thickness', unit: 'mm', resolution: null, decimal: 'point', thousands: 'none' } as const;

async function plot(cells: string[], settings: object = {}): Promise<ProbabilityPlotResult> {
  const sample = toSample(column, cells, new Set());
  const request = { column: 'thickness', replicates: 499, ...settings };
  return (await drive(inThisThread, { id: 'probability-plot', request, sample })) as ProbabilityPlotResult;
}
const TWELVE = '7.80 7.92 7.94 7.97 9.90 8.10 7.96 8.17 8.00 7.95 8.16 8.07'.split(' ');

describe('the probability plot as a picture', () => {
  it('draws every reading at its own score, none lost, on axes that hold them all', async () => {
    const result = await plot(TWELVE);
    const { data, options } = probabilityPlotChart(result, 'thickness', COLOURS, null);
    const marks = data.datasets[0]!.data as PlotPoint[];
    expect(marks.map(({ x }) => x)).toEqual(result.readings);
    expect(marks.map(({ y }) => y)).toEqual(result.scores);
    const { min, max } = readingRange(result, scoreRange(result.scores));
    expect(min).toBeLessThan(7.8);
    expect(max).toBeGreaterThan(9.9);
    expect(options!.scales!.x!).toMatchObject({ min, max, title: { text: 'thickness, mm' } });
  });

  it('colours readings outside the band and fills the one pointed at', async () => {
    const result = await plot(TWELVE);
    expect(result.band!.outside).toContain(5);
    const at = result.rows.indexOf(5);
    const marks = probabilityPlotChart(result, 'x', COLOURS, at).data.datasets[0]! as unknown as Record<
      string,
      string[]
    >;
    expect(marks.pointBorderColor![at]).toBe(COLOURS.ochre);
    expect(marks.pointBackgroundColor!.filter((colour) => colour === COLOURS.green)).toHaveLength(1);
    expect(marks.pointBackgroundColor![at]).toBe(COLOURS.green);
  });

  it('has a line through mean and sd, and a band only when there is one', async () => {
    const result = await plot(TWELVE, { band: 'none' });
    const { datasets } = probabilityPlotChart(result, 'x', COLOURS, null).data;
    expect(datasets.map(({ label }) => label)).toEqual(['readings', 'fitted line']);
    for (const { x, y } of datasets[1]!.data as PlotPoint[]) expect(x).toBeCloseTo(result.mean + result.sd * y, 12);
    const withBand = probabilityPlotChart(await plot(TWELVE), 'x', COLOURS, null).data.datasets;
    expect(withBand[2]!.data).toHaveLength(24);
  });

  it('ticks in percent stand at their normal scores and never crowd', () => {
    for (const reach of [1.2, 2.6, 4.8]) {
      const ticks = percentTicks({ min: -reach, max: reach });
      expect(ticks.find(({ percent }) => percent === 50)!.score).toBe(0);
      for (let i = 1; i < ticks.length; i++) expect(ticks[i]!.score - ticks[i - 1]!.score).toBeGreaterThan(reach / 20);
    }
  });

  it('names row, reading and share', async () => {
    const result = await plot(TWELVE);
    expect(pointWords(result, 0)).toEqual(['row 1: 7.80 mm', '4.17 % at or below']);
  });

  it('thins 100 000 marks to what the pixels can show and keeps both tails whole', () => {
    const points = Array.from({ length: 100_000 }, (_, index) => ({ x: index / 1000, y: index / 1000, index }));
    const few = thinned(points);
    expect(few.length).toBeLessThan(3000);
    expect(few.slice(0, 50)).toEqual(points.slice(0, 50));
    expect(few.at(-1)).toEqual(points.at(-1));
    expect(thinned(points.slice(0, 2000))).toHaveLength(2000);
  });

  it('plots a long column within the pixels', async () => {
    const cells = Array.from({ length: 5000 }, (_, i) => (8 + Math.sin(i * 12.9898) * 0.3).toFixed(3));
    expect(plotPoints(await plot(cells, { band: 'none' })).length).toBeLessThan(3000);
  });
});
