import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Evidence } from '@verdict/contract';
import type { Page } from '@playwright/test';
import { TWELVE, commandLine, pick, expect, openStage, settled, stored, studyOf, test, holds } from './app.js';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const finding = (page: Page) => page.getByRole('region', { name: 'Finding' });
const picture = (page: Page) => page.getByRole('region', { name: 'Picture' });
const method = (page: Page) => page.getByRole('region', { name: 'Method' });
const canvas = (page: Page) => picture(page).getByRole('img', { name: /Arrow keys step/ });

async function showPicture(page: Page, name: string): Promise<void> {
  await page.getByRole('radiogroup', { name: 'Pictures' }).getByText(name, { exact: true }).click();
}
const SKEWED = ['x (s)', ...Array.from({ length: 40 }, (_, i) => (1 + (i % 20) ** 3 / 1000).toFixed(2))].join('\n');

/** The tiles of the demo in a study of their own, so that what is kept here is not in the way of other tests. */
const TILES = readFileSync(`${ROOT}demo/tile-thickness.csv`, 'utf8');

test('figures, words, three other binnings; kept, and the same on the server and on the command line', async ({
  page,
  app,
}) => {
  await studyOf(page, TILES);
  await openStage(page, 'Shape');
  await expect(finding(page)).toContainText(
    'Mean 8.016\u00a0mm, standard deviation 0.108\u00a0mm, 48 readings. No evidence of skewness.',
  );
  await expect(finding(page)).toContainText(
    'A rise in row order (rank correlation 0.319, p = 0.027) is not significant after adjustment for 5 tests.',
  );
  await expect(page.getByRole('region', { name: 'The same readings in other bins' }).getByRole('img')).toHaveCount(3);
  await page.keyboard.press('k');
  await expect(finding(page)).toContainText('Kept: histogram and description.');
  await page.getByRole('radiogroup', { name: 'Figures or proportions' }).getByText('Proportions within limits').click();
  await pick(page.getByLabel('Split by'), { label: 'kiln' });
  await expect(finding(page)).toContainText('2 groups by kiln');
  await showPicture(page, 'Box');
  await expect(canvas(page)).toHaveAccessibleName(/Box plot of thickness by kiln: 48 readings, 2 parts/);
  await expect(finding(page).getByRole('cell', { name: /north, \d+/ })).toBeVisible();
  await page.keyboard.press('k');
  await expect(finding(page)).toContainText('Kept: box plot and description and proportions within limits.');
  await page.getByRole('button', { name: 'Evidence 5' }).click();
  const drawer = page.getByRole('dialog', { name: 'Evidence' });
  for (const i of [0, 1, 2, 3, 4]) await drawer.getByRole('button', { name: 'Recompute' }).nth(i).click();
  await expect(drawer.getByText('the same, bit for bit')).toHaveCount(5);

  const id = /studies\/([^/]+)/.exec(page.url())![1]!;
  const kept: Evidence[] = await (await fetch(`${app.url}api/studies/${id}/evidence`)).json();
  for (const item of kept) {
    const split = item.parts ? ['--split', 'kiln'] : [];
    const printed = await commandLine(
      item.analysis,
      `${ROOT}demo/tile-thickness.csv`,
      '--column',
      'thickness',
      ...split,
    );
    expect(printed.result, item.analysis).toEqual(item.result);
    expect(printed.fingerprint).toBe(item.fingerprint);
  }
});

test('every picture is drawn, named for a screen reader, and steps through its marks by the arrow keys', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Shape');
  for (const [word, name, words] of [
    ['Histogram', 'Histogram of thickness', /7\.\d+ to below 7\.\d+ mm: \d reading/],
    ['Box', 'Box plot of thickness', /median 7\.985 mm|lower whisker/],
    ['Steps', 'Empirical distribution of thickness', /7\.80 mm: 8\.33\u00a0% at or below, 1 of 12/],
    ['Dots', 'Dot plot of thickness', /about 7\.80 mm: 1 reading/],
    ['In order', 'Readings in order of thickness', /row 1: 7\.80 mm/],
  ] as const) {
    await showPicture(page, word);
    await expect(canvas(page)).toHaveAccessibleName(new RegExp(`^${name}: 12 readings`));
    await canvas(page).focus();
    await page.keyboard.press('ArrowRight');
    await expect(picture(page).getByRole('status')).toContainText(words);
  }
  // A pointed-at reading is set aside; what takes its place is not pointed at by that.
  await page.keyboard.press('x');
  await page.getByLabel('Reason').fill('caliper not closed');
  await page.keyboard.press('Enter');
  await expect(page.getByText('11 readings, 1 set aside')).toBeVisible();
  await expect(picture(page).getByRole('status')).toContainText('Point at a mark');
  await page.keyboard.press('x');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await showPicture(page, 'Stem');
  await expect(picture(page)).toContainText('stands for 7.92\u00a0mm');
  await picture(page).getByRole('button', { name: 'Copy as text' }).click();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  const leaves = text.split('\n').flatMap((line) => line.split('│ ')[1] ?? []);
  expect(leaves.join('')).toMatch(/^\d{11}$/);
});

test('settings change bins, curve, scale and definitions at once, and stand in the address', async ({ page }) => {
  await studyOf(page, SKEWED);
  await openStage(page, 'Shape');
  await expect(finding(page)).toContainText('Skewed to the right');
  // A width of one's own starts from the one that the bins have.
  await expect(method(page).getByLabel('bin width', { exact: true })).toHaveValue(/^\d/);
  const had = await method(page).getByLabel('bin width', { exact: true }).inputValue();
  await pick(method(page).getByLabel('rule for the bins'), 'width');
  await expect(page).toHaveURL(new RegExp(`histogram\\.width=${had.replace('.', '\\.')}`));
  await expect(finding(page)).not.toContainText('No bin width is given');
  await pick(method(page).getByLabel('rule for the bins'), 'count');
  await method(page).getByLabel('number of bins').fill('4');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/histogram\.count=4/);
  await canvas(page).focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowRight');
  await method(page).getByLabel('bin width', { exact: true }).fill('0,5');
  await page.keyboard.press('Enter');
  await holds(method(page).getByLabel('rule for the bins'), 'width');
  await method(page).getByLabel('bin width', { exact: true }).fill('-1');
  await page.keyboard.press('Enter');
  await expect(method(page).getByRole('alert')).toContainText('bin width must be a number above 0');
  await expect(page).toHaveURL(/histogram\.width=0\.5/);
  await pick(method(page).getByLabel('fitted distribution', { exact: true }), 'weibull');
  await pick(method(page).getByLabel('scale'), 'density');
  await page.getByLabel('additional percentiles').fill('5 95');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'percentile 95' })).toBeVisible();
  await pick(page.getByLabel('definition of quartiles'), 'hinges');
  await page.getByRole('button', { name: 'quartiles', exact: true }).click();
  await expect(finding(page).getByRole('note').filter({ hasText: 'by the definition chosen' })).toContainText(
    'linear interpolation, i/(n + 1) (type 6)',
  );
  await page.getByLabel('confidence level of the intervals').fill('9.5');
  await page.keyboard.press('Enter');
  await expect(finding(page)).toContainText('Did you mean 95\u00a0%?');
  await page.getByLabel('decimal places of the figures').fill('4');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Figures' })).toContainText(/\d\.\d{4}/);
  await page.reload();
  await holds(method(page).getByLabel('fitted distribution', { exact: true }), 'weibull');
  await holds(method(page).getByLabel('axis', { exact: true }), 'readings');
  await pick(method(page).getByLabel('axis', { exact: true }), 'given-scores');
  await expect(finding(page)).toContainText('mean and SD of the standard scores are not set');
});

test('bins are dragged wider, bars are chosen, their readings shown in the table and set aside', async ({ page }) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Shape');
  const width = picture(page).getByRole('slider', { name: 'Handle for the width of the bins' });
  await width.focus();
  const before = Number(await width.getAttribute('aria-valuenow'));
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => Number(await width.getAttribute('aria-valuenow'))).toBeGreaterThan(before);
  await expect(page).toHaveURL(/histogram\.rule=width/);
  // By the pointer, and the picture follows before it is let go.
  const grip = width.locator('.grip');
  // Waits until the picture has come to rest.
  await grip.hover();
  const box = (await grip.boundingBox())!;
  await page.mouse.down();
  const address = page.url();
  await page.mouse.move(box.x + 120, box.y + 5, { steps: 4 });
  const now = () => width.getAttribute('aria-valuenow').then(Number);
  await expect.poll(now).toBeGreaterThan(before + 0.05);
  expect(page.url()).toBe(address);
  await page.mouse.up();
  await expect(page).not.toHaveURL(address);

  await canvas(page).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  const chosen = page.getByRole('region', { name: 'Chosen readings' });
  await expect(chosen).toContainText(/\d+ readings? chosen row and value: 1: 7\.80/);
  await chosen.getByRole('button', { name: 'Show in the table' }).click();
  await expect(page.getByRole('group', { name: 'Arrange' })).toContainText('chosen in a picture');
  await page.goBack();
  await canvas(page).focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Enter');
  await chosen.getByRole('button', { name: 'Set aside …' }).click();
  await page.getByLabel('Reason').fill('second gauge');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/\d+ readings, \d+ set aside/)).toBeVisible();
  await expect(chosen).toHaveCount(0);
});

test('shares: found beside expected, limits typed and dragged', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Tile thickness/ }).click();
  await page.keyboard.press('Escape');
  await openStage(page, 'Shape');
  await expect(page.getByRole('region', { name: 'Figures' })).toBeVisible();
  await page.getByRole('radiogroup', { name: 'Figures or proportions' }).getByText('Proportions within limits').click();
  const row = (name: RegExp) => finding(page).getByRole('row', { name });
  await expect(row(/^mean ± 1 SD/)).toContainText(/\d+ of 48, [\d.]+\u00a0%.*68\.3\u00a0%/);
  await expect(row(/^mean ± 3 SD/)).toContainText('99.7');
  await pick(method(page).getByLabel('limits'), 'specification');
  await expect(finding(page)).toContainText('48 of 48 (100\u00a0%) lie from 7.50 to 8.50\u00a0mm');
  await method(page).getByLabel('lower limit').fill('8');
  await page.keyboard.press('Enter');
  await holds(method(page).getByLabel('limits'), 'limits');
  await expect(finding(page)).toContainText(/\d\d of 48 \([\d.]+\u00a0%\) lie/);
  const lower = picture(page).getByRole('slider', { name: 'Lower limit' });
  const grip = (await lower.locator('.grip').boundingBox())!;
  await page.mouse.move(grip.x + 6, grip.y + 10);
  await page.mouse.down();
  await page.mouse.move(grip.x - 90, grip.y + 10, { steps: 3 });
  await page.mouse.up();
  await expect.poll(async () => Number(await lower.getAttribute('aria-valuenow'))).toBeLessThan(7.95);
  await expect(page).toHaveURL(/shares\.lower=7\.\d+/);
});

test('a reading is moved for a moment: figures and picture follow, nothing is stored, and it is put back', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Shape');
  await expect(finding(page)).toContainText('Mean 8.019');
  await page.getByRole('button', { name: 'What if a reading changed?' }).click();
  const panel = page.getByRole('region', { name: 'What if a reading changed' });
  await expect(panel.getByLabel('Row of the reading')).toHaveValue('5');
  await panel.getByLabel('Its value').fill('9.87');
  await page.keyboard.press('Enter');
  await expect(panel.getByRole('row', { name: /^mean/ })).toContainText('8.0198.16');
  await expect(panel.getByRole('row', { name: /^median/ })).toContainText('7.9857.985');
  const grip = picture(page).getByRole('slider', { name: 'The moved reading' });
  await grip.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(panel.getByLabel('Its value')).toHaveValue('9.77');
  await panel.getByLabel('Row of the reading').fill('99');
  await page.keyboard.press('Enter');
  await expect(panel.getByRole('alert')).toContainText('Row “99” has no reading');
  await expect(page.getByRole('button', { name: /Keep as evidence/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Restore it' }).click();
  await expect(finding(page)).toContainText('Mean 8.019');
  await openStage(page, 'Readings');
  await expect(page.getByRole('grid')).toContainText('8.19');
  await stored(page);
});

test('figures are copied and saved in full, pictures as PNG and SVG with titles of one’s own', async ({ page }) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Shape');
  await page.getByRole('button', { name: 'Titles' }).click();
  await picture(page).getByLabel('Title', { exact: true }).fill('Week 46');
  await page.keyboard.press('Enter');
  await picture(page).getByLabel('Axis of readings').fill('thickness of tiles');
  await page.keyboard.press('Enter');
  await expect(picture(page).getByRole('heading', { name: 'Week 46' })).toBeVisible();
  const saved = async (form: string) => {
    await picture(page).getByRole('button', { name: 'Save' }).click();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: form }).click(),
    ]);
    const chunks: Buffer[] = [];
    for await (const chunk of await file.createReadStream()) chunks.push(chunk as Buffer);
    return { name: file.suggestedFilename(), bytes: Buffer.concat(chunks) };
  };
  const svg = await saved('as SVG');
  expect(svg.name).toBe('Week 46.svg');
  for (const words of ['Week 46', 'thickness of tiles', '>readings<']) expect(svg.bytes.toString()).toContain(words);
  const png = await saved('as PNG');
  expect(png.bytes.subarray(1, 4).toString()).toBe('PNG');
  await picture(page).getByRole('button', { name: 'Table' }).click();
  const table = page.getByRole('dialog', { name: 'Table of the Week 46' });
  await table.getByRole('button', { name: 'Copy as TSV' }).click();
  await expect
    .poll(() => page.evaluate(() => navigator.clipboard.readText()))
    .toMatch(/^from\tto below\treadings\r?\n7\.\d+\t7\.\d+\t\d/);
  await page.keyboard.press('Escape');
  await showPicture(page, 'Stem');
  expect((await saved('as SVG')).bytes.toString()).toContain('│');

  await page.getByRole('button', { name: 'All figures, with formulas' }).click();
  const dialog = page.getByRole('dialog', { name: 'All figures of thickness' });
  await expect(dialog).toContainText('√(Σ(x − mean)² / (n − 1))');
  await dialog.getByRole('button', { name: 'Copy as TSV' }).click();
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toMatch(/mean\t8\.019166666666\d+/);
});

for (const [what, text, words] of [
  ['one reading', 'x\n8.01', 'One reading: 8.010'],
  ['two readings', 'x\n8.01\n8.05', 'Mean 8.030'],
  ['equal readings', 'x\n8.1\n8.1\n8.1\n8.1', 'All readings are equal'],
  ['huge and tiny readings', 'x\n1e300\n1e-300\n-1e300\n5', 'Mean 0, standard deviation 8.1650'],
] as const) {
  test(`a column of ${what} has pictures as far as it goes`, async ({ page }) => {
    const errors: string[] = [];
    page.on('pageerror', (error) => errors.push(error.message));
    await studyOf(page, text);
    await openStage(page, 'Shape');
    await expect(finding(page)).toContainText(words);
    for (const name of ['Box', 'Stem', 'Steps', 'Dots', 'In order', 'Histogram']) {
      await showPicture(page, name);
      await expect(page.getByText('Drawing the picture …')).toHaveCount(0);
    }
    expect(errors).toEqual([]);
  });
}

test('a column without readings says so, and 200 levels show the first twelve', async ({ page }) => {
  const rows = Array.from({ length: 400 }, (_, i) => `car ${i % 200}\t${(8 + (i % 37) / 100).toFixed(2)}\tn/a`);
  await studyOf(page, ['car\tx\tempty', ...rows].join('\n'));
  await openStage(page, 'Shape');
  await pick(page.getByLabel('Split by'), { label: 'car' });
  await expect(finding(page)).toContainText('car has 200 groups with readings. Only the first 12 are shown.');
  await expect(canvas(page)).toHaveAccessibleName(/400 readings, 12 parts/);
  await openStage(page, 'Readings');
  await page.getByRole('columnheader', { name: /^empty/ }).click();
  await pick(page.getByLabel('Kind'), 'measure');
  await stored(page);
  await pick(page.getByLabel('Subject'), { label: 'empty' });
  await openStage(page, 'Shape');
  await expect(picture(page)).toContainText('empty has no readings (400 missing).');
  // The other pictures say so too, and stay in reach.
  await showPicture(page, 'Dots');
  await expect(picture(page)).toContainText('empty has no readings');
  await expect(finding(page)).toContainText('No figures can be calculated either.');
});

test('the definition of quartiles is one choice of the study: box and figures follow, and it can be undone', async ({
  page,
}) => {
  await studyOf(page, SKEWED);
  await openStage(page, 'Shape');
  const quartiles = finding(page).getByRole('row', { name: /^quartiles/ });
  await expect(quartiles).toContainText(/\d/);
  const before = await quartiles.textContent();
  await showPicture(page, 'Box');
  const chosen = method(page).getByLabel('definition of quartiles');
  // A page asks a thing once: the sentence of the box says it in words.
  await expect(chosen).toHaveCount(1);
  await pick(chosen, '6');
  await holds(chosen, '6');
  await expect(method(page)).toContainText('quartiles by linear interpolation, i/(n + 1) (type 6), whiskers');
  await expect(quartiles).not.toHaveText(before!);
  await page.reload();
  await holds(chosen, '6');
  await openStage(page, 'Readings');
  await page.getByRole('button', { name: 'Undo' }).click();
  await openStage(page, 'Shape');
  await expect(quartiles).toHaveText(before!);
});

test('columns stand side by side on a common axis', async ({ page }) => {
  await studyOf(page, TILES);
  await openStage(page, 'Shape');
  await pick(page.getByLabel('Split by'), { label: 'columns to compare' });
  await expect(page).toHaveURL(/beside=/);
  await expect(finding(page)).toContainText('The 2 columns have different units');
  await expect(finding(page)).toContainText('The common axis shows the numbers without conversion.');
  // Leaving the stage and coming back asks nothing again.
  await openStage(page, 'Fit');
  await settled(page);
  await openStage(page, 'Shape');
  await expect(page).toHaveURL(/beside=/);
  await showPicture(page, 'Box');
  await expect(canvas(page)).toHaveAccessibleName(/Box plot/);
  await page.keyboard.press('k');
  await expect(finding(page)).toContainText('Kept: box plot and description.');
});

test('the stage is worked by keys alone, in a narrow window too', async ({ page }) => {
  await studyOf(page, TILES);
  await page.keyboard.press('Escape');
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Shape' }).focus();
  await page.keyboard.press('Enter');
  await expect(finding(page)).toContainText('Mean 8.016');
  const pictures = page.getByRole('radiogroup', { name: 'Pictures' });
  await pictures.getByRole('radio', { checked: true }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await expect(pictures.getByRole('radio', { name: 'Steps' })).toBeChecked();
  await page.getByRole('button', { name: 'skewness', exact: true }).focus();
  await page.keyboard.press('Enter');
  const explained = page.getByRole('note').filter({ hasText: 'Above 0 if the upper tail is longer' });
  await expect(explained).toContainText('G1 = g1');
  await expect(explained).toContainText('standard error of the skewness');
  await page.keyboard.press('Enter');
  await expect(explained).toHaveCount(0);
  // Between stages by their numbers.
  await page.keyboard.press('3');
  await expect(page).toHaveURL(/\/fit/);
  await page.keyboard.press('2');
  await expect(page).toHaveURL(/\/shape/);
  // A narrow window: everything below one another, nothing wider than the page.
  await page.setViewportSize({ width: 620, height: 800 });
  await expect(canvas(page)).toBeVisible();
  // The picture follows the window a frame later.
  await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(620);
});

test('a worker that the browser cannot load, or ends, is said in words', async ({ page }) => {
  await page.route('**/analysis-worker-*.js', (route) => route.abort());
  await studyOf(page, TWELVE);
  await openStage(page, 'Shape');
  await expect(page.getByText('The browser could not finish this calculation')).toBeVisible();
});
