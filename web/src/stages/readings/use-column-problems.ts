import type { StudyColumn } from '@verdict/contract';
import { problemCells } from '@verdict/core/readings';
import { computed, type Ref } from 'vue';
import { useStudy } from '../../stores/study.js';

export interface ColumnProblems {
  list: { row: number; text: string }[];
  count: number;
  /** All of them are readings beyond a limit: nothing to mend. */
  onlyLimits: boolean;
  /** Why a derived column has no values at all. */
  fault: string | null;
}

const NONE: ColumnProblems = { list: [], count: 0, onlyLimits: false, fault: null };

/** What is wrong with the cells of a column, without those that are set aside. */
export function useColumnProblems(column: Ref<StudyColumn | null>) {
  const store = useStudy();
  return computed<ColumnProblems>(() => {
    const of = column.value;
    if (!of) return NONE;
    const derived = store.derivedOf(of.id);
    if (derived) {
      const list = derived.failed.map((row) => ({
        row,
        text: `Row ${row} of ${of.name} has no value: the result is not finite.`,
      }));
      return { list, count: list.length, onlyLimits: false, fault: derived.fault };
    }
    // The sample has read every cell already: a clean column is not read again to find nothing.
    const sample = store.sampleOf(of.id);
    if (sample && sample.unreadable + sample.beyondLimit === 0) return NONE;
    const { problems, count } = problemCells({ ...of, cells: store.textsOf(of.id) });
    const aside = store.table?.setAside(of.id);
    const list = problems.flatMap(({ row, text }) => (row === null || aside?.has(row) ? [] : [{ row, text }]));
    const onlyLimits = count <= problems.length && problems.every(({ code }) => code === 'beyond-limit');
    return { list, count: count - (problems.length - list.length), onlyLimits, fault: null };
  });
}
