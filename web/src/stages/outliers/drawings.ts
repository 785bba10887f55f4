import { outlierRulesAnalysis, outliersAnalysis, outlyingGroupsAnalysis } from '@verdict/core/analyses';
import { subjectWords } from '@verdict/core/road';
import { groupBars } from '../../charts/pictures/group-bars.js';
import { outlierRulesPanels } from '../../charts/pictures/outlier-rules.js';
import { stripPanels } from '../../charts/pictures/outliers.js';
import { drawing } from '../../workbench/evidence/drawing.js';
import type { Drawing } from '../../workbench/frame/stage.js';

export const DRAWINGS: readonly Drawing[] = [
  drawing(outliersAnalysis, ({ result, request }) => {
    const column = String(request.column);
    return { title: `outliers of ${column}`, panels: stripPanels(result, column) };
  }),
  drawing(outlierRulesAnalysis, ({ result }) => {
    const panels = outlierRulesPanels(result, 'one');
    return panels && { title: `outlier rules for samples of ${result.n}`, panels };
  }),
  drawing(outlyingGroupsAnalysis, ({ result, request }) => {
    const panels = groupBars(result, 'k') ?? groupBars(result, 'h');
    return panels && { title: `spread of ${subjectWords(request)}`, panels };
  }),
];
