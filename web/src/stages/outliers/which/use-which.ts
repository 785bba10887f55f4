import { ARRANGEMENT_WORDS, outlierRulesAnalysis, type Arrangement } from '@verdict/core/analyses';
import { computed } from 'vue';
import { useStudy } from '../../../stores/study.js';
import type { FieldValue } from '../../../workbench/run/field-values.js';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { RULE_FIELDS, useRule } from '../use-rule.js';

type Tried = Exclude<Arrangement, 'clean'>;
const TRIED: readonly Tried[] = ['one', 'same-end', 'each-end'];

/** Every rule tried on samples of the size of the subject. */
export function useWhich() {
  const store = useStudy();
  const address = useAddress();
  const column = computed(() => store.subject);
  const name = computed(() => column.value?.name ?? '');
  const rule = useRule();
  const run = useRun(
    outlierRulesAnalysis,
    computed(() => store.sample),
    {
      name: 'which',
      fixed: () =>
        column.value
          ? { column: column.value.name, alpha: store.study!.alpha, quantileType: store.study!.quantileType }
          : null,
      elsewhere: RULE_FIELDS,
      settled: (own) => {
        const { side, most } = rule.asked.value;
        return { ...own, ...(side === undefined ? {} : { side }), ...(most === undefined ? {} : { most }) };
      },
    },
  );
  const stage = useStage({ runs: () => [run] });
  const oneSided = computed(() => (run.request.value?.side ?? 'either') !== 'either');
  const choices = computed(() =>
    TRIED.filter((one) => one !== 'each-end' || !oneSided.value).map((value) => ({
      value,
      label: ARRANGEMENT_WORDS[value],
    })),
  );
  const arrangement = computed<Tried>({
    get: () => choices.value.find(({ value }) => value === address.textOf('far'))?.value ?? 'one',
    set: (one) => void address.change({ far: one === 'one' ? undefined : one }),
  });
  const change = (field: string, value: FieldValue) =>
    RULE_FIELDS.includes(field) ? rule.change(field, value) : run.address.set(field, value);
  return { column, name, run, stage, arrangement, choices, change };
}
