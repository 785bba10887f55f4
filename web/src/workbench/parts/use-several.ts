import type { PartsBy, StudyColumn } from '@verdict/contract';
import { MOST_SCREENED } from '@verdict/core/road';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useStudy } from '../../stores/study.js';
import { unchanged } from '../run/unchanged.js';
import { useAddress } from '../run/use-address.js';
import type { useStage } from '../frame/use-stage.js';
import type { Run } from '../run/use-run.js';
import { useParts } from './use-parts.js';

/** What else can be selected besides columns of numbers, and the default selection. */
interface Wanted {
  all: () => readonly StudyColumn[];
  usual: () => readonly StudyColumn[];
}

/** The selected columns or groups with the run over them. */
export type ManyRun = Pick<
  ReturnType<typeof useSeveral>,
  'column' | 'split' | 'all' | 'chosen' | 'subject' | 'cautions'
> & { run: Run; stage: ReturnType<typeof useStage>; open: (name: string) => void };

/** The selection: all groups of the split subject; without a split, all columns of numbers, or the chosen ones. */
export function useSeveral(wanted?: Wanted) {
  const store = useStudy();
  const router = useRouter();
  const address = useAddress();
  const { split } = useParts();

  const numeric = computed(() => (store.study?.columns ?? []).filter(({ kind }) => kind !== 'label'));
  /** All that can be chosen. */
  const all = computed(() => wanted?.all() ?? numeric.value);
  /** Counts are no measures: they are looked at where they are asked for, or where there is nothing else. */
  const usual = computed(() => {
    if (wanted) return wanted.usual();
    const measures = numeric.value.filter(({ kind }) => kind === 'measure');
    return measures.length > 0 ? measures : numeric.value;
  });
  const chosen = computed({
    get() {
      const text = address.textOf('columns');
      const ids = new Set(text?.split(' ') ?? []);
      const some = all.value.filter(({ id }) => ids.has(id));
      return (some.length > 0 ? some : usual.value).slice(0, MOST_SCREENED).map(({ id }) => id);
    },
    set(ids: string[]) {
      const same = ids.length === usual.value.length && usual.value.every(({ id }) => ids.includes(id));
      void address.change({ columns: same || ids.length === 0 ? undefined : ids.join(' ') });
    },
  });
  const columns = computed(() => all.value.filter(({ id }) => chosen.value.includes(id)));
  const cautions = computed(() =>
    usual.value.length > MOST_SCREENED && !split.value
      ? [`The study has ${usual.value.length} measurement columns; only the first ${MOST_SCREENED} are analysed.`]
      : [],
  );

  const column = computed(() => (split.value ? store.subject : (columns.value[0] ?? null)));
  const parts = unchanged<PartsBy | null>(() => {
    if (split.value) return { split: split.value.id };
    const others = columns.value.slice(1).map(({ id }) => id);
    return others.length > 0 ? { beside: others } : null;
  });
  const sample = computed(() => (column.value ? store.sampleInParts(column.value.id, parts.value) : null));
  /** The same as a request names them. */
  const asked = () => {
    if (!column.value) return null;
    const others = columns.value.slice(1).map(({ name }) => name);
    const by = split.value ? { split: split.value.name } : others.length > 0 ? { beside: others } : {};
    return { column: column.value.name, alpha: store.study!.alpha, ...by };
  };
  const about = () =>
    column.value && sample.value ? { column: column.value.id, parts: parts.value, sample: sample.value } : null;

  /** One of them on its own page: a column becomes the subject, groups stay together. */
  function open(stage: string, name: string): void {
    const one = columns.value.find((some) => some.name === name);
    const labels = !split.value && one?.kind === 'label';
    if (!split.value && one && !labels && one.id !== store.subject?.id)
      store.change({ kind: 'change-study', subject: one.id });
    const query = split.value ? { split: split.value.id } : labels ? { label: one.id } : {};
    void router.push({ name: stage, params: router.currentRoute.value.params, query });
  }
  const subject = computed(() =>
    split.value ? `${column.value?.name ?? ''} by ${split.value.name}` : `${columns.value.length} columns`,
  );
  return { column, split, all, chosen, subject, cautions, sample, asked, about, open };
}
