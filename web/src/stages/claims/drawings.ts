import { CLAIM_ANALYSES, toleranceAnalysis } from '@verdict/core/analyses';
import { foundPanels, lawPanels, tolerancePanels } from '../../charts/pictures/claims.js';
import { drawing } from '../../workbench/evidence/drawing.js';
import type { Drawing } from '../../workbench/frame/stage.js';

const nameOf = ({ column }: Record<string, unknown>) => (column === undefined ? 'typed figures' : String(column));

/** Kept claims: what was found beside what is claimed, or the null distribution where nothing else is drawn. */
export const DRAWINGS: readonly Drawing[] = [
  drawing(toleranceAnalysis, ({ result, request }) => ({
    title: `tolerance interval of ${nameOf(request)}`,
    panels: tolerancePanels(result),
  })),
  ...CLAIM_ANALYSES.map((claim) =>
    drawing(claim, ({ result, request }) => {
      const panels = foundPanels(result, nameOf(request)) ?? lawPanels(result);
      return panels && { title: `claim: ${result.null}`, panels };
    }),
  ),
];
