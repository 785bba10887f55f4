import { distributionAnalysis, distributionPicture, type DistributionView } from '@verdict/core/analyses';
import { distributionName } from '@verdict/core/distributions';
import { distributionPanels } from '../../charts/pictures/distribution.js';
import { drawing } from '../../workbench/evidence/drawing.js';
import type { Drawing } from '../../workbench/frame/stage.js';

const VIEW: DistributionView = { view: 'density', from: NaN, to: NaN };

/** A kept answer of a distribution: its density with the asked region. */
export const DRAWINGS: readonly Drawing[] = [
  drawing(distributionAnalysis, ({ result, request }) => {
    const axis = typeof request.column === 'string' ? request.column : result.discrete ? 'number' : 'value';
    const picture = distributionPicture(VIEW, result, null, null);
    const title = distributionName(result.family, result.parameters);
    return { title, panels: distributionPanels(picture, result, null, result.unit ? `${axis}, ${result.unit}` : axis) };
  }),
];
