// The families, their fits, and curves over them.
export { type Curve, curveOver, type CurveScale, type Window } from './curve.js';
export { type Family, isRefusal, type Parameters } from './family.js';
export { fit } from './fit/fit.js';
export { articleOf } from '../numeric/grammar.js';
export { distributionName } from './names.js';
export {
  distribution,
  FAMILIES,
  familyByName,
  ImpossibleParameters,
  parameterFaults,
  rangeWords,
  UnknownFamily,
} from './registry.js';
export { shareAt } from './region.js';
