import { distribution, familyByName, isRefusal, type Parameters } from '@verdict/core/distributions';
import { FIELDS, givenOf, numbersOf, type Asked, type Draft, type GivenBy } from './question.js';
import { typedNumber } from '../../components/fields/typed-number.js';

/** A figure as it would be typed: without the dust of a root or a square. */
const asTyped = (value: number) => String(Number(value.toPrecision(12)));

/** The parameters that the draft defines in any of its ways; null while something is missing or impossible. */
function parametersNow(draft: Draft): Parameters | null {
  const family = familyByName(draft.family);
  if (draft.by === 'parameters') return numbersOf(draft.parameters);
  const spread = typedNumber(draft.spread);
  const variance = draft.by === 'variance' ? spread : spread * spread;
  const found = family.estimation.fromMoments?.(typedNumber(draft.mean), variance, givenOf(family, draft));
  return found && !isRefusal(found) ? { ...givenOf(family, draft), ...found } : null;
}

/** The same distribution defined in another way: mean 20 and variance 6.25 become mean 20 and SD 2.5. */
export function givenOtherwise(draft: Draft, by: GivenBy): Partial<Draft> {
  try {
    const parameters = parametersNow(draft);
    if (!parameters || !Object.values(parameters).every(Number.isFinite)) return { by };
    if (by === 'parameters') {
      const texts = Object.entries(parameters).map(([name, value]) => [name, asTyped(value)]);
      return { by, parameters: { ...draft.parameters, ...Object.fromEntries(texts) } };
    }
    const { mean, variance } = distribution(familyByName(draft.family), parameters);
    if (!Number.isFinite(mean) || !Number.isFinite(variance)) return { by };
    const typed = draft.by === 'parameters' ? asTyped(mean) : draft.mean;
    return { by, mean: typed, spread: asTyped(by === 'variance' ? variance : Math.sqrt(variance)) };
  } catch {
    return { by };
  }
}

/** A lower limit to begin with beside an upper one, or the other way round: the mirror image about the mean. */
function otherLimit(draft: Draft, limit: number, below: boolean): string {
  try {
    const { mean, variance } = distribution(familyByName(draft.family), parametersNow(draft)!);
    const mirrored = 2 * mean - limit;
    const apart = below ? limit - Math.sqrt(variance) : limit + Math.sqrt(variance);
    const found = (below ? mirrored < limit : mirrored > limit) ? mirrored : apart;
    return Number.isFinite(found) ? String(Number(found.toPrecision(6))) : '';
  } catch {
    return '';
  }
}

/** Another question with the visible values carried over: limits of an earlier question that are no longer visible are not used. */
export function carriedTo(draft: Draft, asked: Asked): Partial<Draft> {
  const from = FIELDS[draft.asked];
  const to = FIELDS[asked];
  const limits = (fields: readonly string[]) => fields.filter((field) => field === 'a' || field === 'b');
  const [seen, wanted] = [limits(from), limits(to)];
  if (seen.length !== 1 || wanted.length === 0) return { asked };
  const text = draft[seen[0] as 'a' | 'b'];
  if (wanted.length === 1) return { asked, [wanted[0]!]: text };
  const limit = typedNumber(text);
  if (!Number.isFinite(limit)) return { asked };
  return seen[0] === 'b' ? { asked, a: otherLimit(draft, limit, true) } : { asked, b: otherLimit(draft, limit, false) };
}
