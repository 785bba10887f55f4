import { z } from 'zod';
import { simulatedP } from '../../goodness-of-fit/simulated-p.js';
import { simulatedCriticalValue } from '../../goodness-of-fit/simulated-p.js';
import { centralMoments } from '../../numeric/sums.js';
import {
  cochran,
  cochranCritical,
  cochranP,
  hCritical,
  kCritical,
  LEAST_GROUPS_FOR_H,
} from '../../outliers/consistency.js';
import { grubbs, grubbsCritical, grubbsP } from '../../outliers/grubbs.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { leftOutNotes, outOfScale, unavailable, whyEmpty } from '../../road/cautions.js';
import { subjectWords } from '../../road/groups.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting, quantileTypeSetting } from '../../road/settings.js';
import { judgedParts, lookedPart, partOrders } from './outlier-parts.js';
import { familyOf, mostSetting, RULE_PARTS } from './outliers-settings.js';
import type { GroupFigures, GroupTest, OutlyingGroupsResult } from './outlying-groups-result.js';
import { outlyingGroupsFinding, outlyingGroupsNotes } from './outlying-groups-words.js';
import { ruleSetting, sideSetting } from './rule-facts.js';

const replicates = replicatesOf('number of simulated clean groups');
const seed = seedOf('seed of the clean groups');
const request = z.strictObject({
  column: columnSetting,
  /** Without it there are no groups: said in words. */
  split: columnSetting.optional(),
  side: sideSetting.schema,
  rule: ruleSetting.schema,
  most: mostSetting.schema,
  family: familyOf.schema,
  alpha: alphaSetting,
  quantileType: quantileTypeSetting,
  replicates: replicates.schema,
  seed: seed.schema,
});
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Test groups of ',
  { subject: true },
  ' for a different spread (Cochran) or mean (Grubbs), and the readings of each group for outliers ',
  sideSetting.field,
  ', assuming a ',
  familyOf.field,
  ' by ',
  ...RULE_PARTS,
  ', p from ',
  replicates.field,
  ' clean groups, seed ',
  seed.field,
  '.',
];

/** As many groups as a picture of bars can name. */
const MOST_GROUPS = 100;
const STRICT = 0.01;

interface Group {
  sample: Sample;
  n: number;
  mean: number;
  /** Null for a single reading. */
  sd: number | null;
}

function groupOf(sample: Sample): Group {
  const { n, mean, s2 } = centralMoments(sample.values);
  return { sample, n, mean, sd: n > 1 ? Math.sqrt(s2 / (n - 1)) : null };
}

/** Cochran's test of the spreads, by formula where all groups have as many readings. */
function spreadTest(groups: readonly Group[], { alpha }: Request): GroupTest {
  const spread = groups.filter(({ sd }) => sd !== null);
  const bare = {
    statistic: null,
    critical: null,
    pFormula: null,
    pSimulated: null,
    pValue: null,
    pMethod: null,
    group: null,
  };
  if (spread.length < 2)
    return { ...bare, test: 'cochran', reason: 'Cochran’s test needs at least 2 groups with 2 readings each.' };
  const { statistic, at } = cochran(spread.map(({ sd }) => sd! ** 2));
  if (statistic === 0)
    return {
      ...bare,
      test: 'cochran',
      reason: 'All readings within each group are equal; Cochran’s test needs readings that vary.',
    };
  const own = { ...bare, test: 'cochran', reason: null, statistic } as const;
  const n = spread[0]!.n;
  const group = spread[at]!.sample.name;
  if (spread.some((one) => one.n !== n)) return { ...own, candidate: group };
  const pFormula = cochranP(statistic, n, spread.length);
  const critical = cochranCritical(n, spread.length, alpha);
  const named = pFormula.pValue < alpha ? group : null;
  return { ...own, critical, pFormula, pValue: pFormula.pValue, pMethod: 'formula', group: named, candidate: group };
}

/** Grubbs' test of the group means. */
function meanTest(groups: readonly Group[], { alpha }: Request): GroupTest {
  const bare = {
    statistic: null,
    critical: null,
    pFormula: null,
    pSimulated: null,
    pValue: null,
    pMethod: null,
    group: null,
  };
  const test = 'grubbs';
  if (groups.length < LEAST_GROUPS_FOR_H)
    return { ...bare, test, reason: 'Grubbs’ test of the means needs at least 3 groups.' };
  const means = Float64Array.from(groups, ({ mean }) => mean).sort();
  if (!(means.at(-1)! > means[0]!)) return { ...bare, test, reason: 'All group means are equal.' };
  const { statistic, at } = grubbs(means, 'either');
  const pFormula = grubbsP(statistic, groups.length, 'either');
  const candidate = groups.find(({ mean }) => mean === means[at])!.sample.name;
  const critical = grubbsCritical(groups.length, alpha, 'either');
  const named = statistic > critical ? candidate : null;
  return {
    ...{ test, reason: null, statistic, critical, pFormula, pSimulated: null, pValue: pFormula.pValue },
    ...{ pMethod: 'formula', group: named, candidate },
  };
}

/** h and k of every group, with their critical values at the level and at 1 %. */
function figuresOf(groups: readonly Group[], { alpha }: Request): GroupFigures[] {
  const { mean, s2 } = centralMoments(groups.map((group) => group.mean));
  const sdOfMeans = groups.length > 1 ? Math.sqrt(s2 / (groups.length - 1)) : 0;
  const spread = groups.filter(({ sd }) => sd !== null);
  const total = spread.reduce((sum, { n }) => sum + n - 1, 0);
  const pooled = Math.sqrt(spread.reduce((sum, { n, sd }) => sum + (n - 1) * sd! ** 2, 0) / total);
  const several = groups.length >= LEAST_GROUPS_FOR_H && sdOfMeans > 0;
  return groups.map((group): GroupFigures => {
    const { n, sd, sample } = group;
    const judged = sd !== null && spread.length > 1 && pooled > 0;
    const levels = [alpha, STRICT];
    return {
      ...{ name: sample.name, n, mean: group.mean, sd },
      h: several ? (group.mean - mean) / sdOfMeans : null,
      hCritical: several ? levels.map((level) => hCritical(groups.length, level)) : null,
      k: judged ? sd / pooled : null,
      kCritical: judged ? levels.map((level) => kCritical(n - 1, total, level)) : null,
    };
  });
}

/** With the p that clean groups of the same sizes give. */
function withSimulated(test: GroupTest, chunks: readonly Float64Array[], { alpha, seed: from }: Request): GroupTest {
  if (test.statistic === null) return test;
  const pSimulated = simulatedP(test.statistic, chunks, from);
  if (test.pFormula) return { ...test, pSimulated };
  const { pValue } = pSimulated;
  const group = pValue < alpha ? test.candidate! : null;
  return { ...test, pSimulated, pValue, pMethod: 'simulated', critical: simulatedCriticalValue(chunks, alpha), group };
}

/** Groups of measurements that agree less than the rest: in their spread, in their mean, and the readings that lie too far out in each. */
export const outlyingGroupsAnalysis = defineAnalysis<Request, OutlyingGroupsResult>({
  id: 'outlying-groups',
  version: 1,
  name: 'Outlying groups',
  title: 'which groups differ in spread or mean from the others, with h and k',
  request,
  method,
  subject: subjectWords,
  resolve: (settings) => ({ ...settings, replicates: settings.replicates ?? 10_000 }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const { split } = settings;
    if (split === undefined || !sample.groups) {
      return unavailable(sample, 'Choose a label column to split by.');
    }
    const all = sample.groups.samples.filter(({ values }) => values.length > 0);
    if (all.length === 0) return unavailable(sample, whyEmpty(sample));
    const large = outOfScale(sample);
    if (large) return unavailable(sample, large);
    if (all.length < 2) return unavailable(sample, `There is one group by ${split}: nothing to compare it with.`);
    if (all.length > MOST_GROUPS) {
      return unavailable(sample, `There are ${all.length} groups by ${split}; at most ${MOST_GROUPS} are compared.`);
    }
    const groups = all.map(groupOf);
    const looked = all.map((part) => lookedPart(part, settings));
    const { missing, setAside, unit, resolution, values } = sample;
    const base: OutlyingGroupsResult = {
      ...{ available: true, n: values.length, missing, setAside, unit, resolution, alpha: settings.alpha },
      ...{ by: split, rule: settings.rule, without: sample.groups.without, levels: [settings.alpha, STRICT] },
      groups: figuresOf(groups, settings),
      tests: [spreadTest(groups, settings), meanTest(groups, settings)],
      parts: looked.map(({ part }) => part),
      notes: [],
    };
    const withNotes = (result: OutlyingGroupsResult) => ({
      ...result,
      notes: [...leftOutNotes(sample), ...outlyingGroupsNotes(result)],
    });
    const sizes = groups.filter(({ sd }) => sd !== null).map(({ n }) => n);
    const clean = orderBook(anotherSeed(settings.seed, 1), chunkSizeFor(groups.length));
    clean.add({ kernel: 'cochran-replicates', input: { sizes } }, settings.replicates!);
    const { orders, places } = partOrders(settings, looked);
    const answers = yield { partial: withNotes(base), orders: [...clean.orders, ...orders] };
    const [spread, mean] = base.tests;
    return withNotes({
      ...base,
      tests: [withSimulated(spread!, answers[0]!, settings), mean!],
      parts: judgedParts(settings, looked, places, answers.slice(1)),
    });
  },
  finding: outlyingGroupsFinding,
});
