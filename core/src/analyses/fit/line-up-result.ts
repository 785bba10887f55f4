import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import type { SheetCell } from '../../probability-plot/sheet-cell.js';
import type { Note } from '../../road/analysis.js';

/** What one viewer picked, and where the readings stood; both counted from 1. */
export interface LineUpViewer {
  pick: number;
  place: number;
  right: boolean;
  /** True where the viewer had seen a plot of these readings. */
  seen: boolean;
}

export interface LineUpResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  /** What the decoys are drawn from. */
  law: PlottedLaw;
  /** The pictures by place; null where only the key was asked for, and while they are drawn. */
  cells: SheetCell[] | null;
  /** Where the readings stand, from 1; null until a pick is made or the key is asked for. */
  place: number | null;
  /** In the order in which they looked; empty before the first pick. */
  viewers: LineUpViewer[];
  /** Those who count: who had not seen the plot; all of them where everybody had. */
  counted: number;
  right: number;
  /** The chance of at least so many right picks where all viewers judge alike, each on a sheet of their own; null before a pick. */
  pValue: number | null;
  pMethod: 'exact' | null;
  /** The same where their picks are independent: binomial with 1 in 20. */
  pIndependent: number | null;
  notes: Note[];
}
