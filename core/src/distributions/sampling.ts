import { fillNormals } from '../random/normal.js';
import { createStream, nextOpenUnit } from '../random/stream.js';

/** A family that values can be drawn from: its parameters, and what makes a set of them impossible. */
export interface SampledFamily {
  title: string;
  parameters: readonly { name: string; title: string; positive: boolean; usual: number }[];
  /** Why these parameters do not go together, or null. */
  objection(parameters: Readonly<Record<string, number>>): string | null;
  /** Fills `into` from stream 0 of the seed. */
  fill(parameters: Readonly<Record<string, number>>, seed: number, into: Float64Array): void;
}

/** The families that can be drawn from so far. */
export const SAMPLED_FAMILIES = {
  normal: {
    title: 'normal',
    parameters: [
      { name: 'mean', title: 'mean', positive: false, usual: 0 },
      { name: 'sd', title: 'sd', positive: true, usual: 1 },
    ],
    objection: () => null,
    fill({ mean, sd }, seed, into) {
      fillNormals(createStream(seed, 0), into);
      for (let i = 0; i < into.length; i++) into[i] = mean! + sd! * into[i]!;
    },
  },
  uniform: {
    title: 'uniform',
    parameters: [
      { name: 'lower', title: 'from', positive: false, usual: 0 },
      { name: 'upper', title: 'to', positive: false, usual: 1 },
    ],
    objection: ({ lower, upper }) => (lower! < upper! ? null : `“from” (${lower}) must lie below “to” (${upper}).`),
    fill({ lower, upper }, seed, into) {
      const stream = createStream(seed, 0);
      for (let i = 0; i < into.length; i++) into[i] = lower! + (upper! - lower!) * nextOpenUnit(stream);
    },
  },
} satisfies Record<string, SampledFamily>;

export type SampledFamilyName = keyof typeof SAMPLED_FAMILIES;
