import { claimDrawsAnalysis, type ClaimResult } from '@verdict/core/analyses';
import { NO_READINGS } from '@verdict/core/readings';
import { computed, type Ref } from 'vue';
import { unchanged } from '../../../workbench/run/unchanged.js';
import { useRun } from '../../../workbench/run/use-run.js';

/** Samples drawn as if the claim were true, while they are looked at: an illustration, never kept. */
export function useDraws(claim: Ref<ClaimResult | null>, looked: () => boolean) {
  const fixed = unchanged(() => {
    const { draws, law } = claim.value ?? {};
    return looked() && draws && law ? { model: draws, beyond: law.beyond } : null;
  });
  const run = useRun(
    claimDrawsAnalysis,
    computed(() => NO_READINGS),
    { name: 'claim-draws', fixed: () => fixed.value },
  );
  const seed = computed(() => run.request.value?.seed ?? 0);
  return { ...run, drawOthers: () => run.address.set('seed', seed.value + 1) };
}
