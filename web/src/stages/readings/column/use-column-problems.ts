import type { StudyColumn } from '@verdict/contract';
import { outsideLimits, outsideWords, problemCells } from '@verdict/core/readings';
import { computed, type Ref } from 'vue';
import { localCell } from '../../../language/language.js';
import { useStudy } from '../../../stores/study.js';

/** A place in the column and what is to be said of it. */
interface Said {
  row: number;
  text: string;
}
export interface ColumnProblems {
  list: Said[];
  count: number;
  /** All of them are readings beyond what the instrument can tell, such as "< 0.05": nothing to mend. */
  onlyLimits: boolean;
  /** Why a derived column has no values at all. */
  fault: string | null;
  /** Readings outside the limits of the column: they count, but may be slips. */
  outside: Said[];
  outsideCount: number;
}

/** As many places are listed. */
export const MOST_LISTED = 50;
const NONE: ColumnProblems = { list: [], count: 0, onlyLimits: false, fault: null, outside: [], outsideCount: 0 };

/** What is wrong with the cells of a column, or outside its limits, without those that are set aside. */
export function useColumnProblems(column: Ref<StudyColumn | null>) {
  const store = useStudy();

  function cellsOf(of: StudyColumn): Partial<ColumnProblems> {
    if (of.kind === 'label' && !of.derivation) return {};
    const derived = store.derivedOf(of.id);
    if (derived) {
      const list = derived.failed.map((row) => ({
        row,
        text: `Row ${row} of ${of.name} has no value: the result is not finite.`,
      }));
      return { list, count: list.length, fault: derived.fault };
    }
    // The sample has read every cell already: a clean column is not read again to find nothing.
    const sample = store.sampleOf(of.id);
    if (sample && sample.unreadable + sample.beyondLimit === 0) return {};
    const { problems, count } = problemCells({ ...of, cells: store.textsOf(of.id) });
    const aside = store.table?.setAside(of.id);
    const list = problems.flatMap(({ row, text }) => (row === null || aside?.has(row) ? [] : [{ row, text }]));
    const onlyLimits = count <= problems.length && problems.every(({ code }) => code === 'beyond-limit');
    return { list, count: count - (problems.length - list.length), onlyLimits };
  }

  function outsideOf(of: StudyColumn): Partial<ColumnProblems> {
    const sample = store.sampleOf(of.id);
    if (!sample || of.kind === 'label') return {};
    const limits = { lower: of.lowerLimit, upper: of.upperLimit };
    const { found, count } = outsideLimits(sample.values, sample.rows, limits, MOST_LISTED);
    const texts = store.textsOf(of.id);
    const outside = found.map((one) => ({
      row: one.row,
      text: outsideWords(one, localCell(texts[one.row - 1] ?? '', of), of.unit),
    }));
    return { outside, outsideCount: count };
  }

  return computed<ColumnProblems>(() => {
    const { value: of } = column;
    return of ? { ...NONE, ...cellsOf(of), ...outsideOf(of) } : NONE;
  });
}
