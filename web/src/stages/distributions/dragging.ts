import type { DistributionResult } from '@verdict/core/analyses';
import { distribution, familyByName, shareAt, type Window } from '@verdict/core/distributions';
import { snapped } from '../../charts/snapped.js';
import { typedNumber } from '../../components/fields/typed-number.js';
import type { Draft } from './question.js';

const SIDES = { lowerShare: 'lower', upperShare: 'upper', centralShare: 'central' } as const;

/** The share that a dragged limit stands for, as a percentage between 0.01 and 99.99. */
function shareText({ family, parameters }: DistributionResult, x: number, asked: keyof typeof SIDES): string {
  const share = shareAt(distribution(familyByName(family), parameters), x, SIDES[asked]);
  return String(Number((Math.min(0.9999, Math.max(0.0001, share)) * 100).toPrecision(4)));
}

/** What dragging a limit of the drawn answer to x writes into the sentence. */
export function dragged(
  draft: Draft,
  drawn: DistributionResult,
  window: Window,
  side: 'lower' | 'upper',
  x: number,
): Partial<Draft> {
  const { asked } = draft;
  if (asked === 'recordedAs') {
    const step = drawn.resolution ?? 1;
    const half = side === 'lower' ? step / 2 : -step / 2;
    return { value: snapped(x + half, window, step) };
  }
  if (asked === 'withinSd') {
    const reach = Math.abs(x - drawn.mean.value!) / drawn.sd.value!;
    return { times: String(Number(Math.max(0.01, reach).toPrecision(3))) };
  }
  if (asked === 'lowerShare' || asked === 'upperShare' || asked === 'centralShare') {
    return { share: shareText(drawn, x, asked) };
  }
  const text = snapped(x, window, drawn.discrete ? 1 : null);
  const two = asked === 'between' || asked === 'outside';
  // A limit does not pass the other one.
  if (two && side === 'lower' && typedNumber(text) >= typedNumber(draft.b)) return {};
  if (two && side === 'upper' && typedNumber(text) <= typedNumber(draft.a)) return {};
  return side === 'lower' ? { a: text } : { b: text };
}
