import { z } from 'zod';
import { histogram } from '../../describe/histogram.js';
import { curveOver, wellPlaced, type Curve } from '../../distributions/curve.js';
import { familyByName } from '../../distributions/registry.js';
import { groupThousands } from '../../numeric/format.js';
import type { Note } from '../../readings/note.js';
import type { Law } from '../../simulation/laws.js';
import { isColumn } from '../../simulation/population.js';
import { defineAnalysis, type Piece, type SentencePart } from '../../road/analysis.js';
import { wholeSentence } from '../../road/method-sentence.js';
import { formatQuantity, type Scale } from '../../road/formatted.js';
import { hasItsColumn, ITS_COLUMN, POPULATION, populationShape, withLawsRead } from './population-settings.js';
import { populationSource, type PopulationSource } from './simulated-source.js';
import type { PopulationTruth } from './simulate-result.js';

const request = z
  .strictObject(populationShape)
  .refine((asked) => hasItsColumn(asked), ITS_COLUMN)
  .transform((asked, context) => withLawsRead(asked, context));
export type PopulationRequest = z.infer<typeof request>;

/** What samples are drawn from, as a picture. */
export interface PopulationResult extends PopulationTruth {
  available: true;
  unit: string;
  resolution: number | null;
  /** The parameters of the law, given or fitted; null for a column. */
  parameters: Record<string, number> | null;
  /** Where the picture begins and ends. */
  window: { from: number; to: number };
  /** A density, or the chances of the values there are; null for a column. */
  curve: Curve | null;
  /** Shares by stretch over their width: of a column, and of what is rounded. */
  bars: { from: number; to: number; height: number }[];
  notes: Note[];
}

const STRETCHES = 60;
const OUT_OF_SIGHT = 5e-4;

/** Where nearly all of a law lies. */
function windowOf(law: Law, step: number | null): { from: number; to: number } {
  const [q1, q3, median] = [law.quantile(0.25), law.quantile(0.75), law.quantile(0.5)];
  const reach = 6 * (q3 - q1 || Math.abs(median) || 1);
  const [low, high] = [law.quantile(OUT_OF_SIGHT), law.quantile(1 - OUT_OF_SIGHT)];
  const half = (step ?? 0) / 2;
  const [from, to] = [Math.max(low, median - reach) - half, Math.min(high, median + reach) + half];
  const air = (to - from || Math.abs(median) || 1) * 0.04;
  return { from: from - air, to: to + air };
}

/** Chances of stretches of a law: of its steps where these are few, else of sixty. */
function barsOf(law: Law, { from, to }: { from: number; to: number }, step: number | null): PopulationResult['bars'] {
  const wide = (to - from) / STRETCHES;
  const width = step === null ? wide : step * Math.max(1, Math.ceil(wide / step));
  const first = step === null ? from : (Math.floor(from / step) - 0.5) * step;
  const count = Math.max(1, Math.ceil((to - first) / width));
  return Array.from({ length: count }, (_, i) => {
    const [low, high] = [first + i * width, first + (i + 1) * width];
    return { from: low, to: high, height: Math.max(0, law.cumulative(high) - law.cumulative(low)) / width };
  });
}

function pictureOf(
  { population, law }: PopulationSource,
  resolution: number | null,
): Pick<PopulationResult, 'window' | 'curve' | 'bars'> {
  const { base, mixed, step } = population;
  if (isColumn(base) && !mixed) {
    const { edges, counts } = histogram(Float64Array.from(base.values), step ?? resolution, {
      rule: 'freedman-diaconis',
    });
    const n = base.values.length;
    const bars = counts.map((count, i) => ({
      ...{ from: edges[i]!, to: edges[i + 1]! },
      height: count / n / (edges[i + 1]! - edges[i]!),
    }));
    return { window: { from: edges[0]!, to: edges.at(-1)! }, curve: null, bars };
  }
  if (!isColumn(base) && !mixed && step === null) {
    const family = familyByName(base.family);
    const distribution = family.of(base.parameters);
    const window = wellPlaced(family, distribution);
    return { window, curve: curveOver(family, distribution, window, 'density'), bars: [] };
  }
  const window = windowOf(law, step);
  return { window, curve: null, bars: barsOf(law, window, step) };
}

function resultOf(source: PopulationSource): PopulationResult {
  const { law, words, sd, size, head, parameters } = source;
  return {
    ...{ available: true, words, size, sd, parameters, notes: head.notes },
    ...{ unit: head.unit, resolution: head.resolution },
    mean: Number.isFinite(law.mean) ? law.mean : null,
    median: law.quantile(0.5),
    ...pictureOf(source, head.resolution),
  };
}

export function populationFinding(result: PopulationResult): Piece[] {
  const scale: Scale = { unit: result.unit, resolution: result.resolution, as: 'reading' };
  const { mean, sd, median, size } = result;
  const said = (text: string) =>
    size === null ? text.charAt(0).toUpperCase() + text.slice(1) : `${groupThousands(size)} readings: ${text}`;
  if (mean === null)
    return [
      { text: said('no mean and no standard deviation; median ') },
      { text: formatQuantity(median, scale), strong: true, code: 'figure' } as const,
      { text: '.' },
    ];
  return [
    { text: said('true mean ') },
    { text: formatQuantity(mean, scale), strong: true, code: 'figure' } as const,
    { text: sd === null ? ', no standard deviation.' : ', true standard deviation ' },
    ...(sd === null
      ? []
      : [{ text: formatQuantity(sd, scale, 'spread'), strong: true, code: 'figure' } as const, { text: '.' }]),
  ];
}

const method: readonly SentencePart[] = ['Show ', ...wholeSentence(POPULATION), '.'];

/** What samples are drawn from: its picture, its true mean and sd. */
export const populationAnalysis = defineAnalysis<PopulationRequest, PopulationResult>({
  id: 'population',
  version: 2,
  name: 'Population',
  title: 'the population that samples are drawn from, with its true mean and standard deviation',
  needsReadings: false,
  request,
  method,
  subject: ({ column }) => column ?? 'a distribution',
  resolve: (asked) => asked,
  *run(asked, sample) {
    const source = populationSource(asked, sample);
    return 'available' in source ? source : resultOf(source);
  },
  finding: populationFinding,
});
