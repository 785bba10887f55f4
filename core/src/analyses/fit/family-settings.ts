import { CONTINUOUS } from '../../distributions/measured.js';
import { z } from 'zod';
import type { Fitting } from '../../distributions/fit/refit.js';
import type { Family, Parameters } from '../../distributions/family.js';
import { completed, familyByName } from '../../distributions/registry.js';
import type { Field, SentencePart } from '../../road/analysis.js';
import { parametersSetting } from '../../road/family-parameters.js';

const hasThreshold = ({ parameters }: Family) => parameters.some(({ name }) => name === 'threshold');
const WITH_THRESHOLD = CONTINUOUS.filter(hasThreshold).map(({ family }) => family);

const family = z.enum(CONTINUOUS.map(({ family: name }) => name) as [string, ...string[]]).default('normal');

/** The settings that say against which distribution readings are held. */
export const familyShape = {
  family,
  /** By name, or in the order of the family; left out they are estimated. */
  parameters: parametersSetting,
  threshold: z.enum(['none', 'estimated']).default('none'),
};

/** What a request says of the distribution once it is read: parameters by name. */
export interface AskedFamily {
  family: string;
  parameters?: Parameters | undefined;
  threshold: 'none' | 'estimated';
}

/** A claim gives all that the family must have, and what may be left out stands at its usual value; otherwise what is not given is estimated. */
export function fittingOf({ family: name, parameters: given = {}, threshold }: AskedFamily): Fitting {
  const of = familyByName(name);
  if (of.parameters.every((spec) => spec.optional || spec.name in given)) {
    return { family: name, given: completed(of, given), estimateThreshold: false };
  }
  const estimateThreshold = threshold === 'estimated' && hasThreshold(of) && !('threshold' in given);
  return { family: name, given, estimateThreshold };
}

const byTitle = CONTINUOUS.map(({ family: value, title }) => ({ value, text: `${title} distribution` }));
const familyField: Field = { field: 'family', label: 'distribution', type: 'choice', options: byTitle };

/** "the [normal distribution] with parameters [estimated]": the words that stand for it in a sentence. */
export const FAMILY_PARTS: readonly SentencePart[] = [
  familyField,
  ' with parameters ',
  { field: 'parameters', label: 'parameters', type: 'parameters', empty: 'estimated' },
  {
    text: ', ',
    showWhen: [
      { field: 'family', is: WITH_THRESHOLD },
      { field: 'parameters', is: 'undefined' },
    ],
  },
  {
    field: 'threshold',
    label: 'threshold',
    type: 'choice',
    options: [
      { value: 'none', text: 'threshold 0' },
      { value: 'estimated', text: 'threshold estimated' },
    ],
    showWhen: [
      { field: 'family', is: WITH_THRESHOLD },
      { field: 'parameters', is: 'undefined' },
    ],
  },
];
