import { quartilesOfSorted, type QuantileType } from '../../describe/quantiles.js';
import { dixonLine, dixonRatioFor } from '../../outliers/dixon.js';
import { endsOf, type EsdResult } from '../../outliers/generalized-esd.js';
import { centreAndSpread } from '../../outliers/grubbs.js';
import type { Rule } from '../../outliers/rules.js';
import type { Side } from '../../outliers/grubbs.js';
import { FENCE, MODIFIED_Z_LIMIT, robustScale, Z_LIMIT } from '../../outliers/screens.js';
import type { Scale } from './outlier-scale.js';
import type { OutlierTest } from './outliers-result.js';

type Lines = OutlierTest['lines'];
type Asked = { side: Side; quantileType: QuantileType };

const about = (middle: number, reach: number): [number, number] => [middle - reach, middle + reach];

/** Mean and sd of what is left at a step, and its critical value: of the last step that names a reading, else of the first. */
function esdLine(sorted: Float64Array, { steps, count }: EsdResult): [number, number] | null {
  const step = steps[Math.max(0, count - 1)];
  if (!step) return null;
  const { low, high } = endsOf({ steps, count: Math.max(0, count - 1) });
  const { mean, sd } = centreAndSpread(sorted.subarray(low, sorted.length - high));
  return about(mean, step.critical * sd);
}

function onScale(
  rule: Rule,
  sorted: Float64Array,
  { quantileType }: Asked,
  critical: number | null,
  esd: EsdResult | null,
): [number, number] | null {
  switch (rule) {
    case 'grubbs':
    case 'z-score': {
      const { mean, sd } = centreAndSpread(sorted);
      const reach = rule === 'grubbs' ? critical : Z_LIMIT;
      return reach === null ? null : about(mean, reach * sd);
    }
    case 'modified-z': {
      const { median, unit } = robustScale(sorted);
      return about(median, MODIFIED_Z_LIMIT * unit);
    }
    case 'fences': {
      const [q1, q3] = quartilesOfSorted(sorted, quantileType);
      return [q1 - FENCE * (q3 - q1), q3 + FENCE * (q3 - q1)];
    }
    case 'dixon': {
      const ratio = dixonRatioFor(sorted.length);
      if (!ratio || critical === null) return null;
      return [dixonLine(sorted, ratio, 'lower', critical), dixonLine(sorted, ratio, 'upper', critical)];
    }
    case 'generalized-esd':
      return esd && esdLine(sorted, esd);
    default:
      return null;
  }
}

/** The readings beyond which a rule names one, as the others lie; null where a rule draws no such line, or is still simulated. */
export function linesOf(
  rule: Rule,
  scale: Scale,
  asked: Asked,
  critical: number | null,
  esd: EsdResult | null = null,
): Lines {
  const found = onScale(rule, scale.sorted, asked, critical, esd);
  if (!found) return null;
  const held = (place: number) => {
    const reading = scale.reading(place);
    return Number.isFinite(reading) ? reading : null;
  };
  return {
    lower: asked.side === 'upper' ? null : held(found[0]),
    upper: asked.side === 'lower' ? null : held(found[1]),
  };
}
