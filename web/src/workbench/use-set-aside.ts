import { formatFigure, groupThousands } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { computed, ref, type Ref } from 'vue';
import { useKeys } from '../composables/use-keys.js';
import { useStudy } from '../stores/study.js';

interface AsideSettings {
  column: Ref<{ id: string; name: string } | null>;
  sample: Ref<Sample | null>;
  /** The rows that the key X means: what is pointed at, or chosen. */
  pointed: () => readonly number[];
  /** True while nothing can be set aside. */
  locked: () => boolean;
  done?: () => void;
}

/** Setting aside readings of the subject: asked for by a button or the key X, done once a reason is given. */
export function useSetAside({ column, sample, pointed, locked, done }: AsideSettings) {
  const store = useStudy();
  const rows = ref<readonly number[]>([]);
  function ask(asked: readonly number[]): void {
    if (!store.ruled && !locked()) rows.value = asked;
  }
  const leave = () => void (rows.value = []);
  function setAside(reason: string): void {
    const { value: of } = column;
    if (of) store.change({ kind: 'set-aside', readings: rows.value.map((row) => ({ column: of.id, row, reason })) });
    leave();
    done?.();
  }
  /** What is about to be set aside. */
  const words = computed(() => {
    const [row] = rows.value;
    const { value: of } = sample;
    if (row === undefined || !of) return '';
    if (rows.value.length > 1) return `${groupThousands(rows.value.length)} readings of ${column.value?.name}`;
    const value = of.values[of.rows.indexOf(row)];
    return `Row ${row} of ${column.value?.name}, ${value === undefined ? 'no reading' : formatFigure(value, 'reading', of.resolution)}`;
  });
  useKeys({ x: () => ask(pointed()) });
  return { rows, words, ask, leave, setAside };
}

export type SettingAside = ReturnType<typeof useSetAside>;
