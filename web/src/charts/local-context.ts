import { local } from '../language/language.js';

const turned = new WeakSet<object>();

/**
 * Texts on this canvas are drawn and measured as the reader writes figures: ticks, words of rules, legends. A picture that leaves the page is drawn on another
 * canvas and keeps the point.
 */
export function writeLocally(context: Pick<CanvasRenderingContext2D, 'fillText' | 'measureText'>): void {
  if (turned.has(context)) return;
  turned.add(context);
  const fillText = context.fillText.bind(context);
  const measureText = context.measureText.bind(context);
  context.fillText = (text, ...place) => fillText(local(text), ...place);
  context.measureText = (text) => measureText(local(text));
}
