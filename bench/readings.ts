/** 100 000 readings from pasted text to what the plot draws, step by step, each beside one plain pass that splits the text and takes Number of each line. */
import { advance } from '@verdict/core/analyses';
import { parseBlock, recogniseLayout, toSample } from '@verdict/core/readings';
import { median, report } from './report.js';

const ROWS = 100_000;
const text = `thickness (mm)\n${Array.from({ length: ROWS }, (_, i) => (8 + Math.sin(i * 12.9898) * 0.3).toFixed(3)).join('\n')}`;

function timed<T>(work: () => T): { result: T; time: number } {
  const times: number[] = [];
  let result!: T;
  for (let i = 0; i < 7; i++) {
    const started = performance.now();
    result = work();
    times.push(performance.now() - started);
  }
  return { result, time: median(times) };
}

export function benchReadings(): void {
  const plain = timed(() => Float64Array.from(text.split('\n').slice(1), Number));
  const block = timed(() => parseBlock(text, recogniseLayout(text)));
  const column = { ...block.result.columns[0]!, resolution: null };
  const sample = timed(() => toSample(column, column.cells, new Set()));
  const request = { column: 'thickness', band: 'none' };
  const plot = timed(() => advance('probability-plot', request, sample.result, []));
  report('100 000 readings: recognise and parse a paste ÷ split and Number', block.time, plain.time, null);
  report('100 000 readings: cells to sample ÷ split and Number', sample.time, plain.time, null);
  report('100 000 readings: sample to plot without band ÷ split and Number', plot.time, plain.time, null);
}
