import { formatValue, roundTo } from '@verdict/core/format';
import { computed } from 'vue';
import { snapped } from '../../charts/snapped.js';
import type { Line } from '../../charts/value-axis.js';
import { binsIn } from './pictures.js';
import type { useShape } from './use-shape.js';

/** A line over the picture with its grip. */
export type DragLine = Line & { id: 'what-if' | 'lower' | 'upper'; label: string };

/** What can be dragged over the picture: a moved reading, the limits of a share, the bins. */
export function useDragging(shape: ReturnType<typeof useShape>) {
  const { moved, panel, sample, shown, figures, sharesRequest, sharesAddress, address } = shape;

  const lines = computed<DragLine[]>(() => {
    if (moved.value) {
      const { row, value: at } = moved.value;
      const words = `row ${row} at ${formatValue(at)}`;
      return [{ id: 'what-if', at, words, tone: 'ochre', label: 'The moved reading' }];
    }
    const { value: request } = sharesRequest;
    if (panel.value !== 'shares' || !request || request.of !== 'limits') return [];
    return (['lower', 'upper'] as const).flatMap((id): DragLine[] => {
      const at = request[id];
      const label = `${id === 'lower' ? 'Lower' : 'Upper'} limit`;
      return at === undefined ? [] : [{ id, at, words: formatValue(at), tone: 'green', label }];
    });
  });

  /** A dragged place on the grid of the readings, or to about a two-hundredth of their range. */
  function place(value: number): number {
    const resolution = sample.value?.resolution ?? null;
    if (resolution !== null) return roundTo(value, resolution);
    const { min, max } = figures.value ?? { min: value - 1, max: value + 1 };
    return Number(snapped(value, { from: min, to: max }, null));
  }

  function dragLimit(side: 'lower' | 'upper', at: number): void {
    const { lower, upper } = sharesRequest.value!;
    const now = { lower, upper, [side]: at };
    // A limit does not pass the other one.
    if (now.lower !== undefined && now.upper !== undefined && now.lower >= now.upper) return;
    sharesAddress.tryOut(now);
  }

  function dragBins(id: 'bin-width' | 'bin-start', value: number): void {
    const bins = binsIn(shown.value);
    if (!bins) return;
    const { edges, width, resolution } = bins;
    const start = edges[0]!;
    if (id === 'bin-start') {
      const at = resolution === null ? place(value) : roundTo(value - resolution / 2, resolution) + resolution / 2;
      address.value.tryOut({ rule: 'width', width, start: Number(at.toPrecision(12)) });
      return;
    }
    const step = resolution ?? (edges.at(-1)! - start) / 200;
    const wide = Math.max(step, Math.round((value - start) / step) * step);
    address.value.tryOut({ rule: 'width', width: Number(wide.toPrecision(resolution === null ? 4 : 12)), start });
  }

  function drag(id: string, value: number): void {
    if (id === 'what-if' && moved.value) moved.value = { ...moved.value, value: place(value) };
    if (id === 'lower' || id === 'upper') dragLimit(id, place(value));
    if (id === 'bin-width' || id === 'bin-start') dragBins(id, value);
  }
  /** What was tried out goes into the address once it is let go. */
  function done(id: string): void {
    if (id === 'lower' || id === 'upper') sharesAddress.setAll({});
    if (id === 'bin-width' || id === 'bin-start') address.value.setAll({});
  }

  return { lines, drag, done };
}
