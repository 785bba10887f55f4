import { outlyingGroupsAnalysis } from '@verdict/core/analyses';
import { subjectWords } from '@verdict/core/road';
import { computed } from 'vue';
import { useStudy } from '../../../stores/study.js';
import type { FieldValue } from '../../../workbench/run/field-values.js';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useParts } from '../../../workbench/parts/use-parts.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { RULE_FIELDS, useRule } from '../use-rule.js';

/** The groups of the split subject against one another: spreads, means, h and k. */
export function useGroups() {
  const store = useStudy();
  const address = useAddress();
  const { split, labels, splitBy, resume } = useParts();
  resume();
  const column = computed(() => store.subject);
  const parts = computed(() => (split.value ? { split: split.value.id } : null));
  const sample = computed(() =>
    column.value && parts.value ? store.sampleInParts(column.value.id, parts.value) : null,
  );
  const rule = useRule();
  const run = useRun(outlyingGroupsAnalysis, sample, {
    name: 'groups',
    fixed: () =>
      column.value && split.value
        ? {
            ...{ column: column.value.name, split: split.value.name },
            ...{ alpha: store.study!.alpha, quantileType: store.study!.quantileType },
          }
        : null,
    elsewhere: RULE_FIELDS,
    settled: (own) => ({ ...own, ...rule.asked.value }),
  });
  const about = () =>
    column.value && sample.value ? { column: column.value.id, parts: parts.value, sample: sample.value } : null;
  const stage = useStage({ runs: () => [run], about });
  const shown = computed<'h' | 'k'>({
    get: () => (address.textOf('bars') === 'h' ? 'h' : 'k'),
    set: (one) => void address.change({ bars: one === 'k' ? undefined : one }),
  });
  const subject = computed(() => subjectWords({ column: column.value?.name, split: split.value?.name }));
  const change = (field: string, value: FieldValue) =>
    RULE_FIELDS.includes(field) ? rule.change(field, value) : run.address.set(field, value);
  return { column, split, labels, splitBy, subject, run, stage, shown, change };
}
