import type { Evidence } from '@verdict/contract';
import type { Page } from '@playwright/test';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { commandLine, expect, openStage, pick, studyOf, test, violations } from './app.js';

/** Twenty-four tiles of two kilns, the southern ones a little thicker, by two gauges. */
const ROWS = Array.from({ length: 24 }, (_, i) => {
  const step = (((i * 17) % 24) + 0.5) / 24;
  const south = i % 2 === 1;
  const thickness = 8 + 0.06 * Math.log(step / (1 - step)) + (south ? 0.12 : 0);
  return [south ? 'south' : 'north', thickness.toFixed(2), (thickness + 0.01 * ((i * 7) % 5)).toFixed(2)];
});
const BLOCK = ['kiln\tthickness (mm)\tbench (mm)', ...ROWS.map((row) => row.join('\t'))].join('\n');

const finding = (page: Page) => page.getByRole('region', { name: 'Finding' });
const question = (page: Page) => page.getByRole('region', { name: 'Question' });
const counts = (page: Page) => page.getByRole('radiogroup', { name: 'How many replicates' });
const studyId = (page: Page) => /studies\/([^/]+)/.exec(page.url())![1]!;
async function open(page: Page, query = ''): Promise<void> {
  await studyOf(page, BLOCK);
  await page.goto(`/studies/${studyId(page)}/resample${query}`);
  await expect(page.getByRole('region', { name: 'Method' })).toBeVisible();
}
const splitByKiln = (page: Page) => pick(page.getByLabel('Split by', { exact: true }), { label: 'kiln' });

test('readings are redrawn one at a time, then many; the replicate behind a mark is viewed; kept, and the same on the command line', async ({
  page,
  app,
}) => {
  await open(page);
  await expect(finding(page)).toContainText(
    /\(10\s000 bootstrap replicates\)\. 95.% confidence interval .+ \(studentised/,
  );
  await counts(page).getByText('1', { exact: true }).click();
  await expect(finding(page)).toContainText('(1 bootstrap replicate so far)');
  const replicate = page.getByRole('region', { name: 'Single replicate', exact: true });
  await expect(replicate).toContainText(/Replicate 1: .+; \d+ of 24 readings were not drawn\./);
  await page.getByRole('button', { name: 'one more' }).click();
  await expect(replicate).toContainText('Replicate 2:');
  const list = page.getByRole('region', { name: 'The replicate, reading by reading' });
  await expect(list).toContainText('drawn twice');
  const second = await replicate.getByText(/Replicate 2/).textContent();
  await counts(page)
    .getByText(/^1\s000$/)
    .click();
  await expect(finding(page)).toContainText(/\(1\s000 bootstrap replicates\)\. 95/);
  // Pointing at a bar shows the replicate behind it; the one before is still the same.
  const picture = page.getByRole('img', { name: /^the mean of thickness, bootstrap/ });
  await picture.focus();
  for (let k = 0; k < 12; k++) await page.keyboard.press('ArrowRight');
  await expect(replicate).toContainText(/Replicate \d+: /);
  await page.goto(page.url().replace(/replicate=\d+/, 'replicate=2'));
  await expect(replicate.getByText(/Replicate 2/)).toHaveText(second!);

  await pick(question(page).getByLabel('Statistic'), { label: 'the standard deviation' });
  await expect(finding(page)).toContainText(
    /The standard deviation of thickness: .+ \(BCa, corrects for skewness and bias/,
  );
  await expect(finding(page)).toContainText('For comparison, the formula (χ²) gives');
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the replicates' }).click(),
  ]);
  expect(
    readFileSync(await saved.path(), 'utf8')
      .trim()
      .split('\n'),
  ).toHaveLength(1_001);

  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 1' })).toBeVisible();
  const keptNow = async (): Promise<Evidence[]> =>
    (await fetch(`${app.url}api/studies/${studyId(page)}/evidence`)).json();
  await expect.poll(async () => (await keptNow())[0]!.recomputed?.same).toBe(true);
  const [kept] = await keptNow();
  const dir = mkdtempSync(join(tmpdir(), 'verdict-resample-'));
  writeFileSync(join(dir, 'a.csv'), BLOCK.replaceAll('\t', ','));
  const options = JSON.stringify({ statistic: 'sd', replicates: 1_000 });
  const printed = await commandLine('bootstrap', join(dir, 'a.csv'), '--column', 'thickness', '--options', options);
  rmSync(dir, { recursive: true });
  expect(printed.result).toEqual(kept!.result);
  await openStage(page, 'Verdict');
  await expect(page.getByRole('article')).toContainText('Bootstrap of thickness, statistic: the standard deviation.');
});

test('labels are shuffled over readings: both tails counted, a million drawn with stop and go on, all arrangements where they can be counted', async ({
  page,
}) => {
  await open(page, '?ask=shuffle');
  await expect(page.getByText('Enter the claimed')).toBeVisible();
  await splitByKiln(page);
  await expect(finding(page)).toContainText(/of 10\s000 permutations are at least as extreme \(p = 0\.0\d+\)/);
  await expect(finding(page)).toContainText(/\d+ at or below −0\.\d+\smm, \d+ at or above 0\.\d+\smm, ties included/);
  await expect(page.getByRole('img', { name: /, permutation test\./ })).toBeVisible();
  await pick(question(page).getByLabel('Statistic'), { label: 'the difference between the medians' });
  await expect(finding(page)).toContainText('The median of thickness in');
  await counts(page)
    .getByText(/^1\s000\s000$/)
    .click();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByRole('button', { name: 'Continue', exact: true }).click();
  await expect(finding(page)).toContainText(/of 1\s000\s000 permutations are at least as extreme/);

  // Two columns whose rows belong together.
  await pick(page.getByLabel('Split by', { exact: true }), { label: 'columns to compare' });
  await pick(question(page).getByLabel('Statistic'), { label: 'the correlation' });
  await expect(finding(page)).toContainText('Evidence against the hypothesis that thickness and bench are independent');
});

test('counts are typed; larger samples are compared; nothing is in the way of anyone', async ({ page }) => {
  await open(page, '?typed=yes&typed.count=8&typed.n=10&typed.count2=3&typed.n2=10&ask=shuffle');
  await expect(finding(page)).toContainText(
    /of all 184\s756 permutations are at least as extreme \(exact p = 0\.0\d+\)/,
  );
  await counts(page).getByText('10', { exact: true }).click();
  await expect(finding(page)).toContainText('The picture shows 10 random permutations');
  await expect(page.getByRole('region', { name: 'Single replicate', exact: true })).toContainText('Permutation 10:');
  const other = page.getByRole('textbox', { name: 'its total n' });
  await other.fill('2');
  await other.press('Enter');
  await expect(page.getByText('The count must not be larger than the total.').first()).toBeVisible();
  await other.fill('');
  await other.press('Enter');
  await expect(page.getByText('Enter its total.').first()).toBeVisible();

  await page.goto(`/studies/${studyId(page)}/resample?ask=plans`);
  await expect(finding(page)).toContainText(/Expected standard error: .+ for n = 48/);
  expect(await violations(page)).toEqual([]);
  await page.goto(`/studies/${studyId(page)}/resample?redraw.replicates=12`);
  await expect(page.getByRole('region', { name: 'Single replicate', exact: true })).toContainText('Replicate 12');
  expect(await violations(page)).toEqual([]);
  await page.goto(`/studies/${studyId(page)}/resample?ask=shuffle`);
  await splitByKiln(page);
  await expect(finding(page)).toContainText('permutations are at least as extreme');
  expect(await violations(page)).toEqual([]);
  await page.setViewportSize({ width: 360, height: 740 });
  await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
});
