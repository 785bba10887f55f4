import { formatFigure, groupThousands } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { computed, ref, type Ref } from 'vue';
import { useKeys } from '../../composables/use-keys.js';
import { useStudy } from '../../stores/study.js';

interface AsideSettings {
  column: Ref<{ id: string; name: string } | null>;
  sample: Ref<Sample | null>;
  /** The rows for the key X: the selected or pointed ones. */
  pointed: () => readonly number[];
  /** True while nothing can be set aside. */
  locked: () => boolean;
  done?: () => void;
  /** Reasons that are often the one for setting aside, and for leaving in. */
  usual?: { aside: readonly string[]; left: readonly string[] };
}

/** Setting aside readings of the subject, or leaving them in on purpose: asked for by a button or the key X, done once a reason is given. */
export function useSetAside({ column, sample, pointed, locked, done, usual }: AsideSettings) {
  const store = useStudy();
  const rows = ref<readonly number[]>([]);
  /** True while it is asked why readings stay in. */
  const leaving = ref(false);
  function begin(asked: readonly number[], stays: boolean): void {
    if (store.ruled || locked()) return;
    rows.value = asked;
    leaving.value = stays;
  }
  const ask = (asked: readonly number[]) => begin(asked, false);
  const askToLeave = (asked: readonly number[]) => begin(asked, true);
  const leave = () => void (rows.value = []);
  function finish(reason: string): void {
    const { value: of } = column;
    const readings = of ? rows.value.map((row) => ({ column: of.id, row, reason })) : [];
    if (readings.length > 0) store.change({ kind: leaving.value ? 'leave-in' : 'set-aside', readings });
    leave();
    done?.();
  }
  /** The readings that are about to be set aside. */
  const words = computed(() => {
    const [row] = rows.value;
    const { value: of } = sample;
    if (row === undefined || !of) return '';
    if (rows.value.length > 1) return `${groupThousands(rows.value.length)} readings of ${column.value?.name}`;
    const value = of.values[of.rows.indexOf(row)];
    return `Row ${row} of ${column.value?.name}, ${value === undefined ? 'no reading' : formatFigure(value, 'reading', of.resolution)}`;
  });
  useKeys({ x: () => ask(pointed()) });
  const often = computed(() => (leaving.value ? usual?.left : usual?.aside) ?? []);
  return { rows, words, leaving, often, ask, askToLeave, leave, finish };
}

export type SettingAside = ReturnType<typeof useSetAside>;
