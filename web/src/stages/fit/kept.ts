import type { ProbabilityPlotResult } from '@verdict/core/analyses';
import { isInParts, subjectWords, type InParts } from '@verdict/core/road';
import { plotDrawing } from '../../charts/pictures/probability-plot.js';
import { seriesDrawing } from '../../charts/pictures/plot-series.js';
import type { DrawKept } from '../../workbench/stage.js';

/** A kept probability plot, of one column or of several series, drawn again. */
export const drawKept: DrawKept = ({ analysis, request, result }) => {
  if (analysis !== 'probability-plot') return null;
  const column = String(request.column);
  const plot = result as unknown as ProbabilityPlotResult | InParts<ProbabilityPlotResult>;
  const title = `probability plot of ${subjectWords(request)}`;
  if (!isInParts(plot)) return { title, panels: plotDrawing(plot, column).panels };
  const drawn = seriesDrawing(plot, request.together === 'apart' ? 'apart' : 'one', column);
  return drawn && { title, panels: drawn.panels };
};
