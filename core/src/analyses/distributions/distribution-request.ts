import { z } from 'zod';
import type { Family, Parameters } from '../../distributions/family.js';
import { isRefusal } from '../../distributions/family.js';
import { completed, FAMILIES, familyByName, parameterFaults } from '../../distributions/registry.js';
import { columnSetting } from '../../road/settings.js';

const limit = z.number('A limit must be a number.');
const aboveZero = (what: string) =>
  z.number(`${what} must be a number above 0.`).positive(`${what} must be a number above 0.`);
const share = z
  .number('A proportion must be a number between 0 and 1; 0.25 means 25 %.')
  .gt(0, 'A proportion must lie between 0 and 1, exclusive; 0.25 means 25 %.')
  .lt(1, 'A proportion must lie between 0 and 1, exclusive; 0.25 means 25 %.');
const limits = z
  .tuple([limit, limit])
  .refine(([a, b]) => a < b, { message: 'The lower limit must be below the upper limit.', path: [1] });

/** The questions, one of which is asked. */
export const QUESTIONS = [
  'below',
  'above',
  'between',
  'outside',
  'withinSd',
  'recordedAs',
  'lowerShare',
  'upperShare',
  'centralShare',
  'at',
] as const;
export type Question = (typeof QUESTIONS)[number];

/** The request of the analysis `distribution`: a family, its parameters or moments, and one question (STATISTICS section 3). */
export const distributionRequest = z
  .strictObject({
    family: z.enum(FAMILIES.map(({ family }) => family)).default('normal'),
    parameters: z.record(z.string(), z.number('A parameter must be a number.')).optional(),
    /** In place of the parameters: those that have this mean and this sd or variance. */
    moments: z
      .strictObject({
        mean: z.number('The mean must be a number.'),
        sd: aboveZero('The standard deviation').optional(),
        variance: aboveZero('The variance').optional(),
        given: z.record(z.string(), z.number('A parameter must be a number.')).optional(),
      })
      .refine(
        ({ sd, variance }) => (sd === undefined) !== (variance === undefined),
        'Give either the standard deviation or the variance.',
      )
      .optional(),
    below: limit.optional(),
    above: limit.optional(),
    between: limits.optional(),
    outside: limits.optional(),
    withinSd: aboveZero('The number of standard deviations').optional(),
    recordedAs: limit.optional(),
    resolution: aboveZero('The resolution').optional(),
    lowerShare: share.optional(),
    upperShare: share.optional(),
    centralShare: share.optional(),
    at: z.array(limit).min(1, 'Give at least one value.').max(10_000, 'Give at most 10 000 values.').optional(),
    /** Whether the limits themselves belong to the region: for families of counts and for readings it matters. */
    ends: z.enum(['included', 'excluded']).optional(),
    /** A column of readings whose share in the same region is counted. */
    column: columnSetting.optional(),
  })
  .superRefine((settings, context) => {
    const asked = QUESTIONS.filter((question) => settings[question] !== undefined);
    if (asked.length !== 1) {
      const message = asked.length === 0 ? 'Ask one question:' : `Ask one question, not ${asked.length}:`;
      context.addIssue({ code: 'custom', message: `${message} ${QUESTIONS.join(', ')}.`, path: [asked[1] ?? 'below'] });
    }
    if (settings.recordedAs !== undefined && settings.resolution === undefined) {
      context.addIssue({
        code: 'custom',
        message: 'A recorded value needs a resolution.',
        path: ['resolution'],
      });
    }
    const found = parametersOf(settings);
    if ('message' in found) context.addIssue({ code: 'custom', message: found.message, path: found.path });
  });
export type DistributionRequest = z.infer<typeof distributionRequest>;

/** The parameters a request speaks of: given, found from moments, or where the family starts from. */
export function parametersOf({
  family: name,
  parameters,
  moments,
}: Pick<DistributionRequest, 'family' | 'parameters' | 'moments'>):
  { parameters: Parameters } | { message: string; path: string[] } {
  const family = familyByName(name);
  if (moments && parameters) return { message: 'Give either parameters or moments.', path: ['moments'] };
  if (!moments) {
    const given = parameters ?? usualParameters(family);
    const [fault] = parameterFaults(family, given);
    return fault
      ? { message: fault.message, path: ['parameters', fault.name] }
      : { parameters: completed(family, given) };
  }
  const { fromMoments } = family.estimation;
  if (!fromMoments)
    return {
      message: `The ${family.title} distribution is not determined by its mean and standard deviation.`,
      path: ['moments'],
    };
  const variance = moments.variance ?? moments.sd! * moments.sd!;
  const fixed = completed(family, { ...usualParameters(family), ...moments.given });
  const found = fromMoments(moments.mean, variance, fixed);
  if (isRefusal(found)) return { message: found.refused, path: ['moments'] };
  const full = { ...fixed, ...found };
  const [fault] = parameterFaults(family, full);
  return fault ? { message: fault.message, path: ['moments'] } : { parameters: full };
}

/** The parameters to start from. */
export function usualParameters(family: Family): Parameters {
  return Object.fromEntries(family.parameters.map(({ name, usual }) => [name, usual]));
}

export function questionOf(settings: DistributionRequest): Question {
  return QUESTIONS.find((question) => settings[question] !== undefined)!;
}
