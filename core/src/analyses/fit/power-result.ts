import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import type { Parameters } from '../../distributions/family.js';
import type { FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import type { NormalityTestName } from '../../goodness-of-fit/normality/battery.js';
import type { Noticed } from '../../goodness-of-fit/power.js';
import type { Note } from '../../road/analysis.js';
import type { DepartureScale } from './power-departures.js';

/** How often one way to depart is noticed at this n, from hardly departing to far. */
export interface DepartureCurve {
  kind: DepartureScale['kind'];
  points: (Noticed & { value: number })[];
}

/** How often another distribution is noticed, over n. */
export interface FamilyCurve {
  family: string;
  parameters: Parameters;
  points: (Noticed & { n: number })[];
  /** The n that notices it 8 times in 10; null where more than the greatest tried are needed. */
  needed: number | null;
}

interface Common {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  replicates: number;
  notes: Note[];
}

/** What the estimated normal is tested against. */
export interface NormalPower extends Common {
  of: 'normal';
  test: NormalityTestName;
  curves: DepartureCurve[];
  /** The departure that was asked about, how often it is noticed at this n, and at others; noticed is null while it is simulated. */
  asked: {
    kind: DepartureScale['kind'];
    value: number;
    at: Noticed | null;
    over: (Noticed & { n: number })[];
    /** The n that notices it 8 times in 10; null where more than the greatest tried are needed. */
    needed: number | null;
  };
}

export interface FamiliesPower extends Common {
  of: 'families';
  test: FittedTest;
  law: PlottedLaw;
  /** The nearest to the readings first. */
  curves: FamilyCurve[];
}

export type PowerResult = NormalPower | FamiliesPower;

/** What "would be noticed" asks for. */
export const WANTED = 0.8;
/** The greatest n that is tried of a normal: until it is, more may be found. */
export const GREATEST_SIZE = 2_000;
