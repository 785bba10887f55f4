import { isRefusal } from '../core/src/distributions/family.js';
import { fittedLaw } from '../core/src/distributions/fit/fitted-law.js';
import { distribution, familyByName } from '../core/src/distributions/registry.js';
import { normalScore } from '../core/src/distributions/normal-score.js';
import { simulatedCriticalValue } from '../core/src/goodness-of-fit/simulated-p.js';
import { createDistances, type OutlierStatistic } from '../core/src/outliers/distances.js';
import { dixonRatioFor } from '../core/src/outliers/dixon.js';
import { APPROXIMATE_BELOW, esdCritical } from '../core/src/outliers/generalized-esd.js';
import { grubbsCritical, type Side } from '../core/src/outliers/grubbs.js';
import { namedBy, type Limits } from '../core/src/outliers/named.js';
import { simulateOutliers } from '../core/src/outliers/replicates.js';
import type { LevelRule } from '../core/src/outliers/rules.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream } from '../core/src/random/stream.js';
import { report } from './report.ts';

const LEVEL = 0.05;
const SAMPLES = 20_000;
/** A critical value that is simulated has an error of its own: of so many samples a small one. */
const FOR_CRITICAL = 200_000;
const PLAIN = { alpha: LEVEL, quartiles: 7, extremes: 0, law: null, rounding: null } as const;

/** How often each test names anything of clean samples: of every size, on either side and on one, of a normal and of other families. */
export function calibrateOutliers(): boolean {
  let holds = true;
  for (const side of ['either', 'upper'] as const)
    for (const n of [3, 5, 10, 30, 100])
      for (const rule of rulesAt(n, side)) holds = falseAlarms(rule, n, side, 1) && holds;
  for (const n of [25, 50])
    for (const most of [1, 3, 5]) holds = falseAlarms('generalized-esd', n, 'either', most) && holds;
  for (const family of ['gamma', 'weibull']) holds = ofFamily(family, 30) && holds;
  return holds;
}

function rulesAt(n: number, side: Side): LevelRule[] {
  const pairs: LevelRule[] = n < 4 ? [] : side === 'either' ? ['pair-same-end', 'pair-both-ends'] : ['pair-same-end'];
  return ['grubbs', ...pairs, ...(dixonRatioFor(n) ? (['dixon'] as const) : [])];
}

function limitsFor(rule: LevelRule, n: number, side: Side, most: number): Limits {
  if (rule === 'grubbs') return grubbsCritical(n, LEVEL, side);
  const which: OutlierStatistic[] = [rule];
  const drawn = simulateOutliers({ ...PLAIN, n, which, side, most }, createStream(3, n), FOR_CRITICAL);
  const limit = simulatedCriticalValue([drawn], LEVEL);
  if (rule === 'generalized-esd') {
    const factor = most === 1 || n >= APPROXIMATE_BELOW ? 1 : Math.max(1, limit);
    return Array.from({ length: most }, (_, i) => factor * esdCritical(n, i + 1, LEVEL, side));
  }
  return rule === 'pair-same-end' ? 1 - limit : limit;
}

function falseAlarms(rule: LevelRule, n: number, side: Side, most: number): boolean {
  const limits = limitsFor(rule, n, side, most);
  const stream = createStream(29, n);
  const values = new Float64Array(n);
  let found = 0;
  for (let k = 0; k < SAMPLES; k++) {
    fillNormals(stream, values);
    const { low, high } = namedBy(rule, values.sort(), limits, { side, quartiles: 7 });
    if (low + high > 0) found++;
  }
  const what = rule === 'generalized-esd' ? `${rule} of up to ${most}` : rule;
  return report(`${what}, n = ${n}, ${side}: a clean sample named`, found, SAMPLES, LEVEL, true);
}

const [OF_FAMILY, REPLICATES] = [600, 199];

/** The simulated p of Grubbs' G on the scale of a family, fitted anew in every replicate. */
function ofFamily(family: string, n: number): boolean {
  const truth = distribution(familyByName(family), { shape: 2, scale: 1 });
  const fitting = { family, given: {}, estimateThreshold: false };
  const rules = { side: 'either', most: 1, alpha: LEVEL, quartiles: 7 } as const;
  const measure = createDistances(n, ['grubbs'], rules);
  const stream = createStream(31, 0);
  const values = new Float64Array(n);
  const observed = new Float64Array(1);
  let found = 0;
  for (let k = 0; k < OF_FAMILY; k++) {
    truth.sample(stream, values);
    const law = fittedLaw(values.slice().sort(), fitting);
    if (isRefusal(law)) throw new Error(law.refused);
    const own = distribution(familyByName(family), law.parameters);
    measure(
      values.map((x) => normalScore(own, x)),
      observed,
      0,
    );
    const input = {
      ...rules,
      n,
      which: ['grubbs'] as const,
      extremes: 0,
      law: { fitting, parameters: law.parameters, step: null },
      rounding: null,
    };
    const drawn = simulateOutliers(input, createStream(k, 1), REPLICATES);
    const far = drawn.filter((g) => g >= observed[0]!).length;
    if ((far + 1) / (REPLICATES + 1) <= LEVEL) found++;
  }
  return report(`Grubbs on the scale of a ${family}, n = ${n}: a clean sample named`, found, OF_FAMILY, LEVEL, true);
}
