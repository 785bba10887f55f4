import { QUANTILE_TYPES } from '../../describe/quantiles.js';
import type { Setting } from '../../road/setting.js';
import { quantileTypeSetting } from '../../road/settings.js';
import { quantileChoice } from './describe-words.js';

/** The definition of quartiles, one for all that a study shows. */
export const quartiles = {
  schema: quantileTypeSetting,
  field: {
    field: 'quantileType',
    label: 'definition of quartiles',
    type: 'choice',
    options: QUANTILE_TYPES.map((type) => ({ value: String(type), text: quantileChoice(type) })),
  },
} as const satisfies Setting<typeof quantileTypeSetting>;
