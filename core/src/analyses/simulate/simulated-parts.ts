import type { Law } from '../../simulation/laws.js';
import type { Group, Repeated } from '../../simulation/samples.js';
import type { Theory } from '../../simulation/theory.js';
import type { Counted } from '../../simulation/simulated-tests/simulated-test.js';
import type { Notation } from '../../road/formatted.js';
import type { RepeatedAsked, SamplesAsked } from './asked-settings.js';
import type { PopulationAsked } from './population-settings.js';
import type { PopulationSource } from './simulated-source.js';

export type SimulationAsked = PopulationAsked & SamplesAsked & RepeatedAsked;

/** What is drawn from, and how many. */
export interface Drawn {
  source: PopulationSource;
  groups: Group[];
  /** The law of every group, as it is drawn from. */
  laws: Law[];
}

/** Everything that is known before anything is drawn. */
export interface Simulated extends Drawn {
  repeated: Repeated;
  told: Notation;
  what: string;
  truth: number | null;
  theory: Theory | null;
  holds: boolean | null;
  claim: string;
  /** How many times as long as a t test a sample takes, about. */
  cost: number;
}

/** What is known of what is drawn when it is asked what is done with it. */
export interface Of extends Drawn {
  asked: SimulationAsked;
  counted: Counted | null;
}
/** What is found of a figure, a test or an interval. */
export type Found = Omit<Simulated, keyof Drawn>;

/** "samples of 10". */
export const sizesWords = (groups: readonly Group[]): string =>
  groups.length === 1 || groups[0]!.n === groups[1]!.n
    ? `samples of ${groups[0]!.n}`
    : `samples of ${groups[0]!.n} and ${groups[1]!.n}`;

export const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);
