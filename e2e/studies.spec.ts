import type { Page, Response } from '@playwright/test';
import type { StudyFile } from '@verdict/contract';
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { TWELVE, expect, gridCell, openStage, settled, stored, studyOf, test, openFile } from './app.js';

/** Keeps the histogram and the figures of twelve readings. */
async function keepShape(page: Page): Promise<void> {
  await openStage(page, 'Shape');
  await expect(page.getByRole('img', { name: /^Histogram of thickness/ })).toBeVisible();
  await expect(page.getByText('Mean 8.019')).toBeVisible();
  await page.keyboard.press('k');
  await expect(page.getByText('Kept: histogram and description.')).toBeVisible();
}

test('a study is named in place, deleted to the bin and restored', async ({ page }) => {
  await studyOf(page, TWELVE);
  const name = `depth ${Date.now()}`;
  await page.getByLabel('Name of the study').fill(name);
  await page.getByLabel('Name of the study').press('Enter');
  await stored(page);
  await page.goto('/');
  const row = page.getByRole('row', { name: new RegExp(name) });
  await expect(row).toContainText('thickness');
  await expect(row).toContainText('12');
  await page.getByRole('button', { name: `Delete ${name}` }).click();
  await expect(row).toHaveCount(0);
  await page.getByRole('button', { name: 'Bin', exact: true }).click();
  await page.getByRole('button', { name: `Restore ${name}` }).click();
  await expect(row).toHaveCount(0);
  await page.getByRole('button', { name: 'Back to the studies' }).click();
  await page.getByRole('link', { name }).click();
  await expect(page.getByRole('grid')).toBeVisible();
});

test('a verdict rests on answered cautions, is put on record, listed, printed on A4 pages, and reopened with a reason', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  const name = `verdict ${Date.now()}`;
  await page.getByLabel('Name of the study').fill(name);
  await page.getByLabel('Name of the study').press('Enter');
  await keepShape(page);
  await openStage(page, 'Fit');
  await settled(page);
  await page.keyboard.press('k');
  await expect(page.getByText('Kept: probability plot and normality test.')).toBeVisible();
  await openStage(page, 'Verdict');
  const pieces = page.getByRole('article');
  await expect(pieces).toHaveCount(4);
  await expect(pieces.nth(0).getByRole('img', { name: 'Histogram of thickness' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Analyses viewed' })).toContainText(/\d+ tests were viewed/);
  await page.getByLabel('Question', { exact: true }).fill('May the thickness be treated as normal?');
  await page.getByLabel('Question', { exact: true }).blur();
  const record = page.getByRole('button', { name: /Record the verdict/ });
  await record.click();
  await expect(page.getByRole('alert')).toContainText('Choose a decision first.');
  await page.getByRole('radiogroup', { name: 'Decision' }).getByText('treat as normal', { exact: true }).click();
  await record.click();
  await expect(page.getByRole('alert')).toContainText('Enter the reason.');
  await page.getByLabel('Reason for the decision').fill('Straight plot, no reading outside the band.');
  // Arranged for the sheet: one leads, one is left out, two change places.
  await pieces.nth(3).getByRole('button', { name: 'Make it the headline' }).click();
  await expect(pieces.nth(3)).toContainText('headline of the report');
  await page.getByRole('button', { name: 'Move Histogram of thickness down' }).click();
  await expect(pieces.nth(0)).toContainText('Description of thickness');
  await pieces.nth(1).getByRole('button', { name: 'Exclude from the report' }).click();
  await expect(pieces).toHaveCount(3);
  // What the evidence warns of is answered, or left open in words.
  const answers = page.getByLabel(/^Answer to caution/);
  for (let i = 0; i < (await answers.count()); i++) {
    await answers.nth(i).fill('known, and of no weight here');
    await answers.nth(i).press('Enter');
  }
  await expect(page.getByLabel('Why it stays open')).toHaveCount(0);
  await record.click();
  await expect(page.getByRole('region', { name: 'Decision on record' })).toContainText('treat as normal');

  await page.getByRole('link', { name: 'Open the report' }).click();
  const sheet = page.getByRole('article', { name: 'Report' });
  await expect(sheet).toContainText('Straight plot, no reading outside the band.');
  await expect(sheet).toContainText('May the thickness be treated as normal?');
  await expect(sheet).toContainText('12 readings used, none set aside. Significance level 0.05.');
  await expect(sheet).toContainText('No evidence against');
  await expect(sheet).toContainText('Kept, but excluded from this report:');
  await expect(page.getByText(/about \d+ pages?/)).toBeVisible();
  await expect(sheet.getByRole('img', { name: 'Probability plot of thickness' })).toBeVisible();
  // Also where the page is opened at its own address.
  await page.reload();
  await expect(sheet.getByRole('img', { name: 'Probability plot of thickness' })).toBeVisible();
  await expect(page.getByText(/about \d+ pages?/)).toBeVisible();
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(pdf.match(/\/Type\s*\/Page\b/g)!.length).toBeLessThanOrEqual(3);
  expect(pdf).toMatch(/\/MediaBox\s*\[\s*0 0 59[45](\.\d+)? 84[12](\.\d+)?\s*\]/);

  // Closed to changes everywhere.
  await openStage(page, 'Readings');
  await expect(page.getByText('decided: reopen in Verdict to make changes')).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('row', { name: new RegExp(name) })).toContainText('decided: treat as normal');
  await page.getByRole('link', { name }).click();
  await openStage(page, 'Verdict');
  await page.getByRole('button', { name: 'Reopen …' }).click();
  await page.getByLabel('Reason for reopening').fill('Gauge found worn.');
  await page.getByRole('button', { name: 'Reopen', exact: true }).click();
  await expect(page.getByText(/Earlier: treat as normal.*Gauge found worn\./)).toBeVisible();
  await expect(record).toBeVisible();
});

test('evidence whose readings have changed is marked and run again in one go, the old kept; the sheet is saved in every form', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await keepShape(page);
  await openStage(page, 'Readings');
  await gridCell(page, 1, 0).click();
  await page.keyboard.type('7.70');
  await page.keyboard.press('Enter');
  await stored(page);
  await openStage(page, 'Verdict');
  const changed = page.getByText('Data changed since this was kept');
  await expect(changed).toHaveCount(2);
  await page.getByRole('button', { name: 'Run again', exact: true }).first().click();
  await expect(changed).toHaveCount(1);
  await page.getByText('Excluded from the report (1)').click();
  await expect(page.getByRole('article', { name: /^Excluded: Histogram/ })).toContainText('run again since');
  await page.getByRole('link', { name: 'Open the report' }).click();
  const sheet = page.getByRole('article', { name: 'Report' });
  await expect(sheet).toContainText('The data changed since change 1');
  await page.getByText('with the table of readings').click();
  await expect(sheet.getByRole('row')).toHaveCount(13);
  await expect(page.getByText(/about \d+ pages?/)).toBeVisible();
  const saved = async (entry: RegExp) => {
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: entry }).click(),
    ]);
    return readFileSync((await download.path())!);
  };
  const html = (await saved(/\.html/)).toString();
  expect(html).toContain('data:font/woff2;base64,');
  expect(html).toContain('<svg xmlns');
  expect(html).toMatch(/\d{4}-\d\d-\d\d \d\d:\d\d UTC/);
  expect(html).not.toMatch(/<script|(?:src|href)="(?!data:)/);
  const data = JSON.parse((await saved(/\.json/)).toString()) as { evidence: unknown[] };
  expect(data.evidence).toHaveLength(2);
  expect((await saved(/\.docx/)).subarray(0, 2).toString()).toBe('PK');
});

test('a study file with an altered result opens, and the verdict and the sheet say which result came out differently', async ({
  page,
  app,
}) => {
  await studyOf(page, TWELVE);
  await keepShape(page);
  const id = /studies\/([^/]+)/.exec(page.url())![1]!;
  const file = (await (await fetch(`${app.url}api/studies/${id}/saved`)).json()) as StudyFile;
  const evidence = file.evidence.map((piece) =>
    piece.analysis === 'histogram' ? { ...piece, result: { ...(piece.result as object), n: 11 } } : piece,
  );
  await page.goto('/');
  const altered = Buffer.from(JSON.stringify({ ...file, evidence }));
  await openFile(page, 'Open a file', { name: 'a.json', mimeType: 'application/json', buffer: altered });
  await openStage(page, 'Verdict');
  await expect(page.getByText(/the result differs/)).toHaveCount(1);
  await expect(page.getByText(/recomputed: the same/)).toHaveCount(1);
  await expect(page.getByRole('img', { name: 'Histogram of thickness' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Open the report' }).click();
  const sheet = page.getByRole('article', { name: 'Report' });
  await expect(sheet.getByText(/the result differs/)).toHaveCount(1);
  await expect(sheet.getByRole('img')).toHaveCount(0);
});

test('edits made while the database is away are kept in the page and sent when it is back', async ({ page, app }) => {
  await studyOf(page, TWELVE);
  const bringBack = await app.loseDatabase();
  await page.locator('[id="cell-1-0"]').click();
  await page.keyboard.type('8.55');
  await page.keyboard.press('Enter');
  await page.keyboard.type('8.66');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('The database cannot be reached.');
  await expect(page.getByRole('alert')).toContainText('2 changes wait on this page');
  await expect(page.locator('[id="cell-2-0"]')).toHaveText('8.66');
  await bringBack();
  await stored(page);
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.reload();
  await expect(page.locator('[id="cell-1-0"]')).toHaveText('8.55');
  await expect(page.locator('[id="cell-2-0"]')).toHaveText('8.66');
});

test('nine windows stay in step, more than a browser opens connections, also after the first one is closed', async ({
  page,
  context,
}) => {
  await studyOf(page, TWELVE);
  const others = await Promise.all(Array.from({ length: 8 }, () => context.newPage()));
  for (const other of others) {
    await other.goto(page.url());
    await expect(other.getByRole('grid')).toBeVisible();
  }
  const write = async (from: Page, text: string) => {
    await gridCell(from, 1, 0).click();
    await from.keyboard.type(text);
    await from.keyboard.press('Enter');
    await stored(from);
  };
  await write(page, '8.11');
  for (const other of others) await expect(gridCell(other, 1, 0)).toHaveText('8.11');
  await page.close();
  await write(others[0]!, '8.22');
  for (const other of others) await expect(gridCell(other, 1, 0)).toHaveText('8.22');
});

test('two windows stay in step, and the second writer of one cell is asked', async ({ page, context }) => {
  await studyOf(page, TWELVE);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole('grid')).toBeVisible();
  // What one does, the other shows.
  await page.getByLabel('Level', { exact: true }).fill('0.01');
  await page.getByLabel('Level', { exact: true }).press('Enter');
  await expect(other.getByLabel('Level', { exact: true })).toHaveValue('0.01');
  await gridCell(page, 2, 0).click();
  await page.keyboard.type('7.77');
  await page.keyboard.press('Enter');
  await expect(gridCell(other, 2, 0)).toHaveText('7.77');
  // Both at one cell: the other is still typing when the first has written.
  await gridCell(other, 1, 0).click();
  await other.keyboard.type('8.88');
  await gridCell(page, 1, 0).click();
  await page.keyboard.type('9.99');
  await page.keyboard.press('Enter');
  await stored(page);
  await expect(other.getByText('saved, change 4')).toBeVisible();
  await other.keyboard.press('Enter');
  const alert = other.getByRole('alert');
  await expect(alert).toContainText(
    'While you were typing “8.88”, row 1 of thickness became “9.99” in another window.',
  );
  await expect(gridCell(other, 1, 0)).toHaveText('9.99');
  await alert.getByRole('button', { name: 'Write mine' }).click();
  await expect(gridCell(page, 1, 0)).toHaveText('8.88');
  // Undone in one, undone in both.
  await other.keyboard.press('Control+z');
  await expect(gridCell(page, 1, 0)).toHaveText('9.99');
});

test('evidence kept or annotated in one window appears in the other, which says that the study has changed', async ({
  page,
  context,
}) => {
  await studyOf(page, TWELVE);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole('grid')).toBeVisible();
  await openStage(page, 'Shape');
  await page.getByRole('button', { name: /Keep as evidence/ }).click();
  const opener = other.getByRole('button', { name: /^Evidence/ });
  await expect(opener).toContainText('2');
  await gridCell(other, 1, 0).click();
  await other.keyboard.type('9.99');
  await other.keyboard.press('Enter');
  await stored(other);
  await page.getByRole('button', { name: /^Evidence/ }).click();
  const drawer = page.getByRole('dialog', { name: 'Evidence' });
  await expect(drawer.getByText('; the study is at change 2 now')).toHaveCount(2);
  await drawer.getByLabel('Note on the histogram').fill('second gauge');
  await drawer.getByLabel('Note on the histogram').press('Enter');
  await opener.click();
  await expect(other.getByLabel('Note on the histogram')).toHaveValue('second gauge');
});

test('an address that leads nowhere and a study that is not there say so', async ({ page }) => {
  await page.goto('/no/such/page');
  await expect(page.getByRole('heading', { name: 'There is no page at this address.' })).toBeVisible();
  await page.goto('/studies/00000000-0000/fit');
  await expect(page.getByRole('heading', { name: 'The study could not be opened.' })).toBeVisible();
  await expect(page.getByText('This study does not exist')).toBeVisible();
});

test('the list of studies carries at most 160 KB of script and style, compressed', async ({ page }) => {
  const sizes: Promise<number>[] = [];
  const weigh = (response: Response) => {
    if (/\.(js|css)$/.test(response.url())) sizes.push(response.body().then((body) => gzipSync(body).length));
  };
  page.on('response', weigh);
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Tile thickness/ })).toBeVisible();
  await page.waitForLoadState('networkidle');
  // What comes later is not weighed: the test may end in the middle of it.
  page.off('response', weigh);
  const bytes = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
  expect(bytes).toBeGreaterThan(20 * 1024);
  expect(bytes / 1024).toBeLessThan(160);
  // What it does not carry comes when it is asked for.
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
});

test('nothing on the way breaks the content security policy or throws', async ({ page }) => {
  const said: string[] = [];
  page.on('console', (message) => message.type() === 'error' && said.push(message.text()));
  page.on('pageerror', (error) => said.push(error.message));
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  await openStage(page, 'Verdict');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  expect(said).toEqual([]);
});
