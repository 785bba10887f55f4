import type { CurvesResult, PlanResult, PropagateResult, SimulateResult } from '@verdict/core/analyses';
import { propagatePanels } from '../../charts/pictures/propagate.js';
import { simulatePanels } from '../../charts/pictures/simulate.js';
import { curvesPanels, planPanels } from '../../charts/pictures/simulated-power.js';
import type { DrawKept } from '../../workbench/stage.js';

/** A kept result, drawn again. */
export const drawKept: DrawKept = ({ analysis, result }) => {
  if (analysis === 'power-curves') {
    const panels = curvesPanels(result as CurvesResult);
    return panels && { title: `Power of tests for ${(result as CurvesResult).population.words}`, panels };
  }
  if (analysis === 'plan') {
    const panels = planPanels(result as PlanResult);
    return panels && { title: `Sample size for the ${(result as PlanResult).name}`, panels };
  }
  if (analysis === 'propagate') {
    const panels = propagatePanels(result as PropagateResult);
    return panels && { title: (result as PropagateResult).formula, panels };
  }
  const panels = simulatePanels(result as SimulateResult, null);
  return panels && { title: `${(result as SimulateResult).what}, simulated`, panels };
};
