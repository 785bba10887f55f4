import { rejectionLimit } from '../../goodness-of-fit/simulated-p.js';
import { dixonRatioFor } from '../../outliers/dixon.js';
import { APPROXIMATE_BELOW, ESD_LEAST_N, esdCritical } from '../../outliers/generalized-esd.js';
import { grubbsCritical } from '../../outliers/grubbs.js';
import type { Rule } from '../../outliers/rules.js';
import { Z_LIMIT } from '../../outliers/screens.js';
import { flagsByRule, flagsByScore, flagsBySteps, thresholdOf } from '../../outliers/threshold.js';
import { byFormula, cleanWork, columnsOf, type Judged, type Settings } from './outlier-judging.js';
import type { OutlierTest } from './outliers-result.js';
import { stepsAtMost } from './outliers-settings.js';
import { RULE_FACTS } from './rule-facts.js';

type Lines = OutlierTest['lines'];
type End = 'upper' | 'lower';

/** The settings with which a sample of one reading more is judged. */
const ofOneMore = (settings: Settings, n: number): Settings => ({
  ...settings,
  most: stepsAtMost(settings.most, n + 1),
});

/** Is the rule with n + 1 readings held against simulated samples? */
const isSimulated = (rule: Rule, n: number, settings: Settings) =>
  rule === 'dixon' || (rule === 'generalized-esd' && n + 1 < APPROXIMATE_BELOW && ofOneMore(settings, n).most > 1);

/**
 * Clean samples of one reading more, where the rule needs them to say what one further reading would have to be; null where it needs none, or where the critical value would itself
 * depend on that reading: steps that are coarse, families other than the normal.
 */
export function workOfOneMore(rule: Rule, { sorted, clean }: Judged, settings: Settings) {
  const n = sorted.length;
  if (!byFormula(clean) || !isSimulated(rule, n, settings)) return null;
  if (rule === 'dixon' && !dixonRatioFor(n + 1)) return null;
  return cleanWork({ ...clean, n: n + 1 }, ofOneMore(settings, n), [RULE_FACTS[rule].statistic]);
}

/** How to test whether a further reading at an end is flagged; null where that cannot be done without simulation, or not at all. */
function flagsOf(
  rule: Rule,
  { sorted, clean }: Judged,
  settings: Settings,
  end: End,
  column: readonly Float64Array[] | null,
): ((x: number) => boolean) | null {
  const n = sorted.length;
  const { side, alpha, quantileType } = settings;
  if (isSimulated(rule, n, settings) && column === null) return null;
  switch (rule) {
    case 'grubbs':
      return byFormula(clean) ? flagsBySteps(sorted, [grubbsCritical(n + 1, alpha, side)], side, end) : null;
    case 'generalized-esd': {
      if (!byFormula(clean) || n + 1 < ESD_LEAST_N) return null;
      const { most } = ofOneMore(settings, n);
      const limits = Array.from({ length: most }, (_, i) => esdCritical(n + 1, i + 1, alpha, side));
      return flagsBySteps(sorted, limits, side, end, column ? rejectionLimit(column, alpha) : 0);
    }
    case 'dixon':
      return flagsByRule(rule, sorted, rejectionLimit(column!, alpha), { side, quartiles: quantileType }, end);
    case 'z-score':
      return flagsByScore(sorted, Z_LIMIT);
    case 'modified-z':
    case 'fences':
      return flagsByRule(rule, sorted, 0, { side, quartiles: quantileType }, end);
    // They flag two readings at a time.
    case 'pair-same-end':
    case 'pair-both-ends':
      return null;
  }
}

/**
 * The values below and above which one further reading, added to these, would be flagged by the rule as it stands (STATISTICS section 10); null where the rule has no
 * such point, or while it is still simulated.
 */
export function linesOf(
  rule: Rule,
  judged: Judged,
  settings: Settings,
  chunks: readonly Float64Array[] | null = null,
): Lines {
  const { sorted, scale } = judged;
  // On another scale than their own the fit itself moves with the further reading.
  if (scale.family !== 'normal' || !(sorted[sorted.length - 1]! > sorted[0]!)) return null;
  const column = chunks && columnsOf(chunks, 1, 0);
  const at = (end: End) => {
    const flags = flagsOf(rule, judged, settings, end, column);
    return flags && thresholdOf(sorted, end, flags);
  };
  const lower = settings.side === 'upper' ? null : at('lower');
  const upper = settings.side === 'lower' ? null : at('upper');
  return lower === null && upper === null ? null : { lower, upper };
}
