import { twoSamplesAnalysis } from '@verdict/core/analyses';
import { computed } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { useParts } from '../../../workbench/parts/use-parts.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { useTwoGroups } from '../../../workbench/parts/use-two-groups.js';

/** A label with more levels than these hardly names groups. */
const MOST_LEVELS = 24;

/** Two groups of the split subject, or the subject and a column beside it, against each other. */
export function useTwo() {
  const store = useStudy();
  const column = computed(() => store.subject);
  const parts = useParts();
  parts.resume();
  const sample = computed(() =>
    column.value && parts.parts.value ? store.sampleInParts(column.value.id, parts.parts.value) : null,
  );
  const names = computed(() =>
    (sample.value?.groups?.samples ?? []).filter(({ values }) => values.length > 0).map(({ name }) => name),
  );
  const two = useTwoGroups(() => names.value);
  /** Labels that name groups, and not every row. */
  const groupings = computed(() =>
    parts.labels.value.filter(({ id }) => {
      const levels = new Set(store.cells[id]);
      return levels.size >= 2 && levels.size <= MOST_LEVELS;
    }),
  );
  const run = useRun(twoSamplesAnalysis, sample, {
    name: 'two',
    fixed: () => {
      if (!column.value || !parts.parts.value) return null;
      return {
        column: column.value.name,
        alpha: store.study!.alpha,
        ...parts.asked.value,
        ...two.asked(),
      };
    },
  });
  const about = () =>
    column.value && sample.value ? { column: column.value.id, parts: parts.parts.value, sample: sample.value } : null;
  const stage = useStage({ runs: () => [run], about });
  const choose = (which: 'first' | 'second', name: string) => {
    const { first, second } = run.request.value ?? {};
    two.choose(which, name, { ...(first === undefined ? {} : { first }), ...(second === undefined ? {} : { second }) });
  };
  return { column, parts, groupings, names, run, stage, choose };
}
