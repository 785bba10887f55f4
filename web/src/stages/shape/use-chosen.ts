import { inBins } from '@verdict/core/analyses';
import type { RowFilter } from '@verdict/core/table';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { binsIn } from './pictures.js';
import type { useShape } from './use-shape.js';

/** More rows than this are not named one by one in an address. */
const MOST_NAMED = 1_000;

/** The bars that were chosen, and the readings in them. */
export function useChosen({ column, parts, sample, shown }: ReturnType<typeof useShape>) {
  const router = useRouter();
  const chosen = ref<ReadonlySet<number>>(new Set());
  const bins = computed(() => binsIn(shown.value));
  const edges = computed(() => bins.value?.edges ?? null);
  // Other bins are other bars.
  watch(
    () => edges.value?.join(),
    () => (chosen.value = new Set()),
  );
  /** The rows of the groups that are shown; null where the column is shown as a whole. */
  const shownRows = computed(() => {
    const { value: of } = sample;
    if (!of?.groups || !bins.value) return null;
    const names = new Set(bins.value.parts.map(({ name }) => name));
    return new Set(of.groups.samples.flatMap(({ name, rows }) => (names.has(name) ? [...rows] : [])));
  });
  /** Indices into the sample. */
  const readings = computed(() => {
    const { value: of } = sample;
    if (!edges.value || !of || chosen.value.size === 0) return [];
    const found = inBins(of.values, edges.value, chosen.value);
    return shownRows.value ? found.filter((i) => shownRows.value!.has(of.rows[i]!)) : found;
  });
  /** Rows of several columns are not told apart by their numbers. */
  const canChoose = computed(() => chosen.value.size > 0 && parts.beside.value.length === 0);
  const rowNumbers = () => [...new Set(readings.value.map((i) => sample.value!.rows[i]!))];

  /** How the table shows them: row by row, or, where they are many and lie in neighbouring bars, by their range; null where neither can be said. */
  const filter = computed<RowFilter | null>(() => {
    if (readings.value.length === 0 || !column.value) return null;
    if (readings.value.length <= MOST_NAMED) return { kind: 'rows', rows: rowNumbers() };
    const bars = [...chosen.value];
    const [first, last] = [Math.min(...bars), Math.max(...bars)];
    if (last - first + 1 > bars.length) return null;
    const values = readings.value.map((i) => sample.value!.values[i]!);
    const [from, to] = values.reduce(([a, b], x) => [Math.min(a, x), Math.max(b, x)], [Infinity, -Infinity]);
    return { kind: 'range', column: column.value.id, from, to };
  });
  function showInTable(): void {
    const arranged = JSON.stringify({ sort: [], only: [filter.value] });
    void router.push({ name: 'readings', query: { arranged } });
  }

  return { chosen, readings, rows: rowNumbers, canChoose, canShow: computed(() => filter.value !== null), showInTable };
}
