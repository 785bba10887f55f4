import {
  countFitAnalysis,
  lineUpAnalysis,
  powerAnalysis,
  probabilityPlotAnalysis,
  transformAnalysis,
  twoSamplesAnalysis,
} from '@verdict/core/analyses';
import { isInParts, subjectWords } from '@verdict/core/road';
import { countPanels } from '../../charts/pictures/counts.js';
import { lineUpSheet } from '../../charts/pictures/line-up.js';
import { powerPanels } from '../../charts/pictures/power.js';
import { plotDrawing } from '../../charts/pictures/probability-plot.js';
import { transformSheet } from '../../charts/pictures/transform.js';
import { twoSamplesPanels } from '../../charts/pictures/two-samples.js';
import { seriesDrawing } from '../../charts/pictures/plot-series.js';
import { drawing } from '../../workbench/evidence/drawing.js';
import type { Drawing } from '../../workbench/frame/stage.js';

const columnOf = ({ column }: Record<string, unknown>) => String(column);

export const DRAWINGS: readonly Drawing[] = [
  drawing(probabilityPlotAnalysis, ({ result, request }) => {
    const title = `probability plot of ${subjectWords(request)}`;
    if (!isInParts(result)) return { title, panels: plotDrawing(result, columnOf(request)).panels };
    const drawn = seriesDrawing(result, request.together === 'apart' ? 'apart' : 'one', columnOf(request));
    return drawn && { title, panels: drawn.panels };
  }),
  drawing(lineUpAnalysis, ({ result, request }) => {
    const panels = lineUpSheet(result, columnOf(request), typeof request.pick === 'number' ? request.pick : null);
    return panels && { title: `line-up of ${columnOf(request)}`, panels };
  }),
  drawing(powerAnalysis, ({ result, request }) => {
    const panels = powerPanels(result, 'departure');
    return panels && { title: `power with ${result.n} readings of ${columnOf(request)}`, panels };
  }),
  drawing(countFitAnalysis, ({ result, request }) => ({
    title: `${columnOf(request)} observed and expected`,
    panels: countPanels(result, columnOf(request), 'beside'),
  })),
  drawing(transformAnalysis, ({ result, request }) => ({
    title: `${columnOf(request)} before and after transformation`,
    panels: transformSheet(result, columnOf(request)),
  })),
  drawing(twoSamplesAnalysis, ({ result }) => {
    const [a, b] = result.samples;
    return { title: `quantiles of ${a.name} and ${b.name}`, panels: twoSamplesPanels(result) };
  }),
];
