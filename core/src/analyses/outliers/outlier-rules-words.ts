import { formatPercentOf, groupThousands } from '../../numeric/format.js';
import { listed, plural } from '../../numeric/grammar.js';
import { hasLevel } from '../../outliers/rules.js';
import type { Arrangement } from '../../outliers/rule-trials.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, levelWords } from '../../road/cautions.js';
import type { OutlierRulesResult, RuleAtWork } from './outlier-rules-result.js';
import { RULE_FACTS } from './rule-facts.js';

const percent = (share: number) => formatPercentOf(share, undefined, 2);

/** A simulated proportion in a table: no more digits than are known. */
function shareWords(share: number): string {
  if (share > 0.995 && share < 1) return '> 99\u00a0%';
  return `${(share * 100).toFixed(share < 0.0995 && share > 0 ? 1 : 0)}\u00a0%`;
}

/** Where the outliers are, in words. */
export const ARRANGEMENT_WORDS: Record<Arrangement, string> = {
  clean: 'no outlier',
  one: 'one outlier',
  'same-end': 'two outliers on the same side',
  'each-end': 'one outlier on each side',
};

/** Far enough for a good rule to find, not so far that all do. */
const JUDGED_AT = 5;
/** A rule with less power is of no use. */
const USEFUL = 0.2;

/** How often a rule finds an arrangement at a shift. */
export const foundAt = ({ power }: RuleAtWork, arrangement: Arrangement, shift: number): number | null =>
  power.find((one) => one.arrangement === arrangement && one.shift === shift)?.found.share ?? null;

const triedOf = ({ rules }: OutlierRulesResult) => rules.filter(({ reason }) => reason === null);
const arrangementsOf = ({ side }: OutlierRulesResult): Arrangement[] =>
  side === 'either' ? ['one', 'same-end', 'each-end'] : ['one', 'same-end'];

/** What a rule finds where it finds least. */
const leastOf = (result: OutlierRulesResult, rule: RuleAtWork) =>
  Math.min(...arrangementsOf(result).map((arrangement) => foundAt(rule, arrangement, JUDGED_AT)!));

const best = (rules: readonly RuleAtWork[], of: (rule: RuleAtWork) => number) =>
  rules.reduce((most, rule) => (of(rule) > of(most) ? rule : most));

/** The rules whose share so many samples cannot tell from the greatest. */
const notToldApart = (rules: readonly RuleAtWork[], greatest: number) =>
  rules.filter(({ power }) =>
    power.some(
      ({ arrangement, shift, found }) => arrangement === 'one' && shift === JUDGED_AT && found.interval[1] >= greatest,
    ),
  );

/** True where a rule of thumb has more false alarms than the level, as far as the samples can show. */
const isLoud = ({ rule, falseAlarms }: RuleAtWork, alpha: number) =>
  !hasLevel(rule) && falseAlarms !== null && falseAlarms.interval[0] > alpha;

/** Of the rules with a level, the one with the highest power against one outlier, and the one with the highest power against any arrangement. */
export function outlierRulesFinding(result: OutlierRulesResult): Piece[] {
  const { n, alpha } = result;
  const tried = triedOf(result).filter(({ rule }) => hasLevel(rule));
  if (tried.length === 0) return [{ text: `Samples of ${groupThousands(n)} are being simulated.` }];
  const one = (rule: RuleAtWork) => foundAt(rule, 'one', JUDGED_AT)!;
  const [forOne, forAll] = [best(tried, one), best(tried, (rule) => leastOf(result, rule))];
  const alike = notToldApart(tried, one(forOne));
  const lead = `With ${plural(n, 'reading')}${levelWords(alpha)}, one outlier of ${JUDGED_AT} SD is detected best by `;
  const first: Piece[] = [
    { text: lead },
    { text: listed(alike.map(({ rule }) => RULE_FACTS[rule].title)), strong: true, code: 'recommended' },
    { text: ` (power ${alike.length > 1 ? 'about ' : ''}${percent(one(forOne))})` },
  ];
  const least = leastOf(result, forAll);
  if (least < USEFUL)
    return [
      ...first,
      { text: '. No rule with a significance level has useful power for two such outliers in any position.' },
    ];
  return [
    ...first,
    { text: ', one or two in any position by ' },
    { text: RULE_FACTS[forAll.rule].title, strong: true, code: 'recommended' },
    { text: ` (at least ${percent(least)}).` },
  ];
}

export function outlierRulesNotes(result: OutlierRulesResult): Note[] {
  const { alpha, resolution, n } = result;
  const notes: Note[] = [...levelNote(alpha)];
  const loud = triedOf(result).filter((rule) => isLoud(rule, alpha));
  if (loud.length > 0) {
    const told = loud.map(({ rule, falseAlarms }) => `${RULE_FACTS[rule].title} (${percent(falseAlarms!.share)})`);
    const text = `Some rules have a high false-alarm rate in clean samples of ${groupThousands(n)}: ${listed(told)}. They find more outliers only because they raise more false alarms.`;
    notes.push({ code: 'cries-wolf', text });
  }
  const mute = triedOf(result).filter(
    ({ falseAlarms, power }) => falseAlarms!.share === 0 && power.every(({ found }) => found.share === 0),
  );
  if (mute.length > 0) {
    const text = `Some rules cannot find any outlier in ${plural(n, 'reading')}: ${listed(mute.map(({ rule }) => RULE_FACTS[rule].title))}.`;
    notes.push({ code: 'mute', text });
  }
  if (resolution !== null) {
    const text = 'The rates may differ for rounded readings, because the simulated samples are normal and not rounded.';
    notes.push({ code: 'of-the-size', text });
  }
  return notes;
}

/** Every share simulated, as a table. */
export function outlierRulesTable({ rules }: OutlierRulesResult): (string | number)[][] {
  const rows = rules.flatMap(({ rule, falseAlarms, power }) => {
    const name = RULE_FACTS[rule].short;
    if (!falseAlarms) return [];
    const clean = [
      name,
      ARRANGEMENT_WORDS.clean,
      0,
      falseAlarms.share,
      ...falseAlarms.interval,
      '',
      falseAlarms.replicates,
    ];
    const others = power.map(({ arrangement, shift, found, others: besides }) => [
      ...[name, ARRANGEMENT_WORDS[arrangement], shift, found.share, ...found.interval, besides, found.replicates],
    ]);
    return [clean, ...others];
  });
  return [['rule', 'outliers', 'shift in SDs', 'found', 'lower', 'upper', 'others flagged', 'samples'], ...rows];
}

/** A rule with what it finds of an arrangement, as texts. */
export interface RuleAtWorkRow {
  key: string;
  name: string;
  meaning: string;
  alarms: string;
  /** True where its false-alarm rate exceeds the level. */
  loud: boolean;
  shares: string[];
}

export function ruleAtWorkRows(result: OutlierRulesResult, arrangement: Arrangement): RuleAtWorkRow[] {
  return result.rules.map((one): RuleAtWorkRow => {
    const { rule, reason, falseAlarms, power } = one;
    const { short, meaning } = RULE_FACTS[rule];
    const own = power.filter((trial) => trial.arrangement === arrangement);
    return {
      ...{ key: rule, name: short, meaning: reason ?? meaning },
      alarms: falseAlarms ? shareWords(falseAlarms.share) : '–',
      loud: isLoud(one, result.alpha),
      shares: own.map(({ found }) => shareWords(found.share)),
    };
  });
}
