// The families, their fits, and curves over them.
export { type Curve, curveOver, type CurveScale, joined, wellPlaced, type Window } from './curve.js';
export {
  type Distribution,
  type Family,
  isRefusal,
  type ParameterFault,
  type Parameters,
  type ParameterSpec,
  type Refusal,
} from './family.js';
export { fit, type Fit, type FitMethod, type FitRequest } from './fit/fit.js';
export { articleOf } from '../numeric/grammar.js';
export { distributionName, parameterWords } from './names.js';
export { intervalProbability } from './interval-probability.js';
export {
  completed,
  distribution,
  FAMILIES,
  familyByName,
  ImpossibleParameters,
  parameterFaults,
  rangeWords,
  UnknownFamily,
} from './registry.js';
export { shareAt } from './region.js';
