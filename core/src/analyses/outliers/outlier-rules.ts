import { z } from 'zod';
import { APPROXIMATE_BELOW, esdCritical, mostSteps } from '../../outliers/generalized-esd.js';
import { grubbsCritical } from '../../outliers/grubbs.js';
import type { OutlierStatistic } from '../../outliers/distances.js';
import { RULES, type LevelRule, type Rule } from '../../outliers/rules.js';
import { TALLIES, type Arrangement } from '../../outliers/rule-trials.js';
import { simulatedCriticalValue } from '../../goodness-of-fit/simulated-p.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { defineAnalysis, type Answers, type SentencePart } from '../../road/analysis.js';
import { unavailable, whyNotEven } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { affordableReplicates, alphaSetting, columnSetting, quantileTypeSetting } from '../../road/settings.js';
import type { OutlierRulesResult, RuleAtWork, Trial } from './outlier-rules-result.js';
import { outlierRulesFinding, outlierRulesNotes } from './outlier-rules-words.js';
import { columnsOf } from './outlier-judging.js';
import { mostSetting, stepsAtMost, usualMost } from './outliers-settings.js';
import { sideSetting, whyNoRule } from './rule-facts.js';

const replicates = replicatesOf('simulated samples per case');
const seed = seedOf('seed of the simulated samples');
const request = z.strictObject({
  column: columnSetting,
  side: sideSetting.schema,
  most: mostSetting.schema,
  alpha: alphaSetting,
  quantileType: quantileTypeSetting,
  replicates: replicates.schema,
  seed: seed.schema,
});
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Compare all rules on samples of the size of ',
  { subject: true },
  ', outliers ',
  sideSetting.field,
  ', maximum number of outliers ',
  mostSetting.field,
  ' for the generalised ESD test: clean samples, and samples with one or two readings shifted by 2 to 6 SD, ',
  replicates.field,
  ' of each, seed ',
  seed.field,
  '.',
];

/** With fewer a shifted reading is a third of the sample. */
const LEAST_N = 4;
/** By how many sd readings are shifted. */
export const SHIFTS = [2, 3, 4, 5, 6] as const;
/** Samples for the critical values that have no formula. */
const FOR_CRITICAL = 10_000;
/** Rules without a formula for their critical value; and the ESD, whose formula is an approximation. */
const SIMULATED = [
  'pair-same-end',
  'pair-both-ends',
  'dixon',
  'generalized-esd',
] as const satisfies readonly LevelRule[];

/** What is tried: clean samples first, then each arrangement at every shift. */
function trialsOf({ side }: Request): Trial[] {
  const arrangements: Arrangement[] = side === 'either' ? ['one', 'same-end', 'each-end'] : ['one', 'same-end'];
  return [
    { arrangement: 'clean', shift: 0 },
    ...arrangements.flatMap((arrangement) => SHIFTS.map((shift): Trial => ({ arrangement, shift }))),
  ];
}

/** Clean samples for the rules whose critical values are simulated. */
function criticalOrders({ seed: from, side, alpha, most, quantileType: quartiles }: Request, n: number) {
  const which: OutlierStatistic[] = SIMULATED.filter((rule) => whyNoRule(rule, n, side) === null);
  const book = orderBook(from, chunkSizeFor(n));
  const input = { n, which, side, most: most!, alpha, quartiles, extremes: 0, law: null, rounding: null };
  book.add({ kernel: 'outlier-replicates', input }, affordableReplicates(n, FOR_CRITICAL, 999));
  return { which, orders: book.orders };
}

type Judges = { rule: Rule; limits: number | number[] }[];

function judgesOf(
  { side, alpha, most }: Request,
  n: number,
  which: readonly OutlierStatistic[],
  chunks: readonly Float64Array[],
): Judges {
  return RULES.filter((rule) => whyNoRule(rule, n, side) === null).map((rule) => {
    if (rule === 'grubbs') return { rule, limits: grubbsCritical(n, alpha, side) };
    const of = SIMULATED.find((one) => one === rule);
    if (!of) return { rule, limits: 0 };
    const limit = simulatedCriticalValue(columnsOf(chunks, which.length, which.indexOf(of)), alpha);
    if (of === 'generalized-esd') {
      const steps = Math.min(most!, mostSteps(n));
      const factor = steps === 1 || n >= APPROXIMATE_BELOW ? 1 : Math.max(1, limit);
      return { rule, limits: Array.from({ length: steps }, (_, i) => factor * esdCritical(n, i + 1, alpha, side)) };
    }
    return { rule, limits: of === 'pair-same-end' ? 1 - limit : limit };
  });
}

/** Samples of every sort, each judged by all rules; from seeds of their own, so that none has made a critical value. */
function trialOrders(settings: Request, n: number, judges: Judges) {
  const { side, quantileType: quartiles, seed: from } = settings;
  const book = orderBook(anotherSeed(from, 1), chunkSizeFor(n));
  for (const { arrangement, shift } of trialsOf(settings)) {
    const input = { n, side, quartiles, arrangement, shift, judges };
    book.add({ kernel: 'rule-trials', input }, settings.replicates!);
  }
  return book.orders;
}

/** The rules with what they found of each sort. */
function atWork(settings: Request, n: number, judges: Judges, answers: Answers): RuleAtWork[] {
  const trials = trialsOf(settings);
  const total = settings.replicates!;
  const count = (trial: number, place: number) => answers[trial]!.reduce((sum, chunk) => sum + chunk[place]!, 0);
  const found = (times: number) => ({
    share: times / total,
    interval: clopperPearson(times, total),
    replicates: total,
  });
  return RULES.map((rule): RuleAtWork => {
    const k = judges.findIndex((judge) => judge.rule === rule);
    if (k < 0) return { rule, reason: whyNoRule(rule, n, settings.side), falseAlarms: null, power: [] };
    return {
      ...{ rule, reason: null, falseAlarms: found(count(0, k * TALLIES)) },
      power: trials.slice(1).map((trial, i) => ({
        ...trial,
        found: found(count(i + 1, k * TALLIES)),
        others: count(i + 1, k * TALLIES + 1) / total,
      })),
    };
  });
}

/** Which rule to use: how often each cries wolf on a clean sample of this size, and how often it finds what is far out. */
export const outlierRulesAnalysis = defineAnalysis<Request, OutlierRulesResult>({
  id: 'outlier-rules',
  version: 1,
  name: 'Comparison of rules',
  title: 'false-alarm rate and power of each outlier rule at this sample size',
  request,
  method,
  resolve: (settings, { values }) => ({
    ...settings,
    // Two are tried: a rule that may name one only is not asked fairly.
    most: settings.most ?? Math.max(2, usualMost(values.length)),
    replicates: settings.replicates ?? affordableReplicates(values.length, 2_000, 199),
  }),
  *run(asked, sample) {
    const resolved = this.resolve(asked, sample);
    const reason = whyNotEven(sample, LEAST_N, 'a comparison of rules');
    if (reason) return unavailable(sample, reason);
    const n = sample.values.length;
    const settings = { ...resolved, most: stepsAtMost(resolved.most!, n) };
    const { missing, setAside, unit, resolution } = sample;
    const base: OutlierRulesResult = {
      ...{ available: true, n, missing, setAside, unit, resolution, alpha: settings.alpha, side: settings.side },
      ...{ most: settings.most, replicates: settings.replicates!, rules: [], notes: [] },
    };
    const critical = criticalOrders(settings, n);
    const limits = yield { partial: base, orders: critical.orders };
    const judges = judgesOf(settings, n, critical.which, limits[0]!);
    const answers = yield { partial: base, orders: trialOrders(settings, n, judges) };
    const told = { ...base, rules: atWork(settings, n, judges, answers) };
    return { ...told, notes: outlierRulesNotes(told) };
  },
  finding: outlierRulesFinding,
});
