import { curvesAnalysis, planAnalysis, propagateAnalysis, simulateAnalysis } from '@verdict/core/analyses';
import { propagatePanels } from '../../charts/pictures/propagate.js';
import { simulatePanels } from '../../charts/pictures/simulate.js';
import { curvesPanels, planPanels } from '../../charts/pictures/simulated-power.js';
import type { Panels } from '../../charts/picture.js';
import { drawing } from '../../workbench/evidence/drawing.js';
import type { Drawing } from '../../workbench/frame/stage.js';

const titled = (title: string, panels: Panels | null) => panels && { title, panels };

export const DRAWINGS: readonly Drawing[] = [
  drawing(simulateAnalysis, ({ result }) => titled(`${result.what}, simulated`, simulatePanels(result, null))),
  drawing(curvesAnalysis, ({ result }) =>
    titled(`Power of tests for ${result.population.words}`, curvesPanels(result)),
  ),
  drawing(planAnalysis, ({ result }) => titled(`Sample size for the ${result.name}`, planPanels(result))),
  drawing(propagateAnalysis, ({ result }) => titled(result.formula, propagatePanels(result))),
];
