import { exp, expm1 } from '../numeric/elementary.js';
import { roundTo } from '../numeric/round-to.js';
import { centralMoments } from '../numeric/sums.js';
import { nextNormal } from '../random/normal.js';
import type { StreamState } from '../random/stream.js';
import {
  bendable,
  bentWith,
  convenientLambda,
  likeliestLambda,
  profileOf,
  type Bendable,
} from '../transform/lambda.js';
import { bent, turnedBack, unbent, type PowerTransformation } from '../transform/transformation.js';
import { andersonDarling } from './normality/anderson-darling.js';
import { leastTie } from '../numeric/ties.js';

export interface TransformedTallies {
  power: PowerTransformation;
  n: number;
  /** The law that is drawn from: normal once it is bent with this λ, after `centre` is taken off the logarithms. */
  lambda: number;
  centre: number;
  /** True where some readings lie below 0 and are mirrored (Yeo–Johnson): then the centre is 0. */
  mirrored: boolean;
  mean: number;
  sd: number;
  /** How λ is found in each sample: as for the readings, or not at all. */
  choice: 'likeliest' | 'convenient' | 'given';
  confidence: number;
  /** The step that samples are rounded to. */
  step: number | null;
  /** A² of the transformed readings. */
  observed: number;
}

/** Samples that rounding has left without any spread say nothing: they count as far. */
const SPREADLESS = Infinity;
/** As close in λ, in its own steps, as A² can tell. */
const CLOSE = 1e-5;
/** Draws beyond the end of a power's range are drawn again. */
const MOST_DRAWS = 1_000;

/** Draws one reading of the law; Box–Cox readings are in units of e^centre. */
function drawer({ power, lambda, centre, mirrored, mean, sd, step, choice }: TransformedTallies) {
  // A square root takes a reading that was rounded to 0.
  const takesZero = choice === 'given' && lambda > 0;
  const yeoJohnson = (t: number) => {
    if (mirrored) return turnedBack('yeo-johnson', lambda, t);
    const v = unbent(t, lambda) + centre;
    return v >= 0 ? expm1(v) : turnedBack('yeo-johnson', lambda, bent(v, lambda));
  };
  return (state: StreamState): number => {
    for (let k = 0; k < MOST_DRAWS; k++) {
      const t = mean + sd * nextNormal(state);
      const x = power === 'yeo-johnson' ? yeoJohnson(t) : exp(unbent(t, lambda));
      if (Number.isNaN(x)) continue;
      if (step === null) return x;
      if (power === 'yeo-johnson') return roundTo(x, step);
      const rounded = roundTo(x * exp(centre), step);
      if (rounded > 0 || (takesZero && rounded === 0)) return rounded / exp(centre);
    }
    return 1;
  };
}

/** The number of samples of a distribution that is normal once transformed with at least this A², with λ estimated again in each sample. */
export function tallyTransformed(input: TransformedTallies, state: StreamState, replicates: number): Float64Array {
  const { power, n, choice, confidence, observed } = input;
  const draw = drawer(input);
  const values = new Float64Array(n);
  const bends = new Float64Array(n);
  const limit = leastTie(observed);
  let far = 0;
  for (let r = 0; r < replicates; r++) {
    for (let i = 0; i < n; i++) values[i] = draw(state);
    if (statisticOf(power, values, input.lambda, choice, confidence, bends) >= limit) far++;
  }
  return Float64Array.of(far);
}

/** A² of readings after the λ that is found for them. */
function statisticOf(
  power: PowerTransformation,
  values: Float64Array,
  lambda: number,
  choice: TransformedTallies['choice'],
  confidence: number,
  bends: Float64Array,
): number {
  if (values.every((x) => x === values[0])) return SPREADLESS;
  const drawn = bendable(power, values);
  bentWith(drawn, lambdaOf(drawn, lambda, choice, confidence), bends);
  bends.sort();
  const { mean, s2 } = centralMoments(bends);
  const statistic = andersonDarling(bends, mean, Math.sqrt(s2 / (values.length - 1)));
  return Number.isNaN(statistic) ? SPREADLESS : statistic;
}

function lambdaOf(drawn: Bendable, lambda: number, choice: TransformedTallies['choice'], confidence: number): number {
  if (choice === 'given') return lambda;
  const profile = profileOf(drawn);
  const likeliest = likeliestLambda(profile, lambda, profile.step * CLOSE);
  return choice === 'likeliest' ? likeliest : (convenientLambda(profile, likeliest, confidence) ?? likeliest);
}
