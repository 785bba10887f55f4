/**
 * From a changed setting to the picture on the screen, in Chromium: the time from the change of a word of the sentence to the frame after the canvas
 * was drawn anew. The peer is one frame of the same page that only draws: nothing of it can be saved.
 */
import { inBrowser, pasted } from './in-browser.js';
import { median } from './report.js';

/** Runs in the page: sets a choice and waits until the picture has been drawn after it. */
async function untilDrawn([label, value]: [string, string]): Promise<number> {
  const select = document.querySelector(`select[aria-label="${label}"]`) as HTMLSelectElement;
  const canvas = document.querySelector('canvas')!;
  const context = canvas.getContext('2d')!;
  const drawn = new Promise<number>((resolve) => {
    // The picture clears its canvas first whenever it is drawn.
    const clear = context.clearRect.bind(context);
    context.clearRect = (...area) => {
      context.clearRect = clear;
      clear(...area);
      requestAnimationFrame(() => setTimeout(() => resolve(performance.now()), 0));
    };
  });
  const started = performance.now();
  select.value = value;
  select.dispatchEvent(new Event('change'));
  return (await drawn) - started;
}

const PICTURES: readonly [picture: string, label: string, values: readonly [string, string], most: string][] = [
  ['histogram', 'rule for the bins', ['scott', 'sturges'], 'bins'],
  ['histogram', 'curve', ['lognormal', 'gamma'], 'bins with a fitted curve'],
  ['box', 'whiskers', ['ends', 'fences'], 'box'],
  ['empirical', 'curve', ['none', 'normal'], 'steps'],
  ['in-order', 'axis', ['scores', 'readings'], 'readings in order'],
];

export async function benchShapeInBrowser(): Promise<void> {
  await inBrowser(async (page, url) => {
    for (const [n, most] of [
      [1_000, 100],
      [100_000, 400],
    ] as const) {
      const reading = (i: number) => (8 + Math.sin(i * 12.9898) * 0.3).toFixed(3);
      await pasted(page, url, ['x', ...Array.from({ length: n }, (_, i) => reading(i))].join('\n'));
      const shape = page.url().replace(/readings.*/, 'shape');
      for (const [picture, label, [one, other], what] of PICTURES) {
        await page.goto(`${shape}?picture=${picture}`);
        await page.getByRole('img', { name: /Arrow keys step/ }).waitFor();
        await page.getByRole('region', { name: 'Figures' }).waitFor();
        const times: number[] = [];
        for (let k = 0; k < 9; k++)
          times.push(await page.evaluate(untilDrawn, [label, k % 2 ? other : one] as [string, string]));
        const time = median(times);
        const kept = time < most ? 'kept' : 'MISSED';
        console.log(
          `${n} readings, ${what}, setting to picture: ${time.toFixed(0)} ms, under ${most} ms ${kept} (slowest ${Math.max(...times).toFixed(0)})`,
        );
      }
    }
  });
}
