import { testsShown } from '@verdict/core/road';
import { computed, inject } from 'vue';
import { useEvidence } from '../stores/evidence.js';
import { useLooks } from '../stores/looks.js';
import { useStudy } from '../stores/study.js';
import { allStages, stageOf } from '../workbench/frame/stage.js';
import { inOrderOfWork, weighedWords } from './pieces.js';

/** The evidence of the report in its order, and the excluded pieces. A decided study shows the pieces of its verdict. */
export function useSheetPieces() {
  const store = useStudy();
  const evidence = useEvidence();
  const looks = useLooks();
  const stages = inject(allStages, []);
  const rank = (analysis: string) => stages.findIndex((stage) => stage === stageOf(stages, analysis));

  /** The verdict that stands. */
  const standing = computed(() => (store.ruled ? (store.study?.verdicts[0] ?? null) : null));
  const onSheet = computed(() => {
    const named = standing.value?.evidence;
    if (named) return named.flatMap((id) => evidence.items.find((item) => item.id === id) ?? []);
    return inOrderOfWork(
      evidence.items.filter(({ leftOut: out }) => !out),
      rank,
    );
  });
  const leftOut = computed(() => evidence.items.filter((item) => !onSheet.value.includes(item)));

  const looked = computed(() => {
    const then = standing.value?.looked;
    if (then) return then;
    return { results: looks.items.length, tests: looks.items.reduce((sum, { tests }) => sum + tests, 0) };
  });
  const weighed = computed(() => {
    const kept = onSheet.value.reduce((sum, { result }) => sum + testsShown(result), 0);
    // What was kept was looked at, also before looks were counted.
    const tests = Math.max(looked.value.tests, kept);
    const results = Math.max(looked.value.results, onSheet.value.length);
    return weighedWords({ tests, results }, kept, store.study?.alpha ?? 0.05);
  });
  return { onSheet, leftOut, standing, weighed, stageOf: (analysis: string) => stageOf(stages, analysis) ?? null };
}
