import { articleOf } from '../../distributions/names.js';
import { familyByName } from '../../distributions/registry.js';
import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import type { Note, Piece } from '../../road/analysis.js';
import { unreadableNotes } from '../../road/cautions.js';
import { censoredNote } from '../../road/beyond-limits.js';
import {
  NOT_TOLD_APART,
  notToldApart,
  type ComparedFamily,
  type CompareFamiliesResult,
} from './compare-families-result.js';
import { briefly, parameterText } from './law-words.js';
import { listed } from '../../road/listed.js';

const titleOf = ({ family }: Pick<ComparedFamily, 'family'>) => familyByName(family).title;

/** Which describe the readings best, and what the sample does not tell apart. */
export function comparedFinding(result: CompareFamiliesResult): Piece[] {
  const { families, n, alpha } = result;
  const [best] = families;
  if (!best) return [{ text: 'None of the families can be fitted to these readings.' }];
  const [, ...others] = notToldApart(result);
  const count = groupThousands(n);
  const lead: Piece[] =
    others.length === 0
      ? [
          { text: `Of ${families.length} families ` },
          { text: `${articleOf(titleOf(best))} ${titleOf(best)}`, strong: true },
          { text: ' distribution describes the readings best' },
        ]
      : [
          { text: 'Not told apart', strong: true },
          { text: ` by ${count} readings: ${listed([best, ...others].map(titleOf))}, of ${families.length} families` },
        ];
  const { pSimulated } = best;
  if (!pSimulated) return [...lead, { text: '.' }];
  const verdict =
    pSimulated.pValue < alpha ? `; and yet the readings depart from it: even the best is none that they follow` : '';
  return [...lead, { text: `${others.length === 0 ? '' : `; ${titleOf(best)} ranks first`}${verdict}.` }];
}

/** What a careful colleague would add. */
export function comparedNotes(sample: Sample, { n, families }: Pick<CompareFamiliesResult, 'n' | 'families'>): Note[] {
  const notes = [...unreadableNotes(sample), ...censoredNote(sample)];
  if (sample.censored) {
    const text = 'A² and its p need every reading: the families are ranked by their likelihood alone.';
    notes.push({ code: 'no-test', text });
  }
  if (families.length > 1) {
    const text = `The family that ranks first was picked on these very readings${sample.censored ? '' : ': its p is a little too kind'}. What is known of the process counts for more than a rank.`;
    notes.push({ code: 'picked', text });
  }
  const ending = families.filter(
    ({ family, difference }) => difference <= NOT_TOLD_APART && familyByName(family).estimation.ends,
  );
  if (ending.length > 0) {
    const text = `The ends of ${listed(ending.map((one) => `${articleOf(titleOf(one))} ${titleOf(one)}`))} are those of the readings: AICc is too kind to it.`;
    notes.push({ code: 'ends', text });
  }
  if (n < 30) {
    const text = `${n} readings hardly tell families apart; their tails, which matter most for limits, not at all.`;
    notes.push({ code: 'small-n', text });
  }
  return notes;
}

/** A compared family as a row of the table. */
export interface ComparedRow {
  family: string;
  title: string;
  difference: string;
  p: string;
  /** True where the sample does not tell it apart from the best. */
  together: boolean;
  /** "shape 6.634 ± 0.58, scale 1427.6 ± 25 ". */
  parameters: string;
  small: ComparedFamily['small'];
}

export function comparedRows(result: CompareFamiliesResult): ComparedRow[] {
  const together = new Set(notToldApart(result));
  return result.families.map((one) => ({
    family: one.family,
    title: titleOf(one),
    difference: one.difference === 0 ? '0' : formatFigure(one.difference, 'statistic'),
    p: one.pSimulated ? formatP(one.pSimulated.pValue, result.alpha) : one.statistic === null ? '–' : '…',
    together: together.has(one),
    parameters: one.estimated
      .map((name) => {
        const { title } = familyByName(one.family).parameters.find((spec) => spec.name === name)!;
        const error = one.standardErrors[name];
        const beside = error ? ` ± ${briefly(error, 2)}` : '';
        return `${title} ${parameterText(name, one.parameters[name]!, result.resolution)}${beside}`;
      })
      .join(', '),
    small: one.small,
  }));
}

/** The same as lines to be saved, in full digits, the head first. */
export function comparedTable({ families, left }: CompareFamiliesResult): (string | number)[][] {
  const rows = families.map(
    ({ family, aicc, difference, logLikelihood, statistic, pSimulated, estimated, parameters }) => [
      family,
      aicc,
      difference,
      logLikelihood,
      statistic ?? '',
      pSimulated?.pValue ?? '',
      estimated.map((name) => `${name} ${parameters[name]}`).join(', '),
    ],
  );
  const without = left.map(({ family, reason }) => [family, '', '', '', '', '', reason]);
  return [['family', 'AICc', 'less the best', 'log-likelihood', 'A²', 'p', 'parameters'], ...rows, ...without];
}
