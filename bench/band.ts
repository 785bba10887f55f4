/** The whole-plot band of the demo's size: its 10 000 replicates and its calibration, beside the plot that it is drawn into. */
import { inThisThread } from '@verdict/core/analyses';
import { toSample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { median, report } from './report.js';

export async function benchBand(): Promise<void> {
  const column = { name: 'x', unit: '', resolution: null, decimal: 'point', thousands: 'none' } as const;
  const cells = Array.from({ length: 48 }, (_, i) => (8 + Math.sin(i * 12.9898) * 0.3).toFixed(3));
  const sample = toSample(column, cells, new Set());
  const run = async (band: string) => {
    const times: number[] = [];
    for (let i = 0; i < 7; i++) {
      const started = performance.now();
      await drive(inThisThread, { id: 'probability-plot', request: { column: 'x', band }, sample });
      times.push(performance.now() - started);
    }
    return median(times);
  };
  const second = 1000;
  report('band of 48 readings, one thread ÷ one second', await run('whole-plot'), second, 1);
}
