import { replicateAnalysis } from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { computed, type Ref } from 'vue';
import { unchanged } from '../../workbench/run/unchanged.js';
import { useAddress } from '../../workbench/run/use-address.js';
import { useRun } from '../../workbench/run/use-run.js';

/** How a replicate came about, and how many there are. */
export interface Run {
  request: Ref<object | null>;
  sample: Ref<Sample | null>;
  by: () => 'redrawing' | 'shuffling' | 'counting';
  /** How many there are to look at. */
  count: () => number;
  /** The latest is looked at while they come one by one. */
  few: () => boolean;
}

/** The replicate that is looked at: the one pointed at, or the latest; drawn again from its stream, never kept. */
export function useReplicate({ request, sample, by, count, few }: Run) {
  const address = useAddress();
  const number = computed({
    get: (): number | null => {
      const asked = Number(address.textOf('replicate'));
      if (Number.isInteger(asked) && asked >= 1 && asked <= count()) return asked;
      return few() && count() > 0 ? count() : null;
    },
    set: (which) => void address.change({ replicate: which === null ? undefined : String(which) }),
  });
  const fixed = unchanged(() =>
    number.value === null || !request.value ? null : { ...request.value, by: by(), number: number.value },
  );
  const run = useRun(replicateAnalysis, sample, { name: 'replicate', fixed: () => fixed.value });
  return { number, result: run.result };
}
