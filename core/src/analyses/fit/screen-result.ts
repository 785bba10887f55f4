import type { NormalityTestName } from '../../goodness-of-fit/normality/battery.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../road/analysis.js';

/** What the test of one column or group came to, all of them sharing the level; `open` while p is not known. */
export type Ruling = 'departs' | 'no-evidence' | 'rounding' | 'open';

export interface ScreenedPart {
  name: string;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  /** Why there is no test, or null. */
  reason: string | null;
  statistic: number | null;
  pSimulated: SimulatedP | null;
  /** Against a normal rounded as the readings are: where the plain p speaks against normal and the readings step. */
  pResolution: SimulatedP | null;
  /** The p that is judged, and the same after Holm’s steps over all that could be tested. */
  p: number | null;
  pHolm: number | null;
  ruling: Ruling | null;
  /** By AICc: the family that ranks first, and those that are plausible beside it. */
  best: string | null;
  together: string[];
  /** A small normal plot: expected along, observed upwards, as shares of the range; null where there is no test. */
  small: { expected: number[]; observed: number[] } | null;
}

export interface ScreenResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  alpha: number;
  /** The label column, or null where the parts are columns. */
  by: string | null;
  test: NormalityTestName;
  replicates: number;
  parts: ScreenedPart[];
  notes: Note[];
}
