import type { StudyColumn } from '@verdict/contract';
import {
  MOST_COLUMNS,
  parseTable,
  recogniseLayout,
  recogniseRows,
  splitRows,
  type BlockLayout,
  type ParsedBlock,
} from '@verdict/core/readings';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Facts, Incoming } from '../../../files/incoming.js';
import { cutRange, fullRange } from '../../../files/shown-values.js';
import { parseInWorker, surveyInWorker } from '../../../workers/analysis-pool.js';
import { isLarge, isLong, likelyTarget, type Target } from './take.js';

/** What comes in, and where it would go. */
interface IncomingInto {
  incoming: Incoming;
  standing: StudyColumn[];
  cursor: { column: number; row: number } | null;
  over: boolean;
}

/** So much of a long text tells where it goes. */
const HEAD = 50_000;

/** What is shown where the worker that reads the text is ended by the browser. */
const UNREAD: ParsedBlock = {
  ...{ columns: [], rows: 0, problems: [], problemCount: 0 },
  refusal: 'The text could not be read, probably because the browser ran out of memory. Import fewer columns or rows.',
};

/** Readings on their way in, cut and read by a layout that is recognised and can be changed; which of their columns are taken. */
export function useIncomingBlock(given: IncomingInto) {
  const large = isLarge(given.incoming);
  const taken = computed(() => given.standing.map(({ name }) => name));
  const sheet = ref(0);
  const sheets = computed(() => (given.incoming.kind === 'sheets' ? given.incoming.sheets : []));
  const range = ref(sheets.value[0] ? fullRange(sheets.value[0].rows) : '');
  const rangeWrong = ref(false);
  watch(sheet, (i) => (range.value = fullRange(sheets.value[i]!.rows)));

  /** Rows that are there already; null for text, which is cut by its separator. */
  const givenRows = computed<string[][] | null>(() => {
    if (given.incoming.kind === 'text') return null;
    return given.incoming.kind === 'rows'
      ? given.incoming.rows
      : (cutRange(sheets.value[sheet.value]!.rows, range.value) ?? []);
  });
  const recognised = (): BlockLayout =>
    given.incoming.kind === 'text'
      ? recogniseLayout(given.incoming.text)
      : { separator: 'none', ...recogniseRows(givenRows.value!) };
  const layout = ref<BlockLayout>(recognised());
  watch([range, sheet], () => {
    rangeWrong.value = cutRange(sheets.value[sheet.value]?.rows ?? [], range.value) === null;
    layout.value = recognised();
  });

  const block = shallowRef<ParsedBlock | null>(null);
  const textNow = () => (given.incoming as { text: string }).text;
  const rowsNow = (most = Infinity) => givenRows.value ?? splitRows(textNow().slice(0, most), layout.value.separator);
  const target = ref<Target>(
    large
      ? 'new columns'
      : likelyTarget(rowsNow(HEAD), layout.value, given.standing, given.cursor !== null && given.over),
  );
  /** Names are only taken for columns that would stand beside those of the table. */
  const avoid = computed(() => (target.value === 'new columns' ? taken.value : []));
  let latest = 0;
  async function readBlock(): Promise<void> {
    const run = ++latest;
    if (!isLong(given.incoming)) {
      block.value = parseTable(rowsNow(), layout.value, avoid.value);
      return;
    }
    block.value = null;
    const readText = large ? surveyInWorker : parseInWorker;
    const found = await readText(textNow(), { ...layout.value }, [...avoid.value]).catch(() => UNREAD);
    if (run === latest) block.value = found;
  }
  watch([() => ({ ...layout.value }), avoid, givenRows], readBlock, { immediate: true });

  const facts = computed<Record<string, Facts>>(() => (given.incoming.kind === 'rows' ? given.incoming.facts : {}));
  const read = computed(() =>
    (block.value?.columns ?? []).map((column) => ({ ...column, ...facts.value[column.name] })),
  );
  /** The places of the columns that are taken: all, or as many as a study takes. */
  const chosen = shallowRef<ReadonlySet<number>>(new Set());
  const choosing = ref(false);
  // Read again with other marks, the same columns stay chosen; while a long text is read there are none.
  let width = 0;
  watch(
    () => read.value.length,
    (length) => {
      if (length === 0 || length === width) return;
      width = length;
      chosen.value = new Set(Array.from({ length: Math.min(length, MOST_COLUMNS) }, (_, j) => j));
      choosing.value = length > MOST_COLUMNS;
    },
    { immediate: true },
  );
  const columns = computed(() => read.value.filter((_, j) => chosen.value.has(j)));
  /** What has to be looked at in the columns that are taken. */
  const shownBlock = computed(() => {
    const { value: of } = block;
    if (!of || columns.value.length === read.value.length) return of;
    const names = new Set(columns.value.map(({ name }) => name));
    const problems = of.problems.filter(({ column }) => column === '' || names.has(column));
    return { ...of, problems, problemCount: problems.length };
  });
  /** Thousands of characters of a text that is read beside the page; 0 where it is read at once. */
  const long = isLong(given.incoming) ? Math.round(textNow().length / 1e3) : 0;
  return {
    ...{ large, long, sheet, sheets, range, rangeWrong, layout, target },
    ...{ block, read, chosen, choosing, columns, shownBlock },
  };
}
