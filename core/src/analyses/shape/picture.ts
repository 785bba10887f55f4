import { z } from 'zod';
import { describe } from '../../describe/describe.js';
import type { Note } from '../../readings/note.js';
import type { Sample } from '../../readings/sample.js';
import { fit } from '../../distributions/fit/fit.js';
import { isRefusal, type Parameters } from '../../distributions/family.js';
import { FAMILIES, familyByName } from '../../distributions/registry.js';
import { unavailable, leftOutNotes, whyEmpty } from '../../road/cautions.js';
import { partsOf } from '../../road/groups.js';
import type { SentencePart, Unavailable } from '../../road/analysis.js';
import { choice } from '../../road/setting.js';

const axis = choice(
  'axis',
  'axis',
  [
    { value: 'readings', text: 'the readings' },
    { value: 'scores', text: 'standard scores (SD with n − 1)' },
    { value: 'population-scores', text: 'standard scores (SD with n)' },
    { value: 'given-scores', text: 'standard scores from a given mean and SD' },
  ],
  'readings',
);

/** Settings that every picture has: titles written over its own, and what its axis of readings shows. */
export const pictureSettings = {
  title: z.string().max(120, 'A title must have at most 120 characters.').optional(),
  valueTitle: z.string().max(80, 'An axis title must have at most 80 characters.').optional(),
  heightTitle: z.string().max(80, 'An axis title must have at most 80 characters.').optional(),
  axis: axis.schema,
  scoreMean: z.number('The mean must be a number.').optional(),
  scoreSd: z
    .number('The standard deviation must be a number.')
    .positive('The standard deviation must be above 0.')
    .optional(),
};
type Axis = z.infer<typeof axis.schema>;

/** The end of the sentence of every picture. */
export const AXIS_PARTS: readonly SentencePart[] = [
  '; axis: ',
  axis.field,
  { text: ', mean ', showWhen: { field: 'axis', is: 'given-scores' } },
  {
    field: 'scoreMean',
    label: 'mean of the scores',
    type: 'number',
    empty: '?',
    showWhen: { field: 'axis', is: 'given-scores' },
  },
  { text: ' and SD ', showWhen: { field: 'axis', is: 'given-scores' } },
  {
    field: 'scoreSd',
    label: 'SD of the scores',
    type: 'number',
    above: 0,
    empty: '?',
    showWhen: { field: 'axis', is: 'given-scores' },
  },
  '.',
];

/** The mean and sd that standard scores are taken with, the same for all parts. */
export interface Scores {
  mean: number;
  sd: number;
  /** Which sd it is: "n − 1", "n", "given". */
  divisor: string;
}

function scoresOf(sample: Sample, asked: AxisAsked, notes: Note[]): Scores | null {
  const { axis, scoreMean, scoreSd } = asked;
  if (axis === 'readings') return null;
  const missing = (text: string) => {
    notes.push({ code: 'no-scores', text });
    return null;
  };
  if (axis === 'given-scores') {
    if (scoreMean !== undefined && scoreSd !== undefined) return { mean: scoreMean, sd: scoreSd, divisor: 'given' };
    return missing('The axis shows the readings, because mean and SD of the standard scores are not set. Enter both.');
  }
  const { mean, sd, sdPopulation } = describe(sample.values, sample.resolution);
  if (!sd) return missing('The axis shows the readings: standard scores need readings that vary.');
  return axis === 'scores' ? { mean, sd, divisor: 'n − 1' } : { mean, sd: sdPopulation, divisor: 'n' };
}

interface AxisAsked {
  axis: Axis;
  scoreMean?: number | undefined;
  scoreSd?: number | undefined;
}

/** What the pictures of Shape have in common: one part for a column, or one for each group, over a common axis. */
export interface Picture<Part> {
  available: true;
  column: string;
  unit: string;
  resolution: number | null;
  n: number;
  missing: number;
  setAside: number;
  by: string | null;
  /** True where the parts are levels or columns, not the column as a whole. */
  grouped: boolean;
  /** The standard scores that the axis shows; null where it shows the readings. */
  scores: Scores | null;
  parts: (Part & { name: string; n: number })[];
  notes: Note[];
}

/** Beyond these, edges and densities leave the doubles. */
const GREATEST = 1e300;
const LEAST = 1e-300;

/** Why no picture can be drawn of these readings, or null. */
function whyNoPicture(sample: Sample): string | null {
  if (sample.values.length === 0) return whyEmpty(sample);
  let least = Infinity;
  let greatest = -Infinity;
  for (const value of sample.values) {
    if (value < least) least = value;
    if (value > greatest) greatest = value;
  }
  const size = Math.max(-least, greatest);
  if (size <= GREATEST && (size === 0 || size >= LEAST)) return null;
  const unit = size > GREATEST ? 'larger' : 'smaller';
  return `The readings of ${sample.name} are too ${unit === 'larger' ? 'large' : 'small'} for an axis. Choose a ${unit} unit.`;
}

/**
 * A picture of a sample: what all of its parts share is worked out from the readings that are shown, then each part.
 * `shared` gets those readings and the resolution they have in common.
 */
export function pictured<Shared, Part>(
  sample: Sample,
  asked: AxisAsked,
  shared: (values: Float64Array, resolution: number | null) => Shared,
  part: (sample: Sample, shared: Shared) => Part,
): { picture: Picture<Part>; shared: Shared; shown: Float64Array } | Unavailable {
  const reason = whyNoPicture(sample);
  if (reason !== null) return unavailable(sample, reason);
  const { by, parts, notes } = partsOf(sample);
  if (parts.length === 0) return unavailable(sample, `No reading of ${sample.name} belongs to a group.`);
  const shown = sample.groups ? joinedValues(parts) : sample.values;
  const resolutions = new Set(parts.map(({ resolution }) => resolution));
  const resolution = resolutions.size === 1 ? parts[0]!.resolution : null;
  const common = shared(shown, resolution);
  const { name: column, unit, missing, setAside } = sample;
  const said = [...leftOutNotes(sample), ...notes];
  const scores = scoresOf(sample, asked, said);
  const picture: Picture<Part> = {
    ...{ available: true, column, unit, resolution, n: sample.values.length, missing, setAside, by },
    grouped: sample.groups !== undefined,
    parts: parts.map((one) => ({ name: one.name, n: one.values.length, ...part(one, common) })),
    scores,
    notes: said,
  };
  return { picture, shared: common, shown };
}

function joinedValues(parts: readonly Sample[]): Float64Array {
  const values = new Float64Array(parts.reduce((sum, { values: own }) => sum + own.length, 0));
  let at = 0;
  for (const { values: own } of parts) {
    values.set(own, at);
    at += own.length;
  }
  return values;
}

/** A curve fitted to a part, or why there is none. */
export type FittedCurve = { family: string; parameters: Parameters } | { refused: string } | null;

const FITTED = FAMILIES.filter(({ discrete, estimation }) => !discrete && !estimation.never);

/** Which fitted curve is drawn, or none. */
export const curveChoice = (label: string, usual: string) =>
  choice(
    'curve',
    label,
    [
      { value: 'none', text: 'no fitted distribution' },
      ...FITTED.map(({ family, title }) => ({ value: family, text: `the fitted ${title}` })),
    ] as { value: string; text: string }[],
    usual,
  );

/** The family fitted to a part: a normal by its mean and sd (divisor n − 1, the sd that stands beside it), others where the likelihood is greatest. */
export function fittedCurve({ values, resolution }: Sample, family: string): FittedCurve {
  if (family === 'none') return null;
  const method = family === 'normal' ? 'moments' : 'maximum-likelihood';
  const found = fit(familyByName(family), values, { method, resolution, errors: false });
  if (isRefusal(found)) return { refused: found.refused };
  return { family, parameters: found.parameters };
}

/** What is said of the parts that could not be fitted. */
export function curveNotes(parts: readonly { name: string; curve: FittedCurve }[], grouped: boolean): Note[] {
  return parts.flatMap(({ name, curve }) =>
    curve && 'refused' in curve
      ? [{ code: 'no-curve', text: `No distribution could be fitted${grouped ? ` to ${name}` : ''}. ${curve.refused}` }]
      : [],
  );
}
