import { simulatedNotes } from '../../road/simulated-notes.js';
import { equalsP, formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, levelWords } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import { mainOfTwo, type ComparedSample, type TwoSamplesResult } from './two-samples-result.js';

const SYMBOLS = { 'anderson-darling': 'A²', 'kolmogorov-smirnov': 'D' } as const;

/** Whether the two come from one distribution: never that they do. */
export function twoSamplesFinding(result: TwoSamplesResult): Piece[] {
  const { samples, alpha } = result;
  const [a, b] = samples;
  const { test, statistic, pSimulated } = mainOfTwo(result);
  const figures = `${SYMBOLS[test]} = ${formatFigure(statistic, 'statistic')}`;
  const names = `${a.name} and ${b.name}`;
  if (!pSimulated) return [{ text: `Comparing ${names}: ${figures}, p is being simulated.` }];
  const p = `${figures}, ${equalsP(pSimulated.pValue, alpha)}${levelWords(alpha)}`;
  return pSimulated.pValue < alpha
    ? [{ text: `The distributions of ${names} differ`, strong: true, code: 'evidence' }, { text: ` (${p}).` }]
    : [
        { text: 'No evidence', strong: true, code: 'no-evidence' },
        { text: ` that the distributions of ${names} differ (${p}).` },
      ];
}

/** What a careful colleague would add. */
export function twoSamplesNotes(result: TwoSamplesResult): Note[] {
  const { samples, tests, alpha, unit } = result;
  const notes: Note[] = [...levelNote(alpha)];
  const small = samples.find(({ n }) => n < 10);
  if (small) {
    const text = `Only gross differences are detected, because ${small.name} has ${plural(small.n, 'reading')}.`;
    notes.push({ code: 'small-n', text });
  }
  const [a2, d] = tests;
  if (a2.pSimulated && d.pSimulated && a2.pSimulated.pValue < alpha !== d.pSimulated.pValue < alpha) {
    const [found, not] = a2.pSimulated.pValue < alpha ? ['A²', 'D'] : ['D', 'A²'];
    const text = `The two tests disagree: ${found} detects a difference, ${not} does not. A² is more sensitive in the tails, D in the centre. The finding follows the chosen test.`;
    notes.push({ code: 'tests-differ', text });
  }
  const { pSimulated } = mainOfTwo(result);
  if (pSimulated && pSimulated.pValue < alpha) {
    const text = `The plot shows how they differ: points beside the line mean a different centre, another slope a different spread, a curve a different shape.`;
    notes.push({ code: 'what-differs', text });
  }
  if (unit === '' && result.by === null && samples[0].name !== samples[1].name) {
    notes.push({
      code: 'units',
      text: 'The units of the two columns are not the same. The numbers are compared without conversion.',
    });
  }
  return [...notes, ...simulatedNotes(pSimulated, alpha)];
}

/** The figures of both, side by side. */
export function twoSamplesFigures({ samples, resolution }: TwoSamplesResult): FoundFigure[] {
  const row = (
    key: string,
    name: string,
    meaning: string,
    formula: string,
    of: (sample: ComparedSample) => string,
  ): FoundFigure => ({ key, name, meaning, formula, note: '', texts: samples.map(of) });
  const location = (x: number) => formatFigure(x, 'location', resolution);
  return [
    row('n', 'readings', 'The number of readings; it may differ between the two.', 'n', ({ n }) => groupThousands(n)),
    row('mean', 'mean', 'The arithmetic mean.', 'Σx/n', ({ mean }) => location(mean)),
    row('median', 'median', 'Half of the readings lie at or below it.', 'middle reading', ({ median }) =>
      location(median),
    ),
    row('sd', 'SD', 'The standard deviation, divisor n − 1.', '√(Σ(x − mean)²/(n − 1))', ({ sd }) =>
      sd === null ? '–' : formatFigure(sd, 'spread', resolution),
    ),
    row('min', 'minimum', 'The smallest reading.', 'min', ({ min }) => formatFigure(min, 'reading', resolution)),
    row('max', 'maximum', 'The largest reading.', 'max', ({ max }) => formatFigure(max, 'reading', resolution)),
  ];
}

/** The tests: statistic and p. */
export const TWO_SAMPLES_COLUMNS = ['statistic', 'p'] as const;

export function twoSamplesTests({ tests, alpha }: TwoSamplesResult): FoundFigure[] {
  const said = {
    'anderson-darling': {
      name: 'Anderson–Darling, two samples',
      meaning:
        'The distance between the two empirical distributions, with most weight on the tails; midranks for ties.',
      formula: 'Scholz and Stephens (1987)',
      use: 'A good choice if the kind of difference is not known.',
    },
    'kolmogorov-smirnov': {
      name: 'Kolmogorov–Smirnov, two samples',
      meaning: 'The largest distance between the two empirical distributions.',
      formula: 'max |F₁ − F₂| (Smirnov 1939)',
      use: 'Use it if a shift of the centre is the expected difference.',
    },
  } as const;
  return tests.map(({ test, statistic, pSimulated }) => ({
    key: test,
    ...said[test],
    note: pSimulated
      ? `${plural(pSimulated.replicates, 'permutation')}: ${pSimulated.pInterval.map((p) => formatP(p, alpha)).join(' – ')}`
      : '',
    texts: [formatFigure(statistic, 'statistic'), pSimulated ? formatP(pSimulated.pValue, alpha) : '…'],
  }));
}

/** The quantiles behind the picture. */
export function twoSamplesTable({ samples, quantiles }: TwoSamplesResult): (string | number)[][] {
  const { first, second, shares } = quantiles;
  const rows = shares.map((share, i) => [share, first[i]!, second[i]!, second[i]! - first[i]!]);
  return [['proportion below', samples[0].name, samples[1].name, 'difference'], ...rows];
}
