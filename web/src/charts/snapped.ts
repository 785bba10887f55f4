import type { Window } from '@verdict/core/distributions';

/** A dragged place as it would be typed: to about a two-hundredth of the picture, whole for counts, on the grid of a resolution. */
export function snapped(x: number, { from, to }: Window, step: number | null): string {
  if (step !== null) return String(Number((Math.round(x / step) * step).toPrecision(12)));
  const rough = Math.floor(Math.log10((to - from) / 200));
  const unit = 10 ** rough;
  return String(Number((Math.round(x / unit) * unit).toPrecision(12)));
}
