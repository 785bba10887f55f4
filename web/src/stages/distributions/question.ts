import { distributionAnalysis, QUESTIONS, type DistributionRequest, type Question } from '@verdict/core/analyses';
import { FAMILIES, familyByName, parameterFaults, type Family } from '@verdict/core/distributions';
import { typedNumber } from '../../components/fields/typed-number.js';

/** The questions of the page; lists of values are for the command line. */
export type Asked = Exclude<Question, 'at'>;

/** How the family is defined: by its parameters, or by mean and SD or variance. */
export type GivenBy = 'parameters' | 'sd' | 'variance';

/** The sentence as typed: nothing is lost because it cannot be answered yet. */
export interface Draft {
  family: string;
  by: GivenBy;
  parameters: Record<string, string>;
  mean: string;
  spread: string;
  asked: Asked;
  /** The lower and the upper limit; a question with one limit uses the one that bounds it. */
  a: string;
  b: string;
  value: string;
  step: string;
  times: string;
  /** A percentage. */
  share: string;
  ends: 'included' | 'excluded' | '';
  view: 'density' | 'cumulative';
  /** The ends of the picture where the analyst has set them. */
  from: string;
  to: string;
  /** A second family laid over the first, or none. */
  over: string;
  overParameters: Record<string, string>;
  /** The id of a column whose readings lie under the curve. */
  column: string;
}

export type Query = Record<string, string | undefined>;

/** Parameters to start from, as they would be typed. */
export function usualTexts(family: Family): Record<string, string> {
  return Object.fromEntries(family.parameters.map(({ name, usual }) => [name, String(usual)]));
}

export function newDraft(): Draft {
  return {
    ...{ family: 'normal', by: 'parameters', parameters: usualTexts(familyByName('normal')), mean: '5', spread: '2' },
    ...{ asked: 'between', a: '-1', b: '1', value: '0', step: '0.1', times: '1', share: '10', ends: '' },
    ...{ view: 'density', from: '', to: '', over: '', overParameters: {}, column: '' },
  };
}

/** True where mean and sd tell the family as well as its parameters do: two of them, one to one. */
export function givenByMoments({ parameters, estimation }: Family): boolean {
  const free = parameters.filter(({ name, optional }) => !optional && !estimation.given?.includes(name));
  return estimation.fromMoments !== undefined && free.length === 2;
}

const isAsked = (text: string | undefined): text is Asked => text !== 'at' && QUESTIONS.includes(text as Asked);
const isFamily = (text: string | undefined): text is string => FAMILIES.some(({ family }) => family === text);

/** The parameters of a family that stand in the address under a prefix, the usual ones where it says nothing. */
function parametersIn(query: Query, prefix: string, family: string): Record<string, string> {
  const texts = usualTexts(familyByName(family));
  for (const name of Object.keys(texts)) texts[name] = query[`${prefix}${name}`] ?? texts[name]!;
  return texts;
}

/** What an address asks. What it does not say is as on a fresh page; what it says wrongly is passed over or stands to be mended. */
export function draftFrom(query: Query): Draft {
  const draft = newDraft();
  if (isFamily(query.family)) draft.family = query.family;
  draft.parameters = parametersIn(query, 'p.', draft.family);
  if (query.by === 'sd' || query.by === 'variance') draft.by = query.by;
  if (isAsked(query.ask)) draft.asked = query.ask;
  if (query.ends === 'included' || query.ends === 'excluded') draft.ends = query.ends;
  if (query.view === 'cumulative') draft.view = query.view;
  if (isFamily(query.over)) {
    draft.over = query.over;
    draft.overParameters = parametersIn(query, 'o.', query.over);
  }
  for (const name of ['a', 'b', 'value', 'step', 'times', 'share', 'mean', 'spread', 'from', 'to', 'column'] as const) {
    draft[name] = query[name] ?? draft[name];
  }
  return draft;
}

/** The fields that a question has. */
export const FIELDS: Record<Asked, readonly ('a' | 'b' | 'value' | 'step' | 'times' | 'share')[]> = {
  below: ['b'],
  above: ['a'],
  between: ['a', 'b'],
  outside: ['a', 'b'],
  withinSd: ['times'],
  recordedAs: ['value', 'step'],
  lowerShare: ['share'],
  upperShare: ['share'],
  centralShare: ['share'],
};

/** The address of a question: what belongs to it and nothing else. */
export function queryOf(draft: Draft): Query {
  const query: Query = { family: draft.family, ask: draft.asked };
  const usual = usualTexts(familyByName(draft.family));
  for (const { name, optional } of familyByName(draft.family).parameters) {
    const text = draft.parameters[name] ?? '';
    if (optional ? text !== usual[name] : draft.by === 'parameters') query[`p.${name}`] = text;
  }
  if (draft.by !== 'parameters') Object.assign(query, { by: draft.by, mean: draft.mean, spread: draft.spread });
  for (const name of FIELDS[draft.asked]) query[name] = draft[name];
  if (draft.ends) query.ends = draft.ends;
  if (draft.view !== 'density') query.view = draft.view;
  if (draft.from) query.from = draft.from;
  if (draft.to) query.to = draft.to;
  if (draft.over) {
    query.over = draft.over;
    for (const [name, text] of Object.entries(draft.overParameters)) query[`o.${name}`] = text;
  }
  if (draft.column) query.column = draft.column;
  return query;
}

/** A share typed as a percentage. */
function typedShare(text: string): number {
  const percent = typedNumber(text.replace('%', ''));
  // Back from percent without a tail: 99.9 → 0.999.
  return Number.isFinite(percent) ? Number((percent / 100).toPrecision(15)) : NaN;
}

/** What a field takes, said when it gets something else. */
const SHARE_RANGE = 'The proportion must be a percentage above 0 and below 100; 25 means 25 %.';

/** Faults, by field. */
export type Faults = Record<string, string>;

function questionPart(draft: Draft): Record<string, unknown> {
  const a = typedNumber(draft.a);
  const b = typedNumber(draft.b);
  const share = typedShare(draft.share);
  switch (draft.asked) {
    case 'below':
      return { below: b };
    case 'above':
      return { above: a };
    case 'between':
      return { between: [a, b] };
    case 'outside':
      return { outside: [a, b] };
    case 'withinSd':
      return { withinSd: typedNumber(draft.times) };
    case 'recordedAs':
      return { recordedAs: typedNumber(draft.value), resolution: typedNumber(draft.step) };
    default:
      return { [draft.asked]: share };
  }
}

/** Parameters that mean and sd leave open: a threshold, the ends of a beta. */
export function givenOf({ parameters }: Family, draft: Draft): Record<string, number> {
  const open = parameters.filter(({ optional }) => optional);
  return Object.fromEntries(open.map(({ name }) => [name, typedNumber(draft.parameters[name] ?? '')]));
}
const momentsOf = ({ by, mean, spread }: Draft) => ({ mean: typedNumber(mean), [by]: typedNumber(spread) });

export const numbersOf = (texts: Record<string, string>) =>
  Object.fromEntries(Object.entries(texts).map(([name, text]) => [name, typedNumber(text)]));

/** The field that a fault of the request belongs to. */
function fieldOf([first, second]: readonly PropertyKey[], asked: Asked): string {
  if (first === 'parameters') return `p.${String(second)}`;
  if (first === 'moments') return second === 'mean' ? 'mean' : 'spread';
  if (first === 'between' || first === 'outside') return second === 0 ? 'a' : 'b';
  if (first === 'below') return 'b';
  if (first === 'above') return 'a';
  if (first === 'withinSd') return 'times';
  if (first === 'recordedAs') return 'value';
  if (first === 'resolution') return 'step';
  return FIELDS[asked][0]!;
}

/** The request of the sentence, or what has to be corrected first. `column` is the name of the chosen column. */
export function requestFrom(draft: Draft, column?: string): { request: DistributionRequest } | { faults: Faults } {
  const family = familyByName(draft.family);
  const told =
    draft.by === 'parameters'
      ? { parameters: numbersOf(draft.parameters) }
      : { moments: { ...momentsOf(draft), given: givenOf(family, draft) } };
  // Between whole numbers, whether the limits count makes a difference; elsewhere the usual way is meant.
  const ends = draft.ends && (family.discrete || column !== undefined) && 'a b'.includes(FIELDS[draft.asked][0]!);
  const parsed = distributionAnalysis.request.safeParse({
    family: draft.family,
    ...told,
    ...questionPart(draft),
    ...(ends ? { ends: draft.ends } : {}),
    ...(column === undefined ? {} : { column }),
  });
  if (parsed.success) return { request: parsed.data };
  const faults: Faults = {};
  if (draft.by === 'parameters') {
    for (const { name, message } of parameterFaults(family, numbersOf(draft.parameters)))
      faults[`p.${name}`] ??= message;
  }
  for (const { path, message } of parsed.error.issues) {
    const field = fieldOf(path, draft.asked);
    faults[field] ??= field === 'share' ? SHARE_RANGE : message;
  }
  return { faults };
}

/** The same question asked of the family that is laid over. */
export function overRequestFrom(draft: Draft): { request: DistributionRequest } | { faults: Faults } | null {
  if (!draft.over) return null;
  const found = requestFrom({ ...draft, family: draft.over, by: 'parameters', parameters: draft.overParameters });
  if ('request' in found) return found;
  const own = Object.entries(found.faults).filter(([field]) => field.startsWith('p.'));
  return { faults: Object.fromEntries(own.map(([field, text]) => [field.replace('p.', 'o.'), text])) };
}

/** A caution where a share was most likely meant otherwise: 0.25 in a field that takes percentages. */
export function shareCaution({ asked, share }: Draft): string {
  const percent = typedNumber(share.replace('%', ''));
  if (!FIELDS[asked].includes('share') || !(percent > 0 && percent < 1)) return '';
  return `${share.replace('%', '').trim()} is read as ${percent} %, which is less than 1 %. For ${Number((percent * 100).toPrecision(10))} % enter ${Number((percent * 100).toPrecision(10))}.`;
}

/** What is wrong with the ends of the picture as typed, or ''. */
export function windowFault({ from, to }: Pick<Draft, 'from' | 'to'>): string {
  const [a, b] = [typedNumber(from), typedNumber(to)];
  for (const [text, value] of [
    [from, a],
    [to, b],
  ] as const) {
    if (text.trim() !== '' && !Number.isFinite(value))
      return `“${text}” is not a number; the picture keeps its automatic range.`;
  }
  return a >= b ? 'The picture must begin below its end; it keeps its automatic range.' : '';
}
