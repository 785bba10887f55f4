import { familyByName } from '../../distributions/registry.js';
import { formatFigure, formatP, formatPercentOf } from '../../numeric/format.js';
import { article, listed, plural } from '../../numeric/grammar.js';
import type { Sample } from '../../readings/sample.js';
import type { Note, Piece } from '../../road/analysis.js';
import { unreadableNotes } from '../../road/cautions.js';
import { censoredNote } from '../../road/beyond-limits.js';
import { plausibleCount, supportWords } from '../../distributions/fit/akaike.js';
import {
  isRejected,
  plausibleOf,
  rejectionLevel,
  type ComparedFamily,
  type CompareFamiliesResult,
  type FittedFamily,
} from './compare-families-result.js';
import { briefly, parameterText } from './law-words.js';

const titleOf = ({ family }: Pick<FittedFamily, 'family'>) => familyByName(family).title;

const MOST_NAMED = 4;

/** "normal, logistic, gamma and 3 more". */
function namesOf(families: readonly ComparedFamily[]): string {
  const named = families.slice(0, MOST_NAMED).map(titleOf);
  const more = families.length - named.length;
  return listed(more > 0 ? [...named, `${more} more`] : named);
}

/** Which families the readings support, and which of them A² rejects. */
export function comparedFinding(result: CompareFamiliesResult): Piece[] {
  const { families, n, apart } = result;
  const [best] = families;
  if (!best) return [{ text: 'None of the distributions can be fitted to these readings.' }];
  const plausible = plausibleOf(result);
  const of = `of ${plural(families.length, 'distribution')}`;
  const simulating = families.some(({ pSimulated, statistic }) => statistic !== null && pSimulated === null);
  const open = simulating ? ' The p-values are being simulated.' : '';
  const weight = (one: ComparedFamily) => formatPercentOf(one.weight, undefined, 2);
  if (plausible.length === 0) {
    const fitting = apart.filter((one) => one.pSimulated !== null && !isRejected(one, rejectionLevel(result.alpha)));
    const but = fitting.length
      ? ` There is no evidence against ${listed(fitting.map((one) => `${article(titleOf(one))}`))}, which AICc cannot rank.`
      : '';
    return [
      { text: 'None of the distributions fits', strong: true, code: 'evidence' },
      {
        text: `: the Anderson–Darling test rejects even the best by AICc (${namesOf(families.slice(0, plausibleCount(families.map((one) => one.weight))))}).${but}`,
      },
    ];
  }
  const [first] = plausible;
  if (plausible.length === 1)
    return [
      { text: `Only ${article(titleOf(first!))}`, strong: true, code: 'plausible' },
      { text: ` distribution is plausible, ${of} (AICc weight ${weight(first!)}).${open}` },
    ];
  return [
    { text: `${plausible.length} ${of} are plausible`, strong: true, code: 'plausible' },
    {
      text: `: ${namesOf(plausible)}. ${plural(n, 'reading')} cannot distinguish them; the first has an AICc weight of ${weight(first!)}.${open}`,
    },
  ];
}

/** What a careful colleague would add. */
export function comparedNotes(
  sample: Sample,
  { n, families, apart }: Pick<CompareFamiliesResult, 'n' | 'families' | 'apart'>,
): Note[] {
  const notes = [...unreadableNotes(sample), ...censoredNote(sample)];
  if (sample.censored) {
    const text = 'The ranking is by likelihood alone, because A² needs every reading as a number.';
    notes.push({ code: 'no-test', text });
  }
  if (families.length > 1) {
    const text = `The ranking may mislead${sample.censored ? '' : ', and the p of the first is slightly too high'}: the distributions are ranked and tested on the same readings. Prefer knowledge of the process.`;
    notes.push({ code: 'picked', text });
  }
  if (apart.length > 0) {
    const text = `AICc cannot compare ${listed(apart.map((one) => `${article(titleOf(one))}`))} distribution with the others, because the limits are estimated from minimum and maximum. Use A² instead.`;
    notes.push({ code: 'ends', text });
  }
  if (n < 30) {
    const text = `The ranking is uncertain: ${plural(n, 'reading is', 'readings are')} too few to distinguish distributions, least of all in the tails, which determine proportions outside limits.`;
    notes.push({ code: 'small-n', text });
  }
  return notes;
}

/** A compared family as a row of the table. */
export interface ComparedRow {
  family: string;
  title: string;
  /** Empty where AICc does not compare it. */
  difference: string;
  weight: string;
  /** What the difference means: "as well supported". */
  support: string;
  p: string;
  plausible: boolean;
  /** "shape 6.63 ± 0.58, scale 1428 ± 25". */
  parameters: string;
  small: FittedFamily['small'];
}

function rowOf(one: FittedFamily, { alpha, resolution }: CompareFamiliesResult): ComparedRow {
  return {
    ...{ family: one.family, title: titleOf(one), difference: '', weight: '', support: 'not ranked' },
    plausible: false,
    p: one.pSimulated ? formatP(one.pSimulated.pValue, alpha) : one.statistic === null ? '–' : '…',
    parameters: one.estimated
      .map((name) => {
        const { title } = familyByName(one.family).parameters.find((spec) => spec.name === name)!;
        const error = one.standardErrors[name];
        const beside = error ? ` ± ${briefly(error, 2)}` : '';
        return `${title} ${parameterText(name, one.parameters[name]!, resolution, error)}${beside}`;
      })
      .join(', '),
    small: one.small,
  };
}

/** The families by rank; after them those that are listed apart. Results kept before there were weights have none. */
export function comparedRows(result: CompareFamiliesResult): ComparedRow[] {
  const ranked = result.families.map((one) => ({
    ...rowOf(one, result),
    difference: one.difference === 0 ? '0' : formatFigure(one.difference, 'statistic'),
    weight: one.weight === undefined ? '' : formatPercentOf(one.weight, undefined, 2),
    support: supportWords(one.difference),
    plausible: one.plausible ?? false,
  }));
  return [...ranked, ...(result.apart ?? []).map((one) => rowOf(one, result))];
}

/** The same as lines to be saved, in full digits, the head first. */
export function comparedTable({ families, apart, left }: CompareFamiliesResult): (string | number)[][] {
  const line = (one: FittedFamily, ...ranked: (string | number)[]) => [
    ...[one.family, one.aicc, ...ranked, one.logLikelihood, one.statistic ?? '', one.pSimulated?.pValue ?? ''],
    one.estimated.map((name) => `${name} ${one.parameters[name]}`).join(', '),
  ];
  const rows = families.map((one) => line(one, one.difference, one.weight ?? '', one.plausible ? 'yes' : 'no'));
  const beside = (apart ?? []).map((one) => line(one, '', '', 'not ranked'));
  const without = left.map(({ family, reason }) => [family, '', '', '', '', '', '', '', reason]);
  const heads = [
    'distribution',
    'AICc',
    'difference from the best',
    'weight',
    'plausible',
    'log-likelihood',
    'A²',
    'p',
    'parameters',
  ];
  return [heads, ...rows, ...beside, ...without];
}
