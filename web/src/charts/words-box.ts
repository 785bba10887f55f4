import type { Chart, LayoutItem } from 'chart.js';

export interface Area {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Room for words beside the panels, where they cover nothing: laid out by the chart as it lays out its axes. */
export function wordsBox(
  chart: Chart,
  position: 'top' | 'bottom',
  heightFor: (width: number) => number,
  paint: (area: Area) => void,
): LayoutItem {
  const box = {
    position,
    // Between the axes and a title.
    weight: 1000,
    fullSize: true,
    options: {},
    left: 0,
    right: 0,
    top: 0,
    bottom: 0,
    width: 0,
    height: 0,
    isHorizontal: () => true,
    beforeLayout: () => undefined,
    getPadding: () => ({ left: 0, right: 0, top: 0, bottom: 0 }),
    update(width: number) {
      box.width = width;
      box.height = heightFor(chart.width);
    },
    draw: () => box.height > 0 && paint(box),
  };
  return box as unknown as LayoutItem;
}
