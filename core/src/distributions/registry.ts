import type { Distribution, Family, ParameterFault, Parameters, ParameterSpec } from './family.js';
import { beta } from './families/beta.js';
import { binomial } from './families/binomial.js';
import { birnbaumSaunders } from './families/birnbaum-saunders.js';
import { cauchy } from './families/cauchy.js';
import { chiSquare } from './families/chi-square.js';
import { discreteUniform } from './families/discrete-uniform.js';
import { exponential } from './families/exponential.js';
import { f } from './families/f.js';
import { gamma } from './families/gamma.js';
import { generalizedExtremeValue } from './families/generalized-extreme-value.js';
import { geometric } from './families/geometric.js';
import { halfNormal } from './families/half-normal.js';
import { hypergeometric } from './families/hypergeometric.js';
import { inverseGaussian } from './families/inverse-gaussian.js';
import { laplace } from './families/laplace.js';
import { largestExtremeValue } from './families/largest-extreme-value.js';
import { logLogistic } from './families/log-logistic.js';
import { logistic } from './families/logistic.js';
import { lognormal } from './families/lognormal.js';
import { negativeBinomial } from './families/negative-binomial.js';
import { normal } from './families/normal.js';
import { poisson } from './families/poisson.js';
import { rayleigh } from './families/rayleigh.js';
import { smallestExtremeValue } from './families/smallest-extreme-value.js';
import { studentT } from './families/student-t.js';
import { triangular } from './families/triangular.js';
import { uniform } from './families/uniform.js';
import { weibull } from './families/weibull.js';

/** The registry of families, continuous ones first. The page, the command line and the fits use no other list. */
export const FAMILIES: readonly Family[] = [
  normal,
  lognormal,
  exponential,
  gamma,
  weibull,
  logistic,
  logLogistic,
  smallestExtremeValue,
  largestExtremeValue,
  generalizedExtremeValue,
  halfNormal,
  rayleigh,
  inverseGaussian,
  birnbaumSaunders,
  laplace,
  cauchy,
  uniform,
  triangular,
  beta,
  studentT,
  chiSquare,
  f,
  poisson,
  binomial,
  negativeBinomial,
  geometric,
  hypergeometric,
  discreteUniform,
];

const BY_NAME = new Map(FAMILIES.map((family) => [family.family, family]));

export class UnknownFamily extends Error {}

/** The family of that name; throws `UnknownFamily`, which lists the known names. */
export function familyByName(name: string): Family {
  const found = BY_NAME.get(name);
  if (!found) {
    throw new UnknownFamily(`There is no distribution “${name}”. There are: ${[...BY_NAME.keys()].join(', ')}.`);
  }
  return found;
}

/** The range of a parameter in words: "above 0", "between 0 and 1", "a whole number from 1 to 1000". */
export function rangeWords({ range }: ParameterSpec): string {
  const { above, from, below, to, whole } = range;
  const kind = whole ? 'a whole number' : 'a number';
  const low = above ?? from;
  const high = below ?? to;
  if (low === undefined && high === undefined) return kind;
  if (high === undefined) return above === undefined ? `${kind} of at least ${low}` : `${kind} above ${low}`;
  if (above !== undefined) return `${kind} between ${above} and ${high}, exclusive`;
  return `${kind} from ${low} to ${high}`;
}

/** What is wrong with one value of a parameter, or null. */
function valueFault(spec: ParameterSpec, value: number): string | null {
  const { above, from, below, to, whole } = spec.range;
  const inside =
    Number.isFinite(value) &&
    (above === undefined || value > above) &&
    (from === undefined || value >= from) &&
    (below === undefined || value < below) &&
    (to === undefined || value <= to) &&
    (!whole || Number.isInteger(value));
  const verb = spec.title.endsWith('s') ? 'are' : 'is';
  return inside
    ? null
    : `The ${spec.title} ${verb} ${rangeWords(spec)}${Number.isFinite(value) ? `, not ${value}` : ''}.`;
}

/** Every optional parameter filled in, in the order of the family. */
export function completed(family: Family, parameters: Parameters): Parameters {
  return Object.fromEntries(
    family.parameters.map((spec) => [spec.name, parameters[spec.name] ?? (spec.optional ? spec.usual : NaN)]),
  );
}

/** All faults of these parameters; empty if the distribution exists. */
export function parameterFaults(family: Family, parameters: Parameters): ParameterFault[] {
  const full = completed(family, parameters);
  const faults: ParameterFault[] = [];
  for (const name of Object.keys(parameters)) {
    if (!(name in full)) {
      const named = family.parameters.map((spec) => spec.name).join(', ');
      faults.push({ name, message: `The ${family.title} distribution has no parameter “${name}”; it has ${named}.` });
    }
  }
  for (const spec of family.parameters) {
    const message = valueFault(spec, full[spec.name]!);
    if (message) faults.push({ name: spec.name, message });
  }
  if (faults.length > 0) return faults;
  const conflict = family.conflict?.(full);
  return conflict ? [conflict] : [];
}

export class ImpossibleParameters extends Error {
  constructor(readonly faults: ParameterFault[]) {
    super(faults.map(({ message }) => message).join(' '));
  }
}

/** The distribution of that family with these parameters; throws `ImpossibleParameters` if it does not exist. */
export function distribution(family: Family, parameters: Parameters): Distribution {
  const faults = parameterFaults(family, parameters);
  if (faults.length > 0) throw new ImpossibleParameters(faults);
  return family.of(completed(family, parameters));
}
