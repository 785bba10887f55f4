import { openCautionsOf, type Evidence } from '@verdict/contract';
import { computed } from 'vue';
import { useStanding } from '../../path/use-standing.js';
import { useSheetPieces } from '../../sheet/use-sheet-pieces.js';
import { useEvidence } from '../../stores/evidence.js';
import { useStale } from '../../workbench/evidence/use-stale.js';

/** The basis of the verdict: the pieces in their order, open cautions, and the number of viewed tests. */
export function useVerdict() {
  const evidence = useEvidence();
  const { onSheet, leftOut, standing: ruling, weighed } = useSheetPieces();
  const { standing } = useStanding();

  useStale();
  const stale = computed(() => onSheet.value.filter(({ id }) => evidence.stale.has(id)));
  const open = computed(() => onSheet.value.flatMap((item) => openCautionsOf(item).map((text) => ({ item, text }))));

  /** Moves a piece one place up or down. */
  function move(item: Evidence, by: -1 | 1): void {
    const order = onSheet.value.map(({ id }) => id);
    const at = order.indexOf(item.id);
    const to = at + by;
    if (to < 0 || to >= order.length) return;
    [order[at], order[to]] = [order[to]!, order[at]!];
    void evidence.arrange([...order, ...leftOut.value.map(({ id }) => id)]);
  }
  return { onSheet, leftOut, ruling, stale, open, weighed, standing, move };
}
