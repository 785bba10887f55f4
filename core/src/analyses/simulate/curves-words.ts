import { formatPercent, formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import { listed, plural } from '../../numeric/grammar.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { simulatedTest } from '../../simulation/simulated-tests/registry.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import type { Curve, CurvePoint, CurvesResult } from './curves-result.js';
import type { Along, CurvesRequest } from './curves-settings.js';

export const ALONG_WORDS: Readonly<Record<Along, string>> = {
  n: 'sample size n',
  shiftInSd: 'shift in SDs',
  shift: 'shift',
  ratio: 'ratio of the standard deviations',
  mixedShare: 'proportion of contamination',
};

/** "n = 10", "a shift of 0.5 SD". */
export function placeWords(value: number, along: Along, unit = ''): string {
  const plain = formatValue(value);
  switch (along) {
    case 'n':
      return `n = ${groupThousands(value)}`;
    case 'shiftInSd':
      return `a shift of ${plain} SD`;
    case 'shift':
      return `a shift of ${plain}${unit ? `\u00a0${unit}` : ''}`;
    case 'ratio':
      return value === 1 ? 'an equal standard deviation' : `a standard deviation ${plain} times as large`;
    case 'mixedShare':
      return `${formatPercent(value)} contamination`;
  }
}

const percent = (share: number) => formatPercentOf(share, 1 - share, 3);
/** From the formula where that is exact. */
export const knownShare = ({ exact, share }: CurvePoint): number | null => exact ?? share;

/** Where a power is reached: the next whole number of readings. */
export function crossingWords(crossing: number, along: Along, unit: string): string {
  if (along === 'n') return `n = ${groupThousands(Math.ceil(crossing - 1e-9))}`;
  return `about ${placeWords(Number(crossing.toPrecision(2)), along, unit)}`;
}

/** "n = 34 (t), n = 35 (signed rank)", the smallest first. */
function crossingsWords({ curves, along, unit }: CurvesResult): string {
  const crossed = curves.filter(({ crossing }) => crossing !== null).sort((a, b) => a.crossing! - b.crossing!);
  return crossed.map(({ short, crossing }) => `${crossingWords(crossing!, along, unit)} (${short})`).join(', ');
}

/** The points that are known, first and last of them. */
const knownPoints = ({ points }: Curve) => points.filter((point) => knownShare(point) !== null);
const firstOf = (curve: Curve) => knownPoints(curve)[0]!;
const lastOf = (curve: Curve) => knownPoints(curve).at(-1)!;

/** Sentences one after another. */
const paragraph = (sentences: readonly Piece[][]): Piece[] =>
  sentences.flatMap((sentence, i) => (i === 0 ? sentence : [{ text: ' ' }, ...sentence]));

/** Where each test reaches the power, and which do not. */
function powerWords(result: CurvesResult, curves: readonly Curve[]): Piece[] {
  const { along, power, unit, effect } = result;
  const wanted = formatPercent(power);
  const against = along === 'n' && effect ? ` against ${effect}` : '';
  const crossed = curves.filter(({ crossing }) => crossing !== null);
  const early = curves.filter((curve) => curve.crossing === null && knownShare(firstOf(curve))! >= power);
  const never = curves.filter((curve) => !crossed.includes(curve) && !early.includes(curve));
  const lastWords = (curve: Curve) => `${percent(knownShare(lastOf(curve))!)} for ${curve.short}`;
  const sentences: Piece[][] = [];
  if (crossed.length > 0)
    sentences.push([
      { text: `${wanted} power${against} is reached at ` },
      { text: crossingsWords(result), strong: true, code: 'figure' },
      { text: '.' },
    ]);
  if (early.length > 0) {
    const where = placeWords(firstOf(early[0]!).value, along, unit);
    const tests = listed(early.map(({ short }) => short));
    sentences.push([{ text: `Already at ${where}, the power of ${tests} is at least ${wanted}.` }]);
  }
  if (never.length > 0) {
    const where = placeWords(lastOf(never[0]!).value, along, unit);
    sentences.push([{ text: `${wanted} power is not reached up to ${where}: ${listed(never.map(lastWords))}.` }]);
  }
  return paragraph(sentences);
}

/** The probability of reporting that a test does not keep its level although it does. */
const DOUBT = 0.05;

/** Where there is nothing to detect: the highest false-alarm rate of each test. */
function errorWords({ along, alpha, unit }: CurvesResult, curves: readonly Curve[]): Piece[] {
  const all = curves.flatMap(knownPoints);
  const worst = curves.flatMap((curve) => {
    const { short } = curve;
    const known = knownPoints(curve);
    if (known.length === 0) return [];
    const point = known.reduce((most, one) => (knownShare(one)! > knownShare(most)! ? one : most));
    const share = knownShare(point)!;
    // The worst of many is above the level by chance alone, unless each is held to a share of the doubt (Bonferroni).
    const [least] = clopperPearson(point.count, Math.max(1, point.replicates), 1 - DOUBT / all.length);
    const over = point.exact === null ? least > alpha : share > alpha * 1.001;
    return [{ words: `${percent(share)} (${short}) at ${placeWords(point.value, along, unit)}`, over }];
  });
  const level = formatPercent(alpha);
  const over = worst.filter((one) => one.over);
  const kept = worst.filter((one) => !one.over);
  const sentences: Piece[][] = [];
  if (over.length > 0)
    sentences.push([
      { text: `The false-alarm rate exceeds the nominal ${level}: ` },
      { text: listed(over.map(({ words }) => words)), strong: true, code: 'figure' },
      { text: '.' },
    ]);
  if (kept.length > 0) {
    const rates = listed(kept.map(({ words }) => words));
    sentences.push([{ text: `The false-alarm rate is at most ${rates}, consistent with the nominal ${level}.` }]);
  }
  return paragraph(sentences);
}

export function curvesFinding(result: CurvesResult): Piece[] {
  const known = result.curves.filter(({ points }) => points.some((point) => knownShare(point) !== null));
  const errs = known.filter(({ points }) => points.every(({ holds }) => holds));
  const notices = known.filter((curve) => !errs.includes(curve));
  const [noticed, erred] = [powerWords(result, notices), errorWords(result, errs)];
  // Some of the sentences end with the blank before the next.
  const apart = noticed.length > 0 && erred.length > 0 && !noticed.at(-1)!.text.endsWith(' ');
  return [...noticed, ...(apart ? [{ text: ' ' }] : []), ...erred];
}

export function curvesNotes(result: CurvesResult, asked: CurvesRequest): Note[] {
  const notes: Note[] = levelNote(asked.alpha);
  const none = result.curves.flatMap(({ points }) => points).reduce((sum, point) => sum + point.undefined, 0);
  if (none > 0)
    notes.push({
      code: 'undefined',
      text: `${plural(none, 'sample has', 'samples have')} no p, because all readings were equal. ${none === 1 ? 'It counts' : 'They count'} as not detected.`,
    });
  for (const curve of result.curves) {
    const { least, greatest, name } = simulatedTest(curve.test);
    const skipped = curve.points.filter(({ sizes }) => sizes.some((n) => n < least || n > (greatest ?? Infinity)));
    if (skipped.length === 0) continue;
    const range = greatest === undefined ? `at least ${least}` : `${least} to ${greatest}`;
    const where = skipped.map(({ sizes }) => `n = ${groupThousands(sizes[0]!)}`).join(', ');
    notes.push({
      code: 'not-there',
      text: `The ${name} is not shown at ${where}, because it takes ${range} readings.`,
    });
  }
  return notes;
}

/** One row a place, one column a test. */
export const curvesColumns = ({ curves }: CurvesResult): string[] => curves.map(({ short }) => short);
export function curvesFigures(result: CurvesResult): FoundFigure[] {
  const { curves, along, unit } = result;
  return (curves[0]?.points ?? []).map(({ value }, i) => ({
    ...{ key: String(i), note: '', formula: '' },
    name:
      along === 'n'
        ? `n\u00a0=\u00a0${groupThousands(value)}`
        : along === 'mixedShare'
          ? formatPercent(value).replace(' ', '\u00a0')
          : formatValue(value),
    meaning: `The proportion of samples with p below the significance level at ${placeWords(value, along, unit)}.`,
    texts: curves.map(({ points }) => {
      const share = knownShare(points[i]!);
      return share === null ? '–' : percent(share);
    }),
  }));
}

export const curvesTable = ({ curves, along }: CurvesResult): (string | number)[][] => [
  ['test', along, 'n', 'below the level', 'samples', 'proportion', 'lower', 'upper', 'exact'],
  ...curves.flatMap(({ name, points }) =>
    points.map(({ value, sizes, count, replicates, share, lower, upper, exact }) => [
      ...[name, value, sizes.join(' and '), count, replicates, share ?? '', lower ?? '', upper ?? '', exact ?? ''],
    ]),
  ),
];
