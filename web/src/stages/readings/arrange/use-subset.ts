import type { NewColumn } from '@verdict/contract';
import { useRouter } from 'vue-router';
import { api, ApiError } from '../../../api/client.js';
import { useStudy } from '../../../stores/study.js';
import { useWho } from '../../../stores/who.js';

/** Some rows as a study of their own: derived columns come along as plain values, set-aside readings stay set aside. */
export function useSubset() {
  const store = useStudy();
  const who = useWho();
  const router = useRouter();

  function columnsOf(rows: readonly number[]): NewColumn[] {
    const ids = new Map((store.study?.columns ?? []).map(({ id }) => [id, crypto.randomUUID() as string]));
    const place = new Map(rows.map((row, i) => [row, i + 1]));
    return (store.study?.columns ?? []).map((column) => {
      const texts = store.textsOf(column.id);
      const plain = column.derivation ? ({ decimal: 'point', thousands: 'none' } as const) : {};
      return {
        ...column,
        ...plain,
        id: ids.get(column.id)!,
        derivation: null,
        frequencies: column.frequencies && (ids.get(column.frequencies) ?? null),
        cells: rows.map((row) => texts[row - 1] ?? ''),
        aside: (store.study?.setAside ?? []).flatMap(({ column: of, row, reason }) =>
          of === column.id && place.has(row) ? [{ row: place.get(row)!, reason }] : [],
        ),
      };
    });
  }

  async function takeSubset(rows: readonly number[]): Promise<void> {
    const { study } = store;
    if (!study || rows.length === 0) return;
    const columns = columnsOf(rows);
    // Columns of frequencies first: the others name them.
    columns.sort((a, b) => Number(a.frequencies !== null) - Number(b.frequencies !== null));
    try {
      const { id } = await api.createStudy({
        name: `${study.name || 'untitled study'}: ${rows.length} rows`.slice(0, 120),
      });
      const note = `${rows.length} of ${study.rowCount} rows of “${study.name}” as of change ${study.revision}`.slice(
        0,
        200,
      );
      const request = { token: crypto.randomUUID(), revision: 0, who: who.name };
      await api.change(id, { ...request, change: { kind: 'add-columns', columns, note } });
      await router.push({ name: 'readings', params: { id } });
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      store.refused = error.problem;
    }
  }
  return { takeSubset };
}
