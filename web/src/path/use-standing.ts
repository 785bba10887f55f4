import { computed } from 'vue';
import { useEvidence } from '../stores/evidence.js';
import { useLooks } from '../stores/looks.js';
import { useStudy } from '../stores/study.js';
import { standingOf, type Standing } from './questions.js';

/** What the open study asks, and what of it was looked at; nothing where it asks none of the questions. */
export function useStanding() {
  const store = useStudy();
  const looks = useLooks();
  const evidence = useEvidence();
  /** Kept evidence counts as viewed. */
  const seen = computed(() => [...looks.items, ...evidence.items]);
  const asks = computed(() => store.study?.asks ?? null);
  const standing = computed<Standing[]>(() =>
    asks.value ? standingOf(asks.value, seen.value, store.study?.subject ?? null) : [],
  );
  /** The stages that answer the question. */
  const stages = computed(() => new Set(standing.value.map(({ stage }) => stage)));
  return { asks, standing, stages };
}
