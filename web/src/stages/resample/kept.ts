import type { BootstrapResult, PermutationResult, PlansResult } from '@verdict/core/analyses';
import { bootstrapPanels, permutationPanels, plansPanels } from '../../charts/pictures/resample.js';
import type { DrawKept } from '../../workbench/stage.js';

/** A kept result, drawn again. */
export const drawKept: DrawKept = ({ analysis, result }) => {
  const { what } = result as { what: string };
  const panels =
    analysis === 'permutation'
      ? permutationPanels(result as PermutationResult, null)
      : analysis === 'bootstrap'
        ? bootstrapPanels(result as BootstrapResult, null)
        : plansPanels(result as PlansResult);
  const by = { permutation: 'permutation test', bootstrap: 'bootstrap' }[analysis] ?? 'at larger sample sizes';
  return panels && { title: `${what}, ${by}`, panels };
};
