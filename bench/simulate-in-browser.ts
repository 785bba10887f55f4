/** From a click to the finished picture of 1 000 t tests of samples from 100 000, and five tests along seven sizes. */
import { inBrowser, pasted } from './in-browser.js';
import { median } from './report.js';

/** Clicks a number of samples and waits until the finding tells of that many. */
async function untilFound([label, words]: [string, string]): Promise<number> {
  const choices = document.querySelector('[aria-label="How many replicates"]')!;
  const choice = [...choices.querySelectorAll('label')].find((one) => one.textContent!.replace(/\s/g, '') === label)!;
  const side = document.querySelector('#finding')!;
  const started = performance.now();
  (choice as HTMLElement).click();
  for (;;) {
    await new Promise((resolve) => requestAnimationFrame(resolve));
    if (side.textContent!.replace(/\s/g, '').includes(words)) break;
  }
  await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0)));
  return performance.now() - started;
}

const TESTS = ['t', 'sign', 'signed-rank', 'shapiro-wilk', 'anderson-darling'];

export async function benchSimulateInBrowser(): Promise<void> {
  await inBrowser(async (page, url) => {
    await pasted(
      page,
      url,
      ['x (g)', ...Array.from({ length: 40 }, (_, i) => (5000 + ((i * 7) % 11) / 2).toFixed(1))].join('\n'),
    );
    const study = page.url().replace(/readings.*/, '');
    await page.goto(`${study}simulate?look=test:t&population.from=fit&population.step=0.5`);
    await page.getByRole('button', { name: /^Make it a column/ }).click();
    await page.getByText(/100\s000 readings: true mean/).waitFor();
    const times: number[] = [];
    for (let k = 0; k < 9; k++) {
      await page.evaluate(untilFound, ['10', 'of10samples'] as [string, string]);
      await page.getByRole('textbox', { name: 'seed of the random numbers' }).fill(String(100 + k));
      await page.keyboard.press('Enter');
      await page.evaluate(untilFound, ['10', 'of10samples'] as [string, string]);
      times.push(await page.evaluate(untilFound, ['1000', 'of1000samples'] as [string, string]));
    }
    const time = median(times);
    console.log(
      `1 000 t tests of 10 from 100 000, click to picture: ${time.toFixed(0)} ms, under 200 ms ${time < 200 ? 'kept' : 'MISSED'}`,
    );
    const started = performance.now();
    await page.goto(`${study}simulate?ask=curves&curves.tests=${TESTS.join('%20')}&curves.shiftInSd=0.5`);
    await page.getByText(/80.% power against a shift/).waitFor();
    const curves = performance.now() - started;
    console.log(
      `five tests along seven sizes, 2 000 samples each, from opening the page: ${(curves / 1000).toFixed(1)} s, under 10 s ${curves < 10_000 ? 'kept' : 'MISSED'}`,
    );
  });
}
