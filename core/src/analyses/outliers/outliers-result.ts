import type { FencePlace } from '../../outliers/screens.js';
import type { Side } from '../../outliers/grubbs.js';
import type { Rule } from '../../outliers/rules.js';
import type { Slip } from '../../outliers/typing-slips.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../road/analysis.js';

/** Three have a farthest one that two others speak against. */
export const OUTLIERS_LEAST_N = 3;

/** One of the farthest readings. */
export interface Extreme {
  /** 1 for the most extreme, and so on. */
  place: number;
  row: number;
  value: number;
  /** Its label, where one is asked for. */
  group?: string;
  /** (x − mean)/sd of all readings. */
  z: number;
  /** The same without the more extreme readings, on the scale of the family; null where the others have no spread. */
  zWithout: number | null;
  modifiedZ: number;
  fence: FencePlace;
  /**
   * How often, in clean samples of n, the k-th most extreme reading lies at least as far out in scores taken without the more extreme ones: (b + 1)/(B + 1). Null while it is
   * simulated.
   */
  probability: number | null;
  /** Slips of the hand that would make an ordinary reading of it. */
  slips: Slip[];
}

/** A share of clean samples, with its 95 % interval. */
export interface FoundShare {
  share: number;
  interval: [number, number];
  replicates: number;
}

export interface EsdStepRow {
  statistic: number;
  critical: number;
  value: number;
  row: number;
}

/** What a rule says of the readings. */
export interface OutlierTest {
  rule: Rule;
  test: string;
  side: Side;
  /** Why it says nothing, or null. */
  reason: string | null;
  statistic: number | null;
  /** Null while it is simulated. */
  critical: number | null;
  pFormula: { pValue: number; exact: boolean } | null;
  pSimulated: SimulatedP | null;
  /** The p that the finding uses; rules of thumb have none. */
  pValue: number | null;
  pMethod: 'formula' | 'simulated' | null;
  /** The rows it names, the farthest first; null while that is not known. */
  rows: number[] | null;
  /** How often it names anything of a clean sample; null while that is simulated. */
  falseAlarms: FoundShare | null;
  /** Below and above these one further reading would be flagged; null where the rule has no such point, or while it is simulated. */
  lines: { lower: number | null; upper: number | null } | null;
  /** Of Dixon: which of his ratios. */
  ratio?: string;
  /** Of the generalised ESD. */
  steps?: EsdStepRow[];
  count?: number;
}

/** What the readings come to, all of them or without some. */
export interface Figures {
  n: number;
  mean: number;
  sd: number | null;
  median: number;
  skewness: number | null;
  meanInterval: [number, number] | null;
  sdInterval: [number, number] | null;
  /** A² against a normal with this mean and sd, and its p; null while that is simulated, or with fewer than five readings. */
  statistic: number | null;
  pValue: number | null;
  pMethod: 'asymptotic' | 'simulated' | null;
  /** The share of readings outside the limits, and that of a normal with this mean and sd. */
  outside: { counted: number; expected: number | null } | null;
}

export interface OutliersResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  confidence: number;
  rule: Rule;
  side: Side;
  most: number;
  /** The family, and its parameters as fitted. */
  family: string;
  parameters: Record<string, number>;
  /** True where the clean samples are rounded as the readings are. */
  rounded: boolean;
  replicates: number;
  mean: number;
  sd: number;
  median: number;
  fences: [number, number];
  extremes: Extreme[];
  tests: OutlierTest[];
  /** Of another family: what the rule of the study names for a normal, null while it is not known. */
  forNormal: { rows: number[] | null } | null;
  /** All readings; without those that the rule of the study names, one by one and all together. */
  without: { before: Figures; each: { row: number; value: number; after: Figures }[]; all: Figures | null } | null;
  /** Mean and sd without each reading in turn, in the order of the rows. */
  influence: { mean: Float64Array; sd: Float64Array };
  rows: Int32Array;
  readings: Float64Array;
  notes: Note[];
}

/** The test of the study. */
export const studyTest = ({ tests, rule }: Pick<OutliersResult, 'tests' | 'rule'>): OutlierTest =>
  tests.find((test) => test.rule === rule)!;
