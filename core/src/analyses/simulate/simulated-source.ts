import { fit } from '../../distributions/fit/fit.js';
import { isRefusal, type Parameters } from '../../distributions/family.js';
import { familyByName } from '../../distributions/registry.js';
import { formatValue, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Note } from '../../readings/note.js';
import type { Sample } from '../../readings/sample.js';
import type { Group } from '../../simulation/samples.js';
import type { Law, Move } from '../../simulation/laws.js';
import { lawOf, type Base, type Population } from '../../simulation/population.js';
import type { Claim, Counted } from '../../simulation/simulated-tests/simulated-test.js';
import type { Unavailable } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { leftOutNotes, unavailable, whyLabels, whyNotEven } from '../../road/cautions.js';
import type { SamplesAsked } from './asked-settings.js';
import { isMixed, populationWords, USUAL_TIMES, type PopulationAsked } from './population-settings.js';

/** What is drawn from, with what is true of it. */
export interface PopulationSource {
  population: Population;
  law: Law;
  /** Mean where there is one, else the median: what it is moved and widened about. */
  centre: number;
  /** The sd; null where there is none. */
  sd: number | null;
  /** "a normal distribution with mean 8 and sd 0.1". */
  words: string;
  /** The parameters of the law, given or fitted; null for a column. */
  parameters: Parameters | null;
  /** How many there are to draw from; null without end. */
  size: number | null;
  head: { unit: string; resolution: number | null; missing: number; setAside: number; notes: Note[] };
}

/** Beyond it squares cannot be held. */
const GREATEST = 1e150;

function baseOf(asked: PopulationAsked, sample: Sample): { base: Base; parameters: Parameters | null } | string {
  if (asked.from === 'family') {
    const parameters = asked.parameters as Parameters;
    return { base: { family: asked.family, parameters }, parameters };
  }
  const purpose = asked.from === 'fit' ? 'a fit' : 'sampling from it';
  const reason =
    whyLabels(sample) ?? whyNotEven(sample, asked.from === 'fit' ? 2 : 1, purpose) ?? whyCensored(sample, purpose);
  if (reason) return reason;
  if (asked.from === 'column')
    return { base: { values: sample.values, replacement: asked.replacement === 'with' }, parameters: null };
  const found = fit(familyByName(asked.family), sample.values, {
    ...{ method: 'maximum-likelihood', errors: false, resolution: sample.resolution },
    ...(asked.parameters ? { given: asked.parameters as Parameters } : {}),
  });
  if (isRefusal(found)) return found.refused;
  return { base: { family: asked.family, parameters: found.parameters }, parameters: found.parameters };
}

const moveOf = (centre: number, times: number, by: number): Move | null =>
  times === 1 && by === 0 ? null : { centre, times, by };

/** The population that is asked for, and what is true of it; why there is none. */
export function populationSource(asked: PopulationAsked, sample: Sample): PopulationSource | Unavailable {
  const found = baseOf(asked, sample);
  if (typeof found === 'string') return unavailable(sample, found);
  const { base, parameters } = found;
  const ownStep = asked.step ?? null;
  const plain: Population = { base, mixed: null, move: null, step: null };
  const ownLaw = lawOf(plain);
  const own = figuresOf(ownLaw);
  const mixed = isMixed(asked) ? mixedOf(asked, own) : null;
  if (typeof mixed === 'string') return unavailable(sample, mixed);
  const population: Population = { ...plain, mixed, step: ownStep };
  const law = mixed || ownStep !== null ? lawOf(population) : ownLaw;
  const figures = figuresOf(law);
  if (!(Math.abs(figures.centre) < GREATEST) || (figures.sd ?? 0) >= GREATEST)
    return unavailable(sample, 'The values of the population are too large to calculate with. Choose a larger unit.');
  const ofColumn = asked.from !== 'family';
  return {
    ...{ population, law, parameters, ...figures },
    words: populationWords(asked, sample.name, asked.from === 'fit' ? parameters : null),
    size: asked.from === 'column' ? sample.values.length : null,
    head: {
      unit: ofColumn ? sample.unit : '',
      resolution: ownStep ?? (asked.from === 'column' && !mixed ? sample.resolution : null),
      ...{ missing: sample.missing, setAside: sample.setAside },
      notes: [...(ofColumn ? leftOutNotes(sample) : []), ...momentNotes(law)],
    },
  };
}

function figuresOf(law: Law): { centre: number; sd: number | null } {
  const sd = Math.sqrt(law.variance);
  return { centre: Number.isFinite(law.mean) ? law.mean : law.quantile(0.5), sd: Number.isFinite(sd) ? sd : null };
}

function mixedOf(
  asked: PopulationAsked,
  { centre, sd }: { centre: number; sd: number | null },
): Population['mixed'] | string {
  const { mixedShare: share = 0, mixture, mixedTimes = USUAL_TIMES, mixedBy = USUAL_TIMES } = asked;
  if (mixture === 'family')
    return { share, from: { family: asked.mixedFamily, parameters: asked.mixedParameters as Parameters } };
  if (mixture === 'wider') return { share, from: { move: { centre, times: mixedTimes, by: 0 } } };
  if (sd === null)
    return 'The population has no standard deviation, so a shift in SDs is not defined. Choose another kind of contamination.';
  return { share, from: { move: { centre, times: 1, by: mixedBy * sd } } };
}

function momentNotes(law: Law): Note[] {
  if (!Number.isFinite(law.mean)) {
    const text = 'Sample means do not converge, because this population has no mean. The median is used instead.';
    return [{ code: 'no-mean', text }];
  }
  if (Number.isFinite(law.variance)) return [];
  const text =
    'Results based on a standard deviation do not converge, because this population has none (its tails are too heavy).';
  return [{ code: 'no-sd', text }];
}

/** How far the first group lies off and how much wider it is than what is claimed. */
export function movedBy({ shift, shiftInSd, ratio = 1 }: SamplesAsked, source: PopulationSource): Move | null | string {
  const { centre, sd } = source;
  if (shiftInSd !== undefined && shiftInSd !== 0 && sd === null)
    return 'The population has no standard deviation. Enter the shift in the unit of the readings.';
  return moveOf(centre, ratio, shift ?? (shiftInSd ?? 0) * (sd ?? 0));
}

/** The groups that are drawn: the first moved, the second as it is; why they cannot be. */
export function groupsDrawn(
  asked: SamplesAsked & { groups?: 'one' | 'two' | undefined },
  source: PopulationSource,
): Group[] | string {
  const { population, size } = source;
  const move = movedBy(asked, source);
  if (typeof move === 'string') return move;
  const sizes = [asked.n, ...(asked.groups === 'two' ? [asked.secondN ?? asked.n] : [])];
  const without = 'values' in population.base && !population.base.replacement;
  const tooMany = sizes.find((n) => without && n > size!);
  if (tooMany !== undefined)
    return `A sample of ${groupThousands(tooMany)} cannot be drawn without replacement from ${plural(size!, 'reading')}. Choose sampling with replacement, or a smaller sample.`;
  return sizes.map((n, g) => ({ n, population: g === 0 ? { ...population, move } : population }));
}

/** The effect to detect: "a shift of 0.5 SD"; null where there is none. */
export function effectWords(
  { shift, shiftInSd, ratio = 1 }: Pick<SamplesAsked, 'shift' | 'shiftInSd' | 'ratio'>,
  unit: string,
): string | null {
  const sign = (x: number) => formatValue(x);
  const far = shift ?? shiftInSd ?? 0;
  const moved =
    far === 0
      ? null
      : shift !== undefined
        ? `a shift of ${sign(far)}${unit ? `\u00a0${unit}` : ''}`
        : `a shift of ${sign(far)} SD`;
  const wider = ratio === 1 ? null : `a standard deviation ${formatValue(ratio)} times as large`;
  return moved && wider ? `${moved} and ${wider}` : (moved ?? wider);
}

/** Readings drawn in one sample, over all groups. */
export const drawnAtOnce = (groups: readonly Group[]): number => groups.reduce((sum, { n }) => sum + n, 0);

/** The share of a population that is counted; exact, ends included. */
export function shareOf(law: Law, { lower, upper, of }: Counted): number {
  const below = lower === null ? 0 : law.cumulative(before(lower));
  const above = upper === null ? 0 : law.survival(upper);
  return of === 'outside' ? below + above : 1 - below - above;
}

/** The double next below: P(X < x) is P(X ≤ it) of whatever has no value in between. */
function before(x: number): number {
  const parts = new Float64Array([x]);
  const bits = new BigInt64Array(parts.buffer);
  if (x === 0) return -Number.MIN_VALUE;
  bits[0]! += x > 0 ? -1n : 1n;
  return parts[0]!;
}

/** What is true of a population, as tests and intervals are held against it. */
export function truthOf(law: Law, counted: Counted | null): Claim {
  const median = law.quantile(0.5);
  return {
    median,
    mean: Number.isFinite(law.mean) ? law.mean : median,
    sd: Math.sqrt(law.variance),
    share: counted ? shareOf(law, counted) : 0,
    counted,
  };
}
