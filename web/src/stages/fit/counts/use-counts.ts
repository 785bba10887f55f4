import { countFitAnalysis } from '@verdict/core/analyses';
import { computed } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { unchanged } from '../../../workbench/run/unchanged.js';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import type { CountsAs } from '../../../charts/pictures/counts.js';
import { useWhole } from '../use-whole.js';

/** Counts against the families of counts; for the binomial with the column that tells the trials of each. */
export function useCounts() {
  const store = useStudy();
  const { column, name, atLevel, cautions } = useWhole();
  const address = useAddress();

  const others = computed(() =>
    (store.study?.columns ?? []).filter(({ kind, id }) => kind !== 'label' && id !== column.value?.id),
  );
  const binomial = computed(() => address.textOf('count.family') === 'binomial');
  const trialsOf = computed(() => others.value.find(({ id }) => id === address.textOf('trials')) ?? null);
  const trials = computed({
    get: () => trialsOf.value?.id ?? '',
    set: (id: string) => void address.change({ trials: id || undefined }),
  });
  const parts = unchanged(() => (binomial.value && trialsOf.value ? { beside: [trialsOf.value.id] } : null));
  const sample = computed(() => (column.value ? store.sampleInParts(column.value.id, parts.value) : null));

  const run = useRun(countFitAnalysis, sample, {
    name: 'count',
    fixed: () => {
      const of = atLevel();
      return of && { ...of, ...(parts.value ? { beside: [trialsOf.value!.name] } : {}) };
    },
  });
  const about = () =>
    column.value && sample.value ? { column: column.value.id, parts: parts.value, sample: sample.value } : null;
  const stage = useStage({ runs: () => [run], about });
  const as = computed<CountsAs>({
    get: () => (address.textOf('as') === 'hanging' ? 'hanging' : 'beside'),
    set: (one) => void address.change({ as: one === 'beside' ? undefined : one }),
  });
  const subject = computed(() => (parts.value ? `${name.value} out of ${trialsOf.value!.name}` : name.value));
  return { column, name, subject, cautions, others, binomial, trials, run, stage, as };
}
