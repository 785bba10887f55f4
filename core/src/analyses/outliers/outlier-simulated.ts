import { medianOfSorted } from '../../describe/quantiles.js';
import { simulatedCriticalValue, simulatedP, type SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { createDistances, type OutlierStatistic } from '../../outliers/distances.js';
import { namedBy } from '../../outliers/named.js';
import type { Rule } from '../../outliers/rules.js';
import { FENCE, MODIFIED_Z_LIMIT, Z_LIMIT } from '../../outliers/screens.js';
import { APPROXIMATE_BELOW } from '../../outliers/generalized-esd.js';
import { grubbsP } from '../../outliers/grubbs.js';
import { byFormula, columnsOf, esdTest, named, type Judged, type Settings } from './outlier-judging.js';
import type { FoundShare, OutlierTest } from './outliers-result.js';
import { RULE_FACTS } from './rule-facts.js';

function shareAbove(chunks: readonly Float64Array[], limit: number): FoundShare {
  let [above, replicates] = [0, 0];
  for (const chunk of chunks) {
    replicates += chunk.length;
    for (let i = 0; i < chunk.length; i++) if (chunk[i]! > limit) above++;
  }
  return { share: above / replicates, interval: clopperPearson(above, replicates), replicates };
}

/** Beyond which a statistic of a clean sample is a false alarm of a rule of thumb. */
const THUMBS: Partial<Record<Rule, number>> = { 'modified-z': MODIFIED_Z_LIMIT, fences: FENCE, 'z-score': Z_LIMIT };

/** How far the readings lie out, measured just as clean samples are: readings equally far out then tie with them. */
function observedOf(
  { scale }: Judged,
  { side, most, alpha, quantileType }: Settings,
  which: readonly OutlierStatistic[],
) {
  const { sorted } = scale;
  const middle = medianOfSorted(sorted);
  const measure = createDistances(sorted.length, which, { side, most, alpha, quartiles: quantileType });
  const observed = new Float64Array(which.length);
  measure(
    sorted.map((x) => x - middle),
    observed,
    0,
  );
  return (one: OutlierStatistic) => observed[which.indexOf(one)]!;
}

/** A test whose critical value is simulated. The p decides: of rounded samples many may lie at the critical value. */
function bySamples(judged: Judged, settings: Settings, { rule }: OutlierTest, pValue: number, limit: number) {
  const { side, alpha, quantileType } = settings;
  if (rule === 'generalized-esd') return esdTest(judged, settings, limit);
  const isRatio = rule === 'pair-same-end';
  const critical = isRatio ? 1 - limit : limit;
  const always = isRatio ? Infinity : -Infinity;
  const ends = namedBy(rule, judged.scale.sorted, pValue < alpha ? always : -always, { side, quartiles: quantileType });
  return { critical, rows: named(judged, ends) };
}

/**
 * The generalised ESD of a normal. Where Rosner's critical values are too rough the steps stand as published, and a reading is named only where they are unlikely enough
 * together. One step alone is Grubbs' test, whose formula holds.
 */
function steppedBySamples(
  judged: Judged,
  settings: Settings,
  test: OutlierTest,
  pSimulated: SimulatedP,
  column: readonly Float64Array[],
): OutlierTest {
  const { alpha, side, most } = settings;
  if (most === 1) {
    const pFormula = grubbsP(test.statistic!, judged.sorted.length, side);
    const p = { pFormula, pSimulated, pValue: pFormula.pValue, pMethod: 'formula' } as const;
    return { ...test, ...p, falseAlarms: shareAbove(column, 1) };
  }
  const { pValue } = pSimulated;
  const rough = judged.sorted.length < APPROXIMATE_BELOW;
  const factor = rough ? Math.max(1, simulatedCriticalValue(column, alpha)) : 1;
  const withheld = rough && pValue >= alpha;
  return {
    ...test,
    ...{ pSimulated, pValue, pMethod: 'simulated', falseAlarms: shareAbove(column, factor) },
    rows: withheld ? [] : test.rows,
  };
}

/** Every rule with what clean samples say of it. */
export function judgedBySamples(
  judged: Judged,
  settings: Settings,
  tests: readonly OutlierTest[],
  which: readonly OutlierStatistic[],
  chunks: readonly Float64Array[],
  extremes = 0,
): OutlierTest[] {
  const observed = observedOf(judged, settings, which);
  return tests.map((test): OutlierTest => {
    if (test.reason !== null) return test;
    const { statistic } = RULE_FACTS[test.rule];
    const column = columnsOf(chunks, which.length + extremes, which.indexOf(statistic));
    const thumb = THUMBS[test.rule];
    if (thumb !== undefined) return { ...test, falseAlarms: shareAbove(column, thumb) };
    const pSimulated = simulatedP(observed(statistic), column, settings.seed);
    if (test.rule === 'generalized-esd' && byFormula(judged.clean))
      return steppedBySamples(judged, settings, test, pSimulated, column);
    if (test.pFormula) return { ...test, pSimulated, falseAlarms: shareAbove(column, test.critical!) };
    const limit = simulatedCriticalValue(column, settings.alpha);
    const { pValue } = pSimulated;
    const more = bySamples(judged, settings, test, pValue, limit);
    return { ...test, ...more, pSimulated, pValue, pMethod: 'simulated', falseAlarms: shareAbove(column, limit) };
  });
}
