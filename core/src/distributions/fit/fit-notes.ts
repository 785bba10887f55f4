import type { Note } from '../../readings/note.js';
import { Landscape, type Peak } from './search.js';
import type { Work } from './work.js';

export function notesOf(work: Work, peak: Peak, ran: readonly string[] = []): Note[] {
  const { family, free, resolution } = work;
  const notes: Note[] = [];
  if (resolution !== null) {
    notes.push({
      code: 'grouped',
      text: `The resolution of ${resolution} is coarse beside the sd: each reading counts as the interval it was rounded from.`,
    });
  }
  if (!peak.converged) {
    notes.push({
      code: 'not-converged',
      text: 'The search for the greatest likelihood did not close in on one place; read these parameters with care.',
    });
  }
  if (family.estimation.ends?.some((name) => free.includes(name))) {
    notes.push({
      code: 'ends',
      text: 'The ends are those of the readings themselves: the true ones lie further out, and no standard error can be given.',
    });
  } else {
    const asked = work.request.errors !== false;
    const without = free.filter((name) => asked && peak.standardErrors[name] === null && !ran.includes(name));
    if (without.length > 0) {
      notes.push({
        code: 'no-error',
        text: `The likelihood is too flat around ${without.join(' and ')} for a standard error.`,
      });
    }
  }
  const texts = new Set(ran.map((name) => RUNAWAYS[family.family]![name]!.text));
  for (const text of texts) notes.push({ code: 'at-bound', text });
  return notes;
}

/** A parameter that can run off to where the family turns into another, and what is said then. */
const RUNAWAYS: Record<string, Record<string, { beyond: number; text: string }>> = {
  'student-t': {
    df: {
      beyond: 200,
      text: 'df ran off to large values: not told apart from a normal distribution. The standard errors of location and scale are those with df as found.',
    },
  },
  'negative-binomial': {
    size: { beyond: 1e6, text: 'The size ran off to large values: the counts vary as Poisson counts do.' },
  },
  f: {
    df1: {
      beyond: 1e5,
      text: 'The degrees of freedom ran off to large values: one of the two variances is not seen to vary.',
    },
    df2: {
      beyond: 1e5,
      text: 'The degrees of freedom ran off to large values: one of the two variances is not seen to vary.',
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
