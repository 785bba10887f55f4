import type { Evidence } from '@verdict/contract';
import type {
  CountFitResult,
  LineUpResult,
  PowerResult,
  ProbabilityPlotResult,
  TransformResult,
  TwoSamplesResult,
} from '@verdict/core/analyses';
import { isInParts, subjectWords, type InParts } from '@verdict/core/road';
import { countPanels } from '../../charts/pictures/counts.js';
import { lineUpSheet } from '../../charts/pictures/line-up.js';
import { powerPanels } from '../../charts/pictures/power.js';
import { plotDrawing } from '../../charts/pictures/probability-plot.js';
import { transformSheet } from '../../charts/pictures/transform.js';
import { twoSamplesPanels } from '../../charts/pictures/two-samples.js';
import { seriesDrawing } from '../../charts/pictures/plot-series.js';
import type { DrawKept, KeptPicture } from '../../workbench/stage.js';

type Draw = (kept: unknown, request: Evidence['request']) => KeptPicture | null;

/** A kept probability plot, of one column or of several series. */
const plot: Draw = (kept, request) => {
  const column = String(request.column);
  const result = kept as ProbabilityPlotResult | InParts<ProbabilityPlotResult>;
  const title = `probability plot of ${subjectWords(request)}`;
  if (!isInParts(result)) return { title, panels: plotDrawing(result, column).panels };
  const drawn = seriesDrawing(result, request.together === 'apart' ? 'apart' : 'one', column);
  return drawn && { title, panels: drawn.panels };
};

const lineUp: Draw = (kept, request) => {
  const { column, pick } = request as { column: string; pick?: number };
  const panels = lineUpSheet(kept as LineUpResult, column, pick ?? null);
  return panels && { title: `line-up of ${column}`, panels };
};

const missed: Draw = (kept, request) => {
  const result = kept as PowerResult;
  const panels = powerPanels(result, 'departure');
  return panels && { title: `power with ${result.n} readings of ${String(request.column)}`, panels };
};

const counts: Draw = (kept, request) => {
  const column = String(request.column);
  const panels = countPanels(kept as CountFitResult, column, 'beside');
  return { title: `${column} observed and expected`, panels };
};

const twoSamples: Draw = (kept) => {
  const result = kept as TwoSamplesResult;
  const [a, b] = result.samples;
  return { title: `quantiles of ${a.name} and ${b.name}`, panels: twoSamplesPanels(result) };
};

const bent: Draw = (kept, request) => {
  const column = String(request.column);
  return {
    title: `${column} before and after transformation`,
    panels: transformSheet(kept as TransformResult, column),
  };
};

const DRAWN: Record<string, Draw> = {
  'probability-plot': plot,
  'line-up': lineUp,
  power: missed,
  'count-fit': counts,
  transform: bent,
  'two-samples': twoSamples,
};

/** A kept result of Fit, drawn again. */
export const drawKept: DrawKept = ({ analysis, request, result }) => DRAWN[analysis]?.(result, request) ?? null;
