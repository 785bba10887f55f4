import { outlierScreenAnalysis } from '@verdict/core/analyses';
import { useStudy } from '../../../stores/study.js';
import type { FieldValue } from '../../../workbench/run/field-values.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useSeveral } from '../../../workbench/parts/use-several.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { RULE_FIELDS, useRule } from '../use-rule.js';

/** The rule of the study over many columns or groups at once. */
export function useMany() {
  const store = useStudy();
  const { sample, asked, about, ...several } = useSeveral();
  const rule = useRule();
  const run = useRun(outlierScreenAnalysis, sample, {
    name: 'many',
    fixed: () => {
      const of = asked();
      return of && { ...of, quantileType: store.study!.quantileType };
    },
    elsewhere: RULE_FIELDS,
    settled: (own) => ({ ...own, ...rule.asked.value }),
  });
  const stage = useStage({ runs: () => [run], about });
  const change = (field: string, value: FieldValue) =>
    RULE_FIELDS.includes(field) ? rule.change(field, value) : run.address.set(field, value);
  return { ...several, run, stage, change, open: (name: string) => several.open('outliers', name) };
}
