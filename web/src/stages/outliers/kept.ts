import type { OutlierRulesResult, OutliersResult, OutlyingGroupsResult } from '@verdict/core/analyses';
import { subjectWords } from '@verdict/core/road';
import { groupBars } from '../../charts/pictures/group-bars.js';
import { outlierRulesPanels } from '../../charts/pictures/outlier-rules.js';
import { stripPanels } from '../../charts/pictures/outliers.js';
import type { DrawKept } from '../../workbench/stage.js';

/** A kept result of Outliers, drawn again. */
export const drawKept: DrawKept = ({ analysis, request, result }) => {
  const column = String(request.column);
  if (analysis === 'outliers')
    return { title: `outliers of ${column}`, panels: stripPanels(result as OutliersResult, column) };
  if (analysis === 'outlier-rules') {
    const of = result as OutlierRulesResult;
    const panels = outlierRulesPanels(of, 'one');
    return panels && { title: `outlier rules for samples of ${of.n}`, panels };
  }
  if (analysis !== 'outlying-groups') return null;
  const of = result as OutlyingGroupsResult;
  const panels = groupBars(of, 'k') ?? groupBars(of, 'h');
  return panels && { title: `spread of ${subjectWords(request)}`, panels };
};
