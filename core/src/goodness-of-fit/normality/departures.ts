import { beta } from '../../distributions/families/beta.js';
import { studentT } from '../../distributions/families/student-t.js';
import { exp, expm1 } from '../../numeric/elementary.js';
import { fillNormals } from '../../random/normal.js';
import type { StreamState } from '../../random/stream.js';

/** A departure from normality and its size: what power is computed for, and what samples are compared with. */
export type Departure =
  /** The right tail is long: the exponential of a normal with this sd. */
  | { kind: 'lognormal'; logSd: number }
  /** Its mirror image. */
  | { kind: 'left-lognormal'; logSd: number }
  /** Both tails are heavy: Student's t; the fewer df the heavier. */
  | { kind: 'student-t'; df: number }
  /** Both tails are light: a beta with two equal shapes; 1 is uniform. */
  | { kind: 'symmetric-beta'; shape: number }
  /** Two equal normal groups, so many of their own sds apart. */
  | { kind: 'two-groups'; distance: number }
  /** One reading of a normal sample moved up by so many sds. */
  | { kind: 'one-far'; distance: number }
  /** A normal rounded to steps of so many sds. */
  | { kind: 'rounded'; step: number };

export type DepartureKind = Departure['kind'];

/** Fills values with a sample. */
export type Draw = (values: Float64Array, state: StreamState) => void;

/** Transforms standard normals into draws of the departure, in place. */
function moved(move: (values: Float64Array) => void): Draw {
  return (values, state) => {
    fillNormals(state, values);
    move(values);
  };
}

/** Mean and SD of the departure, to scale it to the readings; for Student's t without a variance its centre and scale. */
export function departureScale(departure: Departure): { mean: number; sd: number } {
  switch (departure.kind) {
    case 'lognormal':
    case 'left-lognormal': {
      const square = departure.logSd ** 2;
      const mean = exp(square / 2);
      return { mean: departure.kind === 'lognormal' ? mean : -mean, sd: mean * Math.sqrt(expm1(square)) };
    }
    case 'student-t':
      return { mean: 0, sd: departure.df > 2 ? Math.sqrt(departure.df / (departure.df - 2)) : 1 };
    case 'symmetric-beta':
      return { mean: 0.5, sd: 0.5 / Math.sqrt(2 * departure.shape + 1) };
    case 'two-groups':
      return { mean: departure.distance / 2, sd: Math.sqrt(1 + departure.distance ** 2 / 4) };
    case 'one-far':
    case 'rounded':
      return { mean: 0, sd: 1 };
  }
}

/** A sampler for the departure. What it needs is prepared once, before the first sample. */
export function departureDraw(departure: Departure): Draw {
  switch (departure.kind) {
    case 'lognormal':
    case 'left-lognormal': {
      const { logSd } = departure;
      const sign = departure.kind === 'lognormal' ? 1 : -1;
      return moved((values) => {
        for (let i = 0; i < values.length; i++) values[i] = sign * exp(logSd * values[i]!);
      });
    }
    case 'student-t': {
      const law = studentT.of({ df: departure.df, location: 0, scale: 1 });
      return (values, state) => law.sample(state, values);
    }
    case 'symmetric-beta': {
      const { shape } = departure;
      const law = beta.of({ shape1: shape, shape2: shape, lower: 0, upper: 1 });
      return (values, state) => law.sample(state, values);
    }
    case 'two-groups': {
      const { distance } = departure;
      return moved((values) => {
        for (let i = values.length >> 1; i < values.length; i++) values[i] = values[i]! + distance;
      });
    }
    case 'one-far': {
      const { distance } = departure;
      return moved((values) => (values[0] = values[0]! + distance));
    }
    case 'rounded': {
      const { step } = departure;
      return moved((values) => {
        for (let i = 0; i < values.length; i++) values[i] = Math.round(values[i]! / step) * step;
      });
    }
  }
}
