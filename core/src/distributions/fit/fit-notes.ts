import { listed } from '../../numeric/grammar.js';
import type { Note } from '../../readings/note.js';
import { Landscape, type Peak } from './search.js';
import type { Work } from './work.js';

export function notesOf(work: Work, peak: Peak, ran: readonly string[] = []): Note[] {
  const { family, free, resolution } = work;
  const notes: Note[] = [];
  if (resolution !== null) {
    notes.push({
      code: 'grouped',
      text: `The resolution of ${resolution} is coarse for the spread. Each reading is treated as the interval it was rounded from.`,
    });
  }
  if (!peak.converged) {
    notes.push({
      code: 'not-converged',
      text: 'The parameters may be wrong: the maximum likelihood search did not converge.',
    });
  }
  if (family.estimation.ends?.some((name) => free.includes(name))) {
    notes.push({
      code: 'ends',
      text: 'The limits are biased: they are the minimum and the maximum of the readings, and the true limits lie further out. They have no standard error.',
    });
  } else {
    const asked = work.request.errors !== false;
    const without = free.filter((name) => asked && peak.standardErrors[name] === null && !ran.includes(name));
    if (without.length > 0) {
      notes.push({
        code: 'no-error',
        text: `There is no standard error for ${listed(without)}, because the likelihood is too flat.`,
      });
    }
  }
  const texts = new Set(ran.map((name) => RUNAWAYS[family.family]![name]!.text));
  for (const text of texts) notes.push({ code: 'at-bound', text });
  return notes;
}

/** A parameter that can diverge to a limit where the family becomes another one, and the note for that case. */
const RUNAWAYS: Record<string, Record<string, { beyond: number; text: string }>> = {
  'student-t': {
    df: {
      beyond: 200,
      text: 'The degrees of freedom cannot be estimated: the readings are also consistent with a normal distribution. The standard errors of location and scale take them as known.',
    },
  },
  'negative-binomial': {
    size: {
      beyond: 1e6,
      text: 'The size cannot be estimated: the counts are also consistent with a Poisson distribution.',
    },
  },
  f: {
    df1: {
      beyond: 1e5,
      text: 'The degrees of freedom cannot be estimated: one of the two variances shows no variation.',
    },
    df2: {
      beyond: 1e5,
      text: 'The degrees of freedom cannot be estimated: one of the two variances shows no variation.',
    },
  },
};
/** A standard error of so many times the estimate itself says that the readings do not bound it. */
const UNBOUNDED = 5;

export function runawaysOf({ family, free }: Work, { parameters, standardErrors }: Peak): string[] {
  const known = RUNAWAYS[family.family] ?? {};
  return free.filter((name) => {
    const limit = known[name];
    const error = standardErrors[name];
    return limit && (parameters[name]! > limit.beyond || (error && error > UNBOUNDED * parameters[name]!));
  });
}

/** With estimates that ran off taken as they are: they have no standard error, and the others those that they have beside them. */
export function withoutRunaways(work: Work, peak: Peak, ran: readonly string[]): Peak {
  if (ran.length === 0 || work.request.errors === false) return peak;
  const free = work.free.filter((name) => !ran.includes(name));
  const landscape = new Landscape(work.family, work.logLikelihood, free, peak.parameters, work.spread);
  const beside = landscape.at(peak.parameters);
  const standardErrors = { ...beside.standardErrors };
  for (const name of ran) standardErrors[name] = null;
  return { ...peak, standardErrors, covariance: null };
}
