import type { Distribution } from '@verdict/core/distributions';
import { typedNumber, type Draft } from './question.js';

/** What is wrong with the ends of the picture as typed, or ''. */
export function windowFault({ from, to }: Pick<Draft, 'from' | 'to'>): string {
  const [a, b] = [typedNumber(from), typedNumber(to)];
  for (const [text, value] of [
    [from, a],
    [to, b],
  ] as const) {
    if (text.trim() !== '' && !Number.isFinite(value)) return `“${text}” is no number; the picture keeps its own ends.`;
  }
  return a >= b ? 'The picture begins below where it ends; it keeps its own ends.' : '';
}

/** The share that a dragged limit stands for, as a percentage between 0.01 and 99.99. */
export function shareAt(d: Distribution, x: number, asked: 'lowerShare' | 'upperShare' | 'centralShare'): string {
  const share =
    asked === 'lowerShare'
      ? d.cumulative(x)
      : asked === 'upperShare'
        ? d.survival(x)
        : 1 - 2 * Math.min(d.cumulative(x), d.survival(x));
  return String(Number((Math.min(0.9999, Math.max(0.0001, share)) * 100).toPrecision(4)));
}
