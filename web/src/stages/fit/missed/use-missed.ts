import { powerAnalysis } from '@verdict/core/analyses';
import { computed } from 'vue';
import type { FieldValue } from '../../../workbench/run/field-values.js';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { FAMILY_FIELDS, isOfFamily, useFamily } from '../use-family.js';
import { useWhole } from '../use-whole.js';

export type Over = 'departure' | 'n';

/** What a sample of this size could have missed: over how far it departs, or over n. */
export function useMissed() {
  const whole = useWhole();
  const family = useFamily();
  const run = useRun(powerAnalysis, whole.sample, {
    name: 'power',
    fixed: whole.atLevel,
    elsewhere: FAMILY_FIELDS,
    settled: (own) => ({ ...own, ...family.asked.value }),
  });
  const stage = useStage({ runs: () => [run] });
  const address = useAddress();
  const over = computed<Over>({
    get: () => (address.textOf('over') === 'n' ? 'n' : 'departure'),
    set: (one) => void address.change({ over: one === 'departure' ? undefined : one }),
  });
  const change = (field: string, value: FieldValue) =>
    isOfFamily(field) ? family.change(field, value) : run.address.set(field, value);
  const objection = (field: string, value: FieldValue) => (field === 'family' ? null : run.objection(field, value));
  return { ...whole, run, stage, over, change, objection };
}
