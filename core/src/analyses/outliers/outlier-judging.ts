import { COARSE, roundingOf } from '../../goodness-of-fit/rounding.js';
import { estimatedOf } from '../../distributions/fit/refit.js';
import type { OutlierStatistic } from '../../outliers/distances.js';
import { dixon, dixonRatioFor } from '../../outliers/dixon.js';
import { endsOf, generalizedEsd, type EsdResult } from '../../outliers/generalized-esd.js';
import { farthest, grubbsCritical, grubbsP, centreAndSpread } from '../../outliers/grubbs.js';
import { namedBy, type Ends } from '../../outliers/named.js';
import { pairOnSide, rangeOverSd } from '../../outliers/pairs.js';
import type { OutlierReplicates } from '../../outliers/replicates.js';
import { hasLevel, RULES, type Rule } from '../../outliers/rules.js';
import { fenceMultiple } from '../../describe/fence-multiples.js';
import { medianOfSorted, quartilesOfSorted } from '../../describe/quantiles.js';
import { FENCE, modifiedZ, MODIFIED_Z_LIMIT, robustScale, Z_LIMIT } from '../../outliers/screens.js';
import type { Sample } from '../../readings/sample.js';
import { familyByName } from '../../distributions/registry.js';
import type { OutlierTest } from './outliers-result.js';
import type { OutliersRequest as Request } from './outliers-settings.js';
import type { Scale } from './outlier-scale.js';
import { RULE_FACTS, whyNoRule } from './rule-facts.js';

export type Settings = Pick<Request, 'side' | 'alpha' | 'quantileType' | 'seed'> & { most: number };

/** How clean samples of these readings are drawn: from which distribution, and rounded as they are where their steps are coarse. */
export function cleanSamples({ values, resolution }: Sample, { family, parameters, sorted }: Scale) {
  const { sd } = centreAndSpread(values);
  const coarse = resolution !== null && sd < COARSE * resolution;
  const fitting = estimatedOf(familyByName(family));
  const rounding = coarse && family === 'normal' ? (roundingOf(values, resolution, sd)?.population ?? null) : null;
  const law = family === 'normal' ? null : { fitting, parameters, step: coarse ? resolution : null };
  return { n: sorted.length, law, rounding };
}
export type Clean = ReturnType<typeof cleanSamples>;

/** Formulas hold for normal samples that are not rounded. */
export const byFormula = ({ law, rounding }: Clean) => law === null && rounding === null;

/** What is simulated of clean samples: once what several rules take of them. */
export const statisticsFor = (n: number, { side }: Settings): OutlierStatistic[] => [
  ...new Set(RULES.filter((rule) => whyNoRule(rule, n, side) === null).map((rule) => RULE_FACTS[rule].statistic)),
];

/** `extremes`: so many of the most extreme readings are scored one by one besides. */
export const cleanWork = (
  clean: Clean,
  { side, most, alpha, quantileType }: Settings,
  which: OutlierStatistic[],
  extremes = 0,
) =>
  ({
    kernel: 'outlier-replicates',
    input: { ...clean, which, extremes, side, most, alpha, quartiles: quantileType } satisfies OutlierReplicates,
  }) as const;

/** The k-th of the numbers that chunks hold for each sample. */
export const columnsOf = (chunks: readonly Float64Array[], each: number, k: number): Float64Array[] =>
  chunks.map((chunk) => Float64Array.from({ length: chunk.length / each }, (_, r) => chunk[r * each + k]!));

/** The rows of readings at the ends of a sample, the farthest from the middle first; those equal to the last one belong to them. A row of frequencies stands for all its readings, once. */
export function rowsAt({ values, rows }: Sample, sorted: Float64Array, { low, high }: Ends): number[] {
  if (low + high === 0) return [];
  const n = sorted.length;
  const least = high > 0 ? sorted[n - high]! : Infinity;
  const greatest = low > 0 ? sorted[low - 1]! : -Infinity;
  const middle = medianOfSorted(sorted);
  const found: { row: number; far: number }[] = [];
  for (let i = 0; i < values.length; i++) {
    const x = values[i]!;
    if (x >= least || x <= greatest) found.push({ row: rows[i]!, far: Math.abs(x - middle) });
  }
  const inOrder = found.sort((a, b) => b.far - a.far || a.row - b.row).map(({ row }) => row);
  return [...new Set(inOrder)];
}

/** The readings of a question: as they are, in rising order, and on the scale of the family. */
export interface Judged {
  sample: Sample;
  sorted: Float64Array;
  scale: Scale;
  clean: Clean;
}

export const named = ({ sample, sorted }: Judged, ends: Ends) => rowsAt(sample, sorted, ends);

/** The statistic of a rule, and what names readings without any simulation. */
function looked(rule: Rule, judged: Judged, settings: Settings): Partial<OutlierTest> {
  const { sorted } = judged.scale;
  const { side, quantileType, alpha } = settings;
  const n = sorted.length;
  const { mean, sd } = centreAndSpread(sorted);
  const out = (upper: number, lower: number) =>
    side === 'either' ? Math.max(upper, lower) : side === 'upper' ? upper : lower;
  const ends = [sorted[0]!, sorted[n - 1]!] as const;
  switch (rule) {
    case 'grubbs': {
      const { statistic } = farthest(sorted, mean, sd, side);
      if (!byFormula(judged.clean)) return { statistic };
      const pFormula = grubbsP(statistic, n, side);
      const critical = grubbsCritical(n, alpha, side);
      const rows = named(judged, namedBy(rule, sorted, critical, { side, quartiles: quantileType }));
      return { statistic, critical, pFormula, pValue: pFormula.pValue, pMethod: 'formula', rows };
    }
    case 'pair-same-end':
      return { statistic: pairOnSide(sorted, side).statistic };
    case 'pair-both-ends':
      return { statistic: rangeOverSd(sorted) };
    case 'dixon':
      return { statistic: dixon(sorted, dixonRatioFor(n)!, side).statistic, ratio: dixonRatioFor(n)! };
    case 'generalized-esd':
      return byFormula(judged.clean) ? esdTest(judged, settings, 1) : {};
    case 'modified-z': {
      const scale = robustScale(sorted);
      return { statistic: out(modifiedZ(ends[1], scale), -modifiedZ(ends[0], scale)), critical: MODIFIED_Z_LIMIT };
    }
    case 'fences': {
      const quartiles = quartilesOfSorted(sorted, quantileType);
      const multiple = (x: number, beyond: boolean) => (beyond ? fenceMultiple(x, quartiles) : 0);
      const far = out(multiple(ends[1], ends[1] > quartiles[1]), multiple(ends[0], ends[0] < quartiles[0]));
      // Without a quartile range no number says how far.
      return { statistic: Number.isFinite(far) ? far : null, critical: FENCE };
    }
    case 'z-score':
      return { statistic: out((ends[1] - mean) / sd, (mean - ends[0]) / sd), critical: Z_LIMIT };
  }
}

/** The steps of the generalised ESD; `factor` makes its critical values hold for other than normal samples. */
export function esdSteps({ scale }: Judged, { most, alpha, side }: Settings, factor: number): EsdResult {
  const { steps } = generalizedEsd(scale.sorted, most, alpha, side);
  const own = steps.map((step) => ({ ...step, critical: step.critical * factor }));
  const count = own.reduce((last, { statistic, critical }, i) => (statistic > critical ? i + 1 : last), 0);
  return { steps: own, count };
}

/** The steps as a test tells them, with the rows of the readings that go. */
export function esdTest(judged: Judged, settings: Settings, factor: number): Partial<OutlierTest> {
  const { sample, sorted } = judged;
  const esd = esdSteps(judged, settings, factor);
  const taken = new Set<number>();
  const steps = esd.steps.map(({ statistic, critical, at }) => {
    const value = sorted[at]!;
    const equal = rowsOf(sample, value);
    const row = equal.find((one) => !taken.has(one)) ?? equal[0]!;
    taken.add(row);
    return { statistic, critical, value, row };
  });
  const { statistic, critical } = steps[0] ?? { statistic: null, critical: null };
  const rows = named(judged, endsOf(esd));
  return { statistic, critical, steps, count: esd.count, rows };
}

/** The rows that hold a value. */
export function rowsOf({ values, rows }: Sample, value: number): number[] {
  const found: number[] = [];
  for (let i = 0; i < values.length; i++) if (values[i] === value) found.push(rows[i]!);
  return found;
}

const bare = (rule: Rule, { side }: Settings, reason: string | null): OutlierTest => ({
  ...{ rule, test: RULE_FACTS[rule].test, side, reason, statistic: null, critical: null },
  ...{ pFormula: null, pSimulated: null, pValue: null, pMethod: null, rows: null, falseAlarms: null, lines: null },
});

/** The rules, all by default, as far as formulas go. */
export function judgedByFormula(judged: Judged, settings: Settings, rules: readonly Rule[] = RULES): OutlierTest[] {
  const { sorted } = judged.scale;
  const { side, quantileType } = settings;
  return rules.map((rule): OutlierTest => {
    const reason = whyNoRule(rule, sorted.length, side);
    if (reason !== null) return bare(rule, settings, reason);
    const test: OutlierTest = { ...bare(rule, settings, null), ...looked(rule, judged, settings) };
    const rows = hasLevel(rule)
      ? test.rows
      : named(judged, namedBy(rule, sorted, 0, { side, quartiles: quantileType }));
    if (rule === 'generalized-esd') return test;
    return { ...test, rows };
  });
}
