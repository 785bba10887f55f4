import { formatExpected } from '../../road/formatted.js';
import { z } from 'zod';
import { tableIndependence } from '../../claims/counts.js';
import { MOST_PERMUTED, MOST_TABLE_SIMULATED, powerOfTable, type TableTest } from '../../claims/power-of-tables.js';
import { fisherP } from '../../claims/shares.js';
import { pOfTally, type SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import { formatFigure, groupThousands } from '../../numeric/format.js';
import { listed, plural } from '../../numeric/grammar.js';
import { NO_READINGS, type Sample } from '../../readings/sample.js';
import { defineAnalysis, type Note, type SentencePart } from '../../road/analysis.js';
import { unavailable, whyEmpty } from '../../road/cautions.js';
import { subjectWords } from '../../road/groups.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { number } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import type { ClaimResult } from './claim-result.js';
import { claimResult, headOf, typedHead, type Head } from './claim-source.js';
import { claimFinding } from './claim-words.js';
import { byMethod, byParts, MOST_CELLS, replicates, seed, typedCount } from './counts-settings.js';
import { chosenP, enoughExpected, expectedLine, lawOfChiSquare, pExtras } from './counts-tested.js';
import { missedBy } from './one-column.js';

const noticeable = number('noticeable', 'smallest Cramér’s V of interest', { from: 0.001, to: 1 }, 'not set');
const NAMES = z.array(z.string().min(1).max(200)).max(MOST_CELLS).optional();
const request = z
  .strictObject({
    column: columnSetting.optional(),
    split: columnSetting.optional(),
    /** Typed in place of two columns of labels: rows of counts. */
    table: z.array(z.array(typedCount).min(1).max(MOST_CELLS)).min(1).max(MOST_CELLS).optional(),
    rowNames: NAMES,
    columnNames: NAMES,
    /** What the rows and the columns should add up to. */
    rowTotals: z.array(typedCount).max(MOST_CELLS).optional(),
    columnTotals: z.array(typedCount).max(MOST_CELLS).optional(),
    method: byMethod.schema,
    noticeable: noticeable.schema,
    alpha: alphaSetting,
    replicates: replicates.schema,
    seed: seed.schema,
  })
  .refine(({ column, table }) => column === undefined || table === undefined, {
    message: 'Give either columns or a typed table, not both.',
    path: ['table'],
  })
  .refine(({ table }) => !table || table.every((row) => row.length === table[0]!.length), {
    message: 'All rows of the table must have the same number of counts.',
    path: ['table'],
  });
type Request = z.infer<typeof request>;

export const TABLE_CLAIM: readonly SentencePart[] = [
  'The proportions of ',
  { subject: true },
  ' are claimed to be the same in all groups; alternative: they differ.',
];
export const TABLE_METHOD: readonly SentencePart[] = [
  'p from ',
  ...byParts(byMethod.field),
  '. Smallest Cramér’s V of interest: ',
  noticeable.field,
  '.',
];

interface Table {
  rows: string[];
  columns: string[];
  counts: number[][];
  notes: Note[];
}

const sum = (counts: readonly number[]) => counts.reduce((a, b) => a + b, 0);
const columnsOf = (counts: readonly (readonly number[])[]) => counts[0]!.map((_, j) => counts.map((row) => row[j]!));

/** The first total that does not match its parts, in words; null where all do. */
function wrongTotal(what: string, sums: readonly number[], totals: readonly number[] | undefined): string | null {
  if (!totals) return null;
  if (totals.length !== sums.length)
    return `The table has ${plural(sums.length, what)}, but ${totals.length} ${what} ${totals.length === 1 ? 'total is' : 'totals are'} given.`;
  const at = sums.findIndex((one, i) => one !== totals[i]);
  if (at < 0) return null;
  const off = Math.abs(sums[at]! - totals[at]!);
  return `The counts of ${what} ${at + 1} add up to ${groupThousands(sums[at]!)}, but its total is ${groupThousands(totals[at]!)} (difference ${groupThousands(off)}). Check both.`;
}

function typedTable({ table, rowNames, columnNames, rowTotals, columnTotals }: Request): Table | string {
  const counts = table!;
  const wrong =
    wrongTotal('row', counts.map(sum), rowTotals) ?? wrongTotal('column', columnsOf(counts).map(sum), columnTotals);
  if (wrong) return wrong;
  const rows = counts.map((_, i) => rowNames?.[i] ?? `row ${i + 1}`);
  const columns = counts[0]!.map((_, j) => columnNames?.[j] ?? `column ${j + 1}`);
  return { rows, columns, counts, notes: [] };
}

function tableOf(sample: Sample, settings: Request): Table | string {
  if (settings.table) return typedTable(settings);
  if (settings.column === undefined || settings.split === undefined || !sample.groups)
    return 'Choose a label column and split it by another label column, or type the table.';
  const { levels, groups, name } = sample;
  if (!levels) return `${name} holds numbers; a two-way table needs two label columns.`;
  if (sample.values.length === 0) return whyEmpty(sample);
  if (levels.length > MOST_CELLS || groups.samples.length > MOST_CELLS)
    return `A table of ${groupThousands(groups.samples.length)} × ${groupThousands(levels.length)} is too large for this test.`;
  const counts = groups.samples.map(({ values }) => {
    const row = new Array<number>(levels.length).fill(0);
    for (const place of values) row[place]!++;
    return row;
  });
  const without = groups.without;
  const text = `${plural(without, 'label has', 'labels have')} no ${groups.by} and ${without === 1 ? 'is' : 'are'} left out.`;
  return {
    rows: groups.samples.map((part) => part.name),
    columns: [...levels],
    counts,
    notes: without ? [{ code: 'no-label', text }] : [],
  };
}

/** Without empty rows and columns. */
function withoutEmpty({ rows, columns, counts, notes }: Table): Table {
  const keptRows = rows.map((_, i) => i).filter((i) => sum(counts[i]!) > 0);
  const keptColumns = columns.map((_, j) => j).filter((j) => counts.some((row) => row[j]! > 0));
  const empty = [
    ...rows.filter((_, i) => !keptRows.includes(i)),
    ...columns.filter((_, j) => !keptColumns.includes(j)),
  ];
  const text = `No counts for ${listed(empty.slice(0, 5))}; left out.`;
  return {
    rows: keptRows.map((i) => rows[i]!),
    columns: keptColumns.map((j) => columns[j]!),
    counts: keptRows.map((i) => keptColumns.map((j) => counts[i]![j]!)),
    notes: empty.length ? [...notes, { code: 'empty-places', text }] : notes,
  };
}

const MOST_SHUFFLED = 1_000_000;

/** The test that decides, as `chosenP` has it. */
function tested(method: Request['method'], isExact: boolean, isEnough: boolean): TableTest {
  if (method === 'chi-square' || method === 'simulated') return method === 'chi-square' ? 'curve' : 'permuted';
  if (isExact) return 'exact';
  return isEnough ? 'curve' : 'permuted';
}

interface Missed {
  counts: readonly (readonly number[])[];
  n: number;
  named: number | undefined;
  alpha: number;
  test: TableTest;
}

/** The power of the test, and the smallest V that it detects. */
function missedOf({ counts, n, named, alpha, test }: Missed) {
  const { most, chanceAt } = powerOfTable({ rows: counts.map(sum), columns: columnsOf(counts).map(sum) }, test, alpha);
  const simulated = n <= MOST_TABLE_SIMULATED;
  const approximate = !simulated || (test === 'permuted' && n > MOST_PERMUTED);
  return missedBy({
    ...{ n, named, chanceAt, scale: 1, most, least: 2, per: 'counts', of: 'a V of' },
    ...{ simulated, approximate, followed: test === 'exact' && simulated ? 24 : 0 },
  });
}

function worked(
  { rows, columns, counts, notes }: Table,
  settings: Request,
  name: string,
  head: Head,
  exact: number | null,
) {
  const { alpha, noticeable: named, method } = settings;
  const test = tableIndependence(counts);
  const n = sum(counts.map(sum));
  const labels = rows.flatMap((row) => columns.map((column) => `${row} · ${column}`));
  const far = test.cells.reduce(
    (best, { contribution }, i) => (contribution > test.cells[best]!.contribution ? i : best),
    0,
  );
  const { observed, expected } = test.cells[far]!;
  const missed = missedOf({ counts, n, named, alpha, test: tested(method, exact !== null, enoughExpected(test)) });
  return (simulated: SimulatedP | null): ClaimResult =>
    claimResult(
      { ...head, notes: [...head.notes, ...notes] },
      { alpha, confidence: 1 - alpha, alternative: 'two-sided' },
      {
        null: `the proportions of ${name} are the same in the ${rows.length} groups`,
        sought: `the proportions of ${name} differ between the ${rows.length} groups`,
        ...{ method, as: 'ratio', symbol: 'χ²', statistic: test.statistic, df: test.df, n, estimate: test.cramersV },
        ...chosenP(method, {
          asymptotic: test.pAsymptotic,
          exact,
          simulated,
          enough: enoughExpected(test) || n > MOST_SHUFFLED,
        }),
        measured: `Largest difference: ${labels[far]}, ${groupThousands(observed)} observed and ${formatExpected(expected)} expected (${plural(n, 'count')}). Cramér’s V = ${formatFigure(test.cramersV, 'statistic')}`,
        ...missed,
        assumptions: [expectedLine(test)],
        law: lawOfChiSquare(test.statistic, test.df, alpha),
        cells: test.cells.map((cell, i) => ({
          ...{ label: labels[i]!, group: rows[Math.floor(i / columns.length)]!, place: columns[i % columns.length]! },
          ...cell,
        })),
        extras: [
          {
            key: 'v',
            name: 'Cramér’s V',
            value: test.cramersV,
            as: 'ratio',
            meaning: 'Strength of the association: 0 none, 1 complete.',
            formula: '√(χ²/(n·(k − 1))), k the fewer of rows and columns (Cramér 1946)',
          },
          ...pExtras(test.pAsymptotic, exact, simulated, alpha),
        ],
      },
    );
}

/** Do the proportions of labels differ between groups. */
export const tableClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'table-claim',
  version: 2,
  name: 'Two-way table',
  title: 'do the proportions of labels differ between groups (χ², Fisher’s exact test, permutation)',
  needsReadings: false,
  takesLabels: true,
  request,
  method: [...TABLE_CLAIM, ' ', ...TABLE_METHOD],
  subject: ({ column, split, table }) => (table ? 'the typed table' : subjectWords({ column, split })),
  resolve: (settings) => ({ ...settings, replicates: settings.replicates ?? 10_000 }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const found = tableOf(sample, settings);
    if (typeof found === 'string') return unavailable(settings.table ? NO_READINGS : sample, found);
    const table = withoutEmpty(found);
    const { rows, columns, counts } = table;
    if (rows.length < 2 || columns.length < 2)
      return unavailable(sample, 'The table needs at least 2 rows and 2 columns with counts above 0.');
    if (rows.length > MOST_CELLS || columns.length > MOST_CELLS || rows.length * columns.length > 10 * MOST_CELLS)
      return unavailable(sample, `A table of ${rows.length} × ${columns.length} is too large for this test.`);
    const n = sum(counts.map(sum));
    const square = rows.length === 2 && columns.length === 2;
    const { method } = settings;
    if (method === 'exact' && !square)
      return unavailable(sample, 'The exact test is available for 2 × 2 tables only. Choose simulation.');
    if (method === 'simulated' && n > MOST_SHUFFLED)
      return unavailable(
        sample,
        'There are too many counts to simulate. Choose the χ² distribution; it is accurate here.',
      );
    const exact =
      square && method !== 'chi-square' && method !== 'simulated' ? fisherP(counts as never, 'two-sided') : null;
    const name = settings.table ? 'the typed table' : sample.name;
    const head = settings.table ? typedHead(n) : headOf(sample);
    const result = worked(table, settings, name, head, exact);
    const test = tableIndependence(counts);
    const simulates =
      method === 'simulated' || (method === 'suited' && exact === null && !enoughExpected(test) && n <= MOST_SHUFFLED);
    if (!simulates) return result(null);
    const book = orderBook(settings.seed, chunkSizeFor(n));
    const input = { rows: counts.map(sum), columns: columnsOf(counts).map(sum), observed: test.statistic };
    book.add({ kernel: 'table-tallies', input }, settings.replicates!);
    const [chunks] = yield { partial: result(null), orders: book.orders };
    return result(
      pOfTally(
        chunks!.reduce((total, chunk) => total + chunk[0]!, 0),
        settings.replicates!,
        settings.seed,
      ),
    );
  },
  finding: claimFinding,
});
