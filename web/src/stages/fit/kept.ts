import type { ProbabilityPlotResult } from '@verdict/core/analyses';
import { plotDrawing } from '../../charts/pictures/probability-plot.js';
import type { DrawKept } from '../../workbench/stage.js';

/** A kept probability plot, drawn again. */
export const drawKept: DrawKept = ({ analysis, request, result }) => {
  if (analysis !== 'probability-plot') return null;
  const column = String(request.column);
  const plot = result as unknown as ProbabilityPlotResult;
  return { title: `probability plot of ${column}`, panels: plotDrawing(plot, column).panels };
};
