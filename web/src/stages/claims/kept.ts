import type { ClaimResult, ToleranceResult } from '@verdict/core/analyses';
import { foundPanels, lawPanels, tolerancePanels } from '../../charts/pictures/claims.js';
import type { DrawKept } from '../../workbench/stage.js';

/** A kept claim, drawn again: what was found beside what is claimed, or the law where nothing else is drawn. */
export const drawKept: DrawKept = ({ analysis, request, result }) => {
  const name = request.column === undefined ? 'typed figures' : String(request.column);
  if (analysis === 'tolerance') {
    return { title: `tolerance interval of ${name}`, panels: tolerancePanels(result as ToleranceResult) };
  }
  const of = result as ClaimResult;
  const panels = foundPanels(of, name) ?? lawPanels(of);
  return panels && { title: `claim: ${of.null}`, panels };
};
