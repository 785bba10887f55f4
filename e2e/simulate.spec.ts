import type { Evidence } from '@verdict/contract';
import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { commandLine, expect, openStage, pick, studyOf, test, violations } from './app.js';

/** Sacks as a balance weighs them that reads to half a gram. */
const MASSES = Array.from({ length: 30 }, (_, i) => (5000 + Math.round(10 * Math.sin(i * 12.9898)) / 2).toFixed(1));
const BLOCK = ['filled mass (g)', ...MASSES].join('\n');

const finding = (page: Page) => page.getByRole('region', { name: 'Finding' });
const question = (page: Page) => page.getByRole('region', { name: 'Question' });
const method = (page: Page) => page.getByRole('region', { name: 'Method' });
const strip = (page: Page) => page.getByRole('region', { name: 'Population and sample' });
const counts = (page: Page) => page.getByRole('radiogroup', { name: 'How many replicates' });
const studyId = (page: Page) => /studies\/([^/]+)/.exec(page.url())![1]!;
async function open(page: Page, query = ''): Promise<void> {
  await studyOf(page, BLOCK);
  await page.goto(`/studies/${studyId(page)}/simulate${query}`);
  await expect(method(page)).toBeVisible();
}
async function type(page: Page, name: string, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name, exact: true });
  await field.fill(text);
  await field.press('Enter');
}

test('a sample is drawn, viewed and put back; then many; the p of a test, kept, and the same on the command line', async ({
  page,
  app,
}) => {
  await open(page, '?look=test:t');
  await expect(finding(page)).toContainText(/of 1\s000 samples have p below 5 % although the claim is true/);
  await expect(strip(page)).toContainText(/30 readings: true mean \d/);
  await counts(page).getByText('1', { exact: true }).click();
  await expect(finding(page)).toContainText('of 1 sample');
  await expect(strip(page)).toContainText(/Sample 1: t = −?[\d.]+, p = [\d.]+/);
  await page.getByRole('button', { name: 'one more' }).click();
  await expect(strip(page)).toContainText('Sample 2: ');
  await expect(page.getByRole('region', { name: 'The sample, reading by reading' }).getByRole('row')).toHaveCount(11);
  const second = await strip(page)
    .getByText(/Sample 2/)
    .textContent();
  await page.getByRole('button', { name: 'Hide' }).click();
  await expect(strip(page)).toContainText(/30 readings: true mean \d/);
  await counts(page)
    .getByText(/^10\s000$/)
    .click();
  await expect(finding(page)).toContainText(/of 10\s000 samples have p below 5 %/);
  // A mark leads to a sample behind it; the second is still the same.
  await page.getByRole('img', { name: /^the p of the t test of the mean in samples of 10/ }).focus();
  for (let k = 0; k < 3; k++) await page.keyboard.press('ArrowRight');
  await expect(strip(page)).toContainText(/Sample \d+: t = /);
  await page.goto(page.url().replace(/sample=\d+/, 'sample=2'));
  await expect(strip(page).getByText(/Sample 2/)).toHaveText(second!);

  await pick(page.getByLabel('Source of the population'), { label: 'a distribution' });
  await pick(question(page).getByLabel('distribution', { exact: true }), { label: 'exponential distribution' });
  await expect(finding(page)).toContainText('the test does not keep its significance level here');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 1' })).toBeVisible();
  const keptNow = async (): Promise<Evidence[]> =>
    (await fetch(`${app.url}api/studies/${studyId(page)}/evidence`)).json();
  await expect.poll(async () => (await keptNow())[0]!.recomputed?.same).toBe(true);
  const options = JSON.stringify({ family: 'exponential', test: 't', replicates: 10_000 });
  expect((await commandLine('simulate', '--options', options)).result).toEqual((await keptNow())[0]!.result);
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the results' }).click(),
  ]);
  expect(
    readFileSync(await saved.path(), 'utf8')
      .trim()
      .split('\n'),
  ).toHaveLength(10_001);
  await openStage(page, 'Verdict');
  await expect(page.getByRole('article')).toContainText('Test: t test of the mean, claimed value the true value');
});

test('a population of 100 000 becomes a column and is drawn from without being put back', async ({ page }) => {
  await open(page, '?population.from=fit&population.step=0.5');
  await expect(finding(page)).toContainText(/In 1\s000 samples, the mean of samples of 10 has a standard deviation of/);
  await page.getByRole('button', { name: /^Make it a column of 100/ }).click();
  await expect(strip(page)).toContainText(/100\s000 readings: true mean \d/);
  await pick(question(page).getByLabel('sampling'), { label: 'without replacement' });
  await type(page, 'sample size', '5000');
  await expect(finding(page)).toContainText(/samples of 5000 has a standard deviation of/);
  await type(page, 'sample size', '20');
  await counts(page)
    .getByText(/^10\s000$/)
    .click();
  await expect(finding(page)).toContainText(/In 10\s000 samples/);
});

test('tests are compared along n, readings are planned, coverage is seen; nothing is in the way of anyone', async ({
  page,
}) => {
  await open(page, '?ask=curves&population.from=fit&curves.shiftInSd=0.5&curves.replicates=1000');
  await expect(finding(page)).toContainText(/80\s% power against a shift of 0\.5 SD is reached at n = 34 \(t\)/);
  const tests = question(page).getByLabel('tests', { exact: true });
  await tests.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.type('sign test');
  await expect(page.getByRole('option', { name: 'sign test of the median' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  // Once takes back typed figures, twice closes the list.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('option').first()).toBeHidden();
  await expect(finding(page)).toContainText(/n = 34 \(t\), n = 5\d \(sign\)/);
  await expect(page.getByRole('img', { name: /^80.% power against a shift/ })).toBeVisible();
  expect(await violations(page)).toEqual([]);

  await page.getByRole('radiogroup', { name: 'Questions of simulation' }).getByText('Sample size').click();
  await expect(finding(page)).toContainText(
    /^You need 34 readings\. With 34, the t test of the mean detects a shift of 0\.5 SD in 80\.\d+\s% of samples \(exact\)/,
  );
  await pick(question(page).getByLabel('test'), { label: 'signed rank test of the median' });
  await expect(finding(page)).toContainText(/You need 3\d readings\. With 3\d, the signed rank test/);
  expect(await violations(page)).toEqual([]);

  await page.goto(`/studies/${studyId(page)}/simulate?look=interval:mean&population.from=family`);
  await expect(finding(page)).toContainText(
    /of 1\s000 intervals contain the true value 0\. That is consistent with the nominal 95\s%/,
  );
  await page.getByRole('img', { name: /t interval of the mean/ }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(strip(page)).toContainText(/Sample 1: .+ (contains|does not contain) the true value/);
  expect(await violations(page)).toEqual([]);
  // What cannot be is said where it is typed, and the old value stays.
  await type(page, 'parameters', '0 -1');
  await expect(page.getByText(/The standard deviation is a number above 0/)).toBeVisible();
  await expect(finding(page)).toContainText(/of 1\s000 intervals contain/);
  await page.setViewportSize({ width: 360, height: 740 });
  await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
});

test('uncertainty is propagated: inputs by name, correlated, from a column; faults are shown where they are typed', async ({
  page,
}) => {
  await open(page, '?ask=propagate');
  await expect(page.getByText('each name in it becomes an input')).toBeVisible();
  await type(page, 'formula', 'gross - tare');
  await expect(finding(page)).toContainText(
    /^gross - tare: [−\d.]+, standard uncertainty 1\.4\. 95\s% coverage interval .* trials\)/,
  );
  await pick(page.getByLabel('source of gross'), { label: 'from the readings of filled mass' });
  await type(page, 'parameters of tare', '12 0.3');
  await expect(finding(page)).toContainText(/^gross - tare: 498\d\.\d, standard uncertainty 3\.\d/);
  await type(page, 'upper limit', '4990');
  await expect(finding(page)).toContainText(/Proportion above 4990: [\d.]+\s%/);
  await type(page, 'parameters of tare', '12 -1');
  await expect(page.getByText('The standard deviation is a number above 0, not -1.')).toBeVisible();
  await type(page, 'correlations', 'gross tare');
  await expect(page.getByText(/is not a correlation\. Type two names and a number/).first()).toBeVisible();
  await type(page, 'correlations', '');
  await expect(finding(page)).toContainText('First-order approximation (GUM)');
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 1' })).toBeVisible();
  await openStage(page, 'Verdict');
  await expect(page.getByRole('article')).toContainText(
    'Propagate uncertainty through gross - tare with gross from the readings of filled mass, tare of a normal distribution with mean 12 and standard deviation 0.3.',
  );
});
