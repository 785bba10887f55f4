import type { Sample } from '../../readings/sample.js';
import { lawOf } from '../../simulation/population.js';
import type { SimulatedSamples } from '../../simulation/samples.js';
import type { Counted } from '../../simulation/simulated-tests/simulated-test.js';
import type { Unavailable } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import type { RepeatedAsked, SamplesAsked } from './asked-settings.js';
import type { PopulationAsked } from './population-settings.js';
import { ofInterval } from './simulated-ends.js';
import { ofTest } from './simulated-p.js';
import type { Drawn, Simulated, SimulationAsked } from './simulated-parts.js';
import { groupsDrawn, populationSource, type PopulationSource } from './simulated-source.js';
import { ofStatistic } from './simulated-statistic.js';

const needsLimits = (asked: SimulationAsked): boolean =>
  ['share', 'difference-of-shares'].includes(asked.statistic ?? '') ||
  ['share', 'fisher'].includes(asked.test ?? '') ||
  ['share', 'exact-share', 'difference-of-shares'].includes(asked.interval ?? '');

function countedOf(asked: SimulationAsked): Counted | null | string {
  if (!needsLimits(asked)) return null;
  const { lower = null, upper = null, of } = asked;
  if (lower === null && upper === null) return 'Enter the limits for the proportion.';
  if (lower !== null && upper !== null && lower > upper)
    return `The upper limit ${upper} is below the lower limit ${lower}.`;
  return { lower, upper, of };
}

/** Nothing varies but for the dust of rounding. */
const isConstant = ({ sd, centre }: PopulationSource): boolean => sd !== null && sd <= 1e-14 * Math.abs(centre);

/** The populations that are asked for; why there are none. `known` is the population where it has been worked out. */
export function drawnFrom(
  asked: PopulationAsked & SamplesAsked & Pick<RepeatedAsked, 'groups'>,
  sample: Sample,
  known?: PopulationSource,
): Drawn | Unavailable {
  const source = known ?? populationSource(asked, sample);
  if ('available' in source) return source;
  if (isConstant(source))
    return unavailable(sample, 'All values of the population are equal, so all samples would be the same.');
  const groups = groupsDrawn(asked, source);
  if (typeof groups === 'string') return unavailable(sample, groups);
  const laws = groups.map(({ population }, g) => (g === 0 && population.move ? lawOf(population) : source.law));
  return { source, groups, laws };
}

/** What is asked of which population, before anything is drawn; why it cannot be had. */
export function simulated(asked: SimulationAsked, sample: Sample, known?: Drawn): Simulated | Unavailable {
  const drawn = known ?? drawnFrom(asked, sample);
  if ('available' in drawn) return drawn;
  const counted = countedOf(asked);
  if (typeof counted === 'string') return unavailable(sample, counted);
  const of = { asked, ...drawn, counted };
  const found = asked.test !== undefined ? ofTest(of) : asked.interval !== undefined ? ofInterval(of) : ofStatistic(of);
  return typeof found === 'string' ? unavailable(sample, found) : { ...found, ...drawn };
}

/** What the kernel is given. */
export const samplesOf = ({ groups, repeated }: Simulated, table: Float64Array | null): SimulatedSamples => ({
  groups,
  repeated: repeated.what === 'test' ? { ...repeated, table } : repeated,
});
