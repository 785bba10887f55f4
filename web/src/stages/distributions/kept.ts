import { distributionPicture, type DistributionResult, type DistributionView } from '@verdict/core/analyses';
import { distributionName } from '@verdict/core/distributions';
import { distributionPanels } from '../../charts/pictures/distribution.js';
import type { DrawKept } from '../../workbench/stage.js';

const VIEW: DistributionView = { view: 'density', from: NaN, to: NaN };

/** A kept answer of a distribution, drawn again: its density with the asked region. */
export const drawKept: DrawKept = ({ analysis, request, result }) => {
  if (analysis !== 'distribution') return null;
  const answer = result as unknown as DistributionResult;
  const axis = typeof request.column === 'string' ? request.column : answer.discrete ? 'number' : 'value';
  const picture = distributionPicture(VIEW, answer, null, null);
  const title = distributionName(answer.family, answer.parameters);
  return { title, panels: distributionPanels(picture, answer, null, answer.unit ? `${axis}, ${answer.unit}` : axis) };
};
