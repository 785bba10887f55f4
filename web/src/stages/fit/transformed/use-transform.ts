import { NOTHING_SAID } from '@verdict/contract';
import { transformAnalysis } from '@verdict/core/analyses';
import { transformedLimits, usualName, type Derivation } from '@verdict/core/table';
import { computed } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { limitsOf } from '../../../workbench/sentence/limits-of.js';
import { useWhole } from '../use-whole.js';

/** The readings as measured beside the readings transformed, and the column that keeps them so. */
export function useTransform() {
  const store = useStudy();
  const whole = useWhole();
  const { column } = whole;
  const run = useRun(transformAnalysis, whole.sample, {
    name: 'bent',
    fixed: () => column.value && { ...whole.atLevel(), ...limitsOf(column.value) },
  });
  const stage = useStage({ runs: () => [run] });

  const derivation = computed<Derivation | null>(() => {
    const { value: result } = run.result;
    if (!result || !column.value) return null;
    return {
      ...{ kind: 'transformed', source: column.value.id, by: result.by },
      lambda: result.lambda ? result.lambda.used : null,
    };
  });
  /** The column that follows the subject in just this way, where there is one. */
  const kept = computed(
    () => store.study?.columns.find(({ derivation: own }) => own && sameTransformation(own, derivation.value)) ?? null,
  );
  /** The transformed readings as a column that follows the subject, limits and target with it. */
  function keepAsColumn(): void {
    const { value: of } = derivation;
    if (of?.kind !== 'transformed' || !column.value || kept.value) return;
    const taken = store.study!.columns.map(({ name }) => name);
    store.change({
      kind: 'add-columns',
      columns: [
        {
          ...NOTHING_SAID,
          ...{ id: crypto.randomUUID(), name: usualName('transformed', column.value.name, taken), derivation: of },
          ...{ unit: '', kind: 'measure', decimal: 'point', thousands: 'none', cells: [] },
          ...transformedLimits(of, column.value),
        },
      ],
    });
  }
  return { ...whole, run, stage, kept, keepAsColumn };
}

function sameTransformation(one: Derivation, other: Derivation | null): boolean {
  if (one.kind !== 'transformed' || other?.kind !== 'transformed') return false;
  return one.source === other.source && one.by === other.by && one.lambda === other.lambda;
}
