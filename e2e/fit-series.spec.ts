import type { Evidence } from '@verdict/contract';
import { expect, openStage, pick, settled, studyOf, test } from './app.js';

const KILNS = [
  'kiln\tthickness (mm)\twidth (mm)',
  ...Array.from({ length: 24 }, (_, i) => {
    const step = ((i * 37) % 24) / 24;
    const thickness = (i % 2 ? 8 + 0.2 * step : 8.1 + 0.3 * step ** 6).toFixed(3);
    return `${i % 2 ? 'north' : 'south'}\t${thickness}\t${(20 + step).toFixed(2)}`;
  }),
].join('\n');

test('a split column: each part has its own fit, line, marker and row in the table of tests, in one plot or a plot each', async ({
  page,
  app,
}) => {
  await studyOf(page, KILNS);
  await openStage(page, 'Fit');
  await pick(page.getByLabel('Split by'), { label: 'kiln' });
  await settled(page);
  const finding = page.getByRole('region', { name: 'Finding' });
  await expect(finding).toContainText('depart from a normal distribution in south');
  await expect(finding).toContainText('Holm-adjusted for 2 tests');
  const rows = finding.getByRole('row');
  await expect(rows.filter({ hasText: 'north' })).toContainText('12');
  await expect(page.getByRole('img', { name: /Probability plots of thickness by kiln/ })).toBeVisible();
  // A part explains itself: its own finding.
  await finding.getByRole('button', { name: 'north' }).click();
  await expect(finding).toContainText('No evidence against a normal distribution');
  await page.getByText('All tests').click();
  await expect(rows.filter({ hasText: 'Shapiro–Wilk' }).getByRole('cell')).toHaveCount(3);
  await page.getByText('The distributions').click();
  await expect(rows.filter({ hasText: 'mean' })).toContainText(/8\.\d+ ± 0\.\d+/);
  await pick(page.getByLabel('layout of the groups'), { label: 'separate plots' });
  await expect(page.getByRole('region', { name: 'Method' })).toContainText('Probability plot of thickness by kiln');
  await settled(page);
  // The stage one is on keeps what was asked there.
  await openStage(page, 'Fit');
  await expect(page.getByRole('region', { name: 'Method' })).toContainText('separate plots');

  // Pointing says of which part a reading is; the table has a column for it.
  await page.getByRole('button', { name: 'Table' }).click();
  const table = page.getByRole('dialog');
  await expect(table.getByRole('columnheader', { name: 'series' })).toBeVisible();
  await page.keyboard.press('Escape');

  // Kept, drawn again on the sheet, and the same when the server works it out.
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding).toContainText('Kept: probability plot and normality test.');
  await openStage(page, 'Verdict');
  await expect(page.getByRole('img', { name: 'probability plot of thickness by kiln' }).first()).toBeVisible();
  const id = /studies\/([^/]+)/.exec(page.url())![1]!;
  await expect
    .poll(async () => {
      const kept: Evidence[] = await (await fetch(`${app.url}api/studies/${id}/evidence`)).json();
      return kept.map(({ recomputed }) => recomputed?.same);
    })
    .toEqual([true, true]);
});

test('columns to compare stand on common axes; a family whose scale differs is drawn against what each expects', async ({
  page,
}) => {
  await studyOf(
    page,
    'a (mm)\tb (mm)\n' +
      Array.from({ length: 15 }, (_, i) => `${1 + ((i * 7) % 15) / 10}\t${3 + ((i * 4) % 15) / 5}`).join('\n'),
  );
  await openStage(page, 'Fit');
  await pick(page.getByLabel('Split by'), { label: 'columns to compare' });
  await settled(page);
  const finding = page.getByRole('region', { name: 'Finding' });
  await expect(finding).toContainText('in any of 2 columns');
  await pick(page.getByLabel('distribution', { exact: true }), { label: 'gamma distribution' });
  await settled(page);
  await expect(finding).toContainText('Each group is plotted against its own expected values.');
});

test('readings censored take part; tests that need every reading say so', async ({ page }) => {
  const readings = [0.06, 0.08, 0.09, 0.11, 0.13, 0.15, 0.18, 0.22, 0.25, 0.31, 0.38, 0.47, 0.6, 0.85];
  await studyOf(page, ['absorption (%)', '<0.05', '<0.05', ...readings.map(String), '>1'].join('\n'));
  await openStage(page, 'Fit');
  const finding = page.getByRole('region', { name: 'Finding' });
  await expect(finding).toContainText('17 readings (2 below 0.05 and 1 above 1.00) plotted against a normal');
  await expect(finding).toContainText('Patterns are not tested if readings are censored.');
  await expect(finding).not.toContainText('left out');
  await expect(page.getByRole('region', { name: 'Method' })).toContainText('a confidence band of the line');
  await page.getByRole('radiogroup', { name: 'Figures of the fit' }).getByText('Distributions').click();
  await expect(finding).toContainText('The ranking is by likelihood alone');
  await page.getByRole('button', { name: 'Table', exact: true }).first().click();
  await expect(page.getByRole('dialog')).toContainText('<0.05');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding).toContainText('Kept: probability plot and comparison of distributions.');
  await openStage(page, 'Shape');
  await expect(finding).toContainText('2 below 0.05 and 1 above 1.00 of 17 readings');
  await expect(finding).toContainText('With the censored readings: mean');
});
