import type { Scores } from '@verdict/core/analyses';
import type { LegendEntry } from './legend.js';
import type { Mark } from './marks.js';

/** Something that can be pointed at: a place or an area, in the units of the axes. */
export interface Hit {
  panel: number;
  x: [number, number];
  y: [number, number];
  /** What pointing at it says. */
  words: string;
  /** The rows behind it; the bar behind it. */
  row?: number;
  bar?: number;
}

export interface Axis {
  from: number;
  to: number;
  title: string;
  /** Ticks at these places only, with these words. */
  ticks?: readonly { at: number; words: string }[];
  /** Standard scores instead of the values, which stand on the other side. */
  scores?: Scores | null;
  /** Whole numbers only. */
  whole?: boolean;
}

export interface Panel {
  name: string;
  marks: readonly Mark[];
}

/** A picture: panels one above the other on a common x axis, and a y axis that is the same in all. */
export interface Panels {
  x: Axis;
  y: Axis;
  panels: readonly Panel[];
  hits: readonly Hit[];
  /** Both axes in one unit, at equal scales: the drawing is as high as it is wide. */
  equal?: boolean;
  /** Below the picture. */
  legend?: readonly LegendEntry[];
  /** Words over the picture, above this place. */
  caption?: { words: string; at: number };
}

/** A small picture on a sheet of several. */
export interface Cell {
  /** Above it. */
  name: string;
  /** What pointing at it says. */
  words: string;
  marks: readonly Mark[];
  /** What lies at its edges. */
  x: readonly [number, number];
  y: readonly [number, number];
  /** Below it, where the values matter and not only the shape. */
  ticks?: readonly { at: number; words: string }[];
  /** Where it lies, as shares of the sheet. */
  box: { left: number; top: number; width: number; height: number };
  chosen?: boolean;
  tinted?: boolean;
}

/** Many small pictures side by side, each on axes of its own. */
export interface Sheet {
  cells: readonly Cell[];
  legend?: readonly LegendEntry[];
}

/** What a card can draw. */
export type Drawn = Panels | Sheet;
export const isSheet = (drawn: Drawn): drawn is Sheet => 'cells' in drawn;
