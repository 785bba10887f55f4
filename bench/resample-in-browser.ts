/** From a click to the finished picture of 10 000 permutations, and the longest task while a million are drawn. */
import { inBrowser, pasted } from './in-browser.js';
import { median } from './report.js';

/** Clicks a number of replicates and waits until the finding tells of that many. */
async function untilFound([label, words]: [string, string]): Promise<number> {
  const choices = document.querySelector('[aria-label="How many replicates"]')!;
  const choice = [...choices.querySelectorAll('label')].find((one) => one.textContent!.replace(/\s/g, '') === label)!;
  const side = document.querySelector('#finding')!;
  const started = performance.now();
  (choice as HTMLElement).click();
  for (;;) {
    await new Promise((resolve) => requestAnimationFrame(resolve));
    const text = side.textContent!.replace(/\s/g, '');
    if (text.includes(words) && text.includes('p=')) break;
  }
  await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0)));
  return performance.now() - started;
}

export async function benchResampleInBrowser(): Promise<void> {
  await inBrowser(async (page, url) => {
    const rows = Array.from(
      { length: 24 },
      (_, i) => `${(8 + Math.sin(i * 12.9898) * 0.3).toFixed(3)}\t${i % 2 ? 'a' : 'b'}`,
    );
    await pasted(page, url, ['x\tg', ...rows].join('\n'));
    const study = page.url().replace(/readings.*/, '');
    await page.goto(`${study}resample?ask=shuffle`);
    await page.getByRole('combobox', { name: 'Split by', exact: true }).click({ force: true });
    await page.getByRole('option', { name: 'g', exact: true }).click();
    await page
      .getByText(/of 10\s000 permutations/)
      .first()
      .waitFor();
    const times: number[] = [];
    for (let k = 0; k < 9; k++) {
      await page.evaluate(untilFound, ['1000', 'of1000permutations'] as [string, string]);
      await page.getByRole('textbox', { name: 'seed of the random numbers' }).fill(String(100 + k));
      await page.keyboard.press('Enter');
      await page.evaluate(untilFound, ['1000', 'of1000permutations'] as [string, string]);
      times.push(await page.evaluate(untilFound, ['10000', 'of10000permutations'] as [string, string]));
    }
    const time = median(times);
    console.log(
      `10 000 permutations of 24, click to picture: ${time.toFixed(0)} ms, under 250 ms ${time < 250 ? 'kept' : 'MISSED'}`,
    );
    await page.evaluate(() => {
      const seen = window as unknown as { longest: number };
      seen.longest = 0;
      new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) seen.longest = Math.max(seen.longest, duration);
      }).observe({ entryTypes: ['longtask'] });
    });
    const million = await page.evaluate(untilFound, ['1000000', 'of1000000permutations'] as [string, string]);
    const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
    const words = longest === 0 ? 'none of 50 ms or more, kept' : `the longest ${longest.toFixed(0)} ms, MISSED`;
    console.log(`1 000 000 permutations of 24: ${million.toFixed(0)} ms; tasks of the page meanwhile: ${words}`);
  });
}
