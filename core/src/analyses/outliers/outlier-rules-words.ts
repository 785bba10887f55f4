import { formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import { hasLevel } from '../../outliers/rules.js';
import type { Arrangement } from '../../outliers/rule-trials.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
import type { OutlierRulesResult, RuleAtWork } from './outlier-rules-result.js';
import { RULE_FACTS } from './rule-facts.js';
import { listed } from '../../road/listed.js';

const percent = (share: number) => formatPercentOf(share, undefined, 2);

/** A simulated share as it stands in a table: no more digits than are known of it. */
function shareWords(share: number): string {
  if (share > 0.995 && share < 1) return '> 99\u00a0%';
  return `${(share * 100).toFixed(share < 0.0995 && share > 0 ? 1 : 0)}\u00a0%`;
}

/** What is far out, in words. */
export const ARRANGEMENT_WORDS: Record<Arrangement, string> = {
  clean: 'nothing far out',
  one: 'one reading far out',
  'same-end': 'two at one end',
  'each-end': 'one at each end',
};

/** Far enough for a good rule to find, not so far that all do. */
const JUDGED_AT = 5;
/** Rules that find less hardly find anything. */
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

/** True where a rule of thumb cries wolf beyond the level, for all that so many samples can tell. */
const isLoud = ({ rule, falseAlarms }: RuleAtWork, alpha: number) =>
  !hasLevel(rule) && falseAlarms !== null && falseAlarms.interval[0] > alpha;

/** Which rule serves, of those that keep the level: the one that finds most of one far reading, and the one that finds most whatever is far out. */
export function outlierRulesFinding(result: OutlierRulesResult): Piece[] {
  const { n, alpha } = result;
  const tried = triedOf(result).filter(({ rule }) => hasLevel(rule));
  if (tried.length === 0) return [{ text: `Samples of ${groupThousands(n)} are being drawn.` }];
  const one = (rule: RuleAtWork) => foundAt(rule, 'one', JUDGED_AT)!;
  const [forOne, forAll] = [best(tried, one), best(tried, (rule) => leastOf(result, rule))];
  const alike = notToldApart(tried, one(forOne));
  const lead = `Of ${groupThousands(n)} readings at level ${formatValue(alpha)}, one that is ${JUDGED_AT} sd off is named most often by `;
  const first: Piece[] = [
    { text: lead },
    { text: listed(alike.map(({ rule }) => RULE_FACTS[rule].title)), strong: true, code: 'recommended' },
    { text: ` (${alike.length > 1 ? 'about ' : ''}${percent(one(forOne))})` },
  ];
  const least = leastOf(result, forAll);
  if (least < USEFUL)
    return [...first, { text: '; no rule with a level finds two so far out often, wherever they lie.' }];
  return [
    ...first,
    { text: '; whether one or two are far out, ' },
    { text: RULE_FACTS[forAll.rule].title, strong: true, code: 'recommended' },
    { text: ` finds them at least ${percent(least)} of the time.` },
  ];
}

export function outlierRulesNotes(result: OutlierRulesResult): Note[] {
  const { alpha, resolution, n } = result;
  const notes: Note[] = [...levelNote(alpha)];
  const loud = triedOf(result).filter((rule) => isLoud(rule, alpha));
  if (loud.length > 0) {
    const told = loud.map(({ rule, falseAlarms }) => `${RULE_FACTS[rule].title} (${percent(falseAlarms!.share)})`);
    const text = `Cry wolf on clean samples of ${groupThousands(n)} more often than the level allows: ${told.join(', ')}. That they find more is bought with that.`;
    notes.push({ code: 'cries-wolf', text });
  }
  const mute = triedOf(result).filter(
    ({ falseAlarms, power }) => falseAlarms!.share === 0 && power.every(({ found }) => found.share === 0),
  );
  if (mute.length > 0) {
    const text = `Can never name a reading of ${groupThousands(n)}: ${mute.map(({ rule }) => RULE_FACTS[rule].title).join(', ')}.`;
    notes.push({ code: 'mute', text });
  }
  if (resolution !== null) {
    const text =
      'The samples are normal and not rounded; this holds for every sample of the size, not for these readings.';
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
  return [['rule', 'far out', 'sd', 'named', 'lower', 'upper', 'others named', 'samples'], ...rows];
}

/** A rule with what it finds of an arrangement, as texts. */
export interface RuleAtWorkRow {
  key: string;
  name: string;
  meaning: string;
  alarms: string;
  /** True where it cries wolf beyond the level. */
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
