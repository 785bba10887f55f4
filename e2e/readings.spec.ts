import { closeSync, mkdtempSync, openSync, ftruncateSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { TWELVE, pick, expect, gridCell, newStudy, paste, stored, studyOf, test, holds, openFile } from './app.js';
import { createConnection } from 'mysql2/promise';

test('a pasted block is recognised, shown, corrected and only then stored', async ({ page }) => {
  await newStudy(page);
  await paste(page, 'thickness (mm);kiln\r\n7,91;north\r\n8,0l;south\r\n8,05;north\r\n');
  const panel = page.getByRole('region', { name: 'Readings to import' });
  await holds(panel.getByLabel('Separator'), 'semicolon');
  await holds(panel.getByLabel('Decimal mark'), 'comma');
  await holds(panel.getByLabel('Names'), 'row 1');
  await expect(panel).toContainText('Row 2 of thickness holds “8,0l”: perhaps a letter instead of a digit.');
  // The sentence is the control: another reading of the same text.
  await pick(panel.getByLabel('Decimal mark'), 'point');
  await expect(panel.getByRole('columnheader', { name: /thickness/ })).toContainText('label');
  await pick(panel.getByLabel('Decimal mark'), 'comma');
  await panel.getByRole('button', { name: 'Import 3 rows in 2 columns' }).click();
  await stored(page);
  await expect(page.getByText('2 readings, 1 not a number')).toBeVisible();
  await page.reload();
  await expect(gridCell(page, 2, 0)).toHaveText('8,0l');
  // What is wrong is listed with its row, and mended in the cell.
  await page.getByRole('button', { name: /Row 2 of thickness holds/ }).click();
  await page.keyboard.type('8,01');
  await page.keyboard.press('Enter');
  await expect(page.getByText('3 readings')).toBeVisible();
});

test('every key of a fast typist or a gauge arrives, at any speed', async ({ page }) => {
  await studyOf(page, TWELVE);
  await gridCell(page, 13, 0).click();
  for (const [i, delay] of [0, 0, 20, 50, 80].entries()) {
    await page.keyboard.type(`11.${i}5`, { delay });
    await page.keyboard.press('Enter');
  }
  for (let i = 0; i < 5; i++) await expect(gridCell(page, 13 + i, 0)).toHaveText(`11.${i}5`);
  await stored(page);
  await expect(page.getByText('17 readings')).toBeVisible();
});

test('edits are undone and redone with the keys, and stand in the record', async ({ page }) => {
  await studyOf(page, TWELVE);
  await gridCell(page, 1, 0).click();
  await page.keyboard.type('9.99');
  await page.keyboard.press('Enter');
  // At once, before the server can have answered.
  await page.keyboard.press('Control+z');
  await expect(gridCell(page, 1, 0)).toHaveText('7.80');
  await stored(page);
  await page.keyboard.press('Control+Shift+z');
  await expect(gridCell(page, 1, 0)).toHaveText('9.99');
  await page.getByRole('button', { name: 'Record' }).click();
  const record = page.getByRole('dialog', { name: 'Record' });
  await expect(record).toContainText('Row 1 of thickness: “7.80” became “9.99”');
  await expect(record).toContainText('Undone 2');
});

test('the record is checked, and a study that was altered in the database is marked on the page and on the sheet', async ({
  page,
  app,
}) => {
  await studyOf(page, TWELVE);
  const id = /studies\/([^/]+)/.exec(page.url())![1]!;
  await page.getByRole('button', { name: 'Record' }).click();
  const record = page.getByRole('dialog', { name: 'Record' });
  await expect(record).toContainText(/Head of the record: [0-9a-f]{64}/);
  await record.getByRole('button', { name: 'Check the record' }).click();
  await expect(record).toContainText('Verified: 1 entry in an unbroken chain');
  const owner = await createConnection(app.database.migrationUrl);
  await owner.query("UPDATE changes SET who = 'somebody' WHERE study_id = ?", [id]);
  await owner.end();
  await record.getByRole('button', { name: 'Check the record' }).click();
  await expect(record.getByRole('alert')).toContainText('Not verified: entry 1 (change 1) was altered.');
  await page.goto(`/studies/${id}/sheet`);
  await expect(page.getByRole('alert')).toContainText(
    'does not agree with its record: entry 1 (change 1) was altered.',
  );
  await expect(page.getByRole('article', { name: 'Report' })).toContainText('Not verified This study does not agree');
});

test('keyboard only: move, write, clear, and leave the table', async ({ page }) => {
  await studyOf(page, 'a\tb\n1.5\t2\n3.5\t4\n5.5\t6');
  await gridCell(page, 1, 0).click();
  await page.keyboard.press('Tab');
  await page.keyboard.type('7');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Delete');
  await expect(gridCell(page, 1, 1)).toHaveText('7');
  await expect(gridCell(page, 2, 1)).toHaveText('');
  await expect(page.getByRole('textbox', { name: 'b, row 2' })).toBeFocused();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('textbox', { name: 'b, row 2' })).not.toBeFocused();
});

test('markup in names and cells is shown as text and never runs', async ({ page }) => {
  const dialogs: string[] = [];
  page.on('dialog', (dialog) => {
    dialogs.push(dialog.message());
    void dialog.dismiss();
  });
  await studyOf(page, '<img src=x onerror=alert(1)>\tkiln\n8.01\t<script>alert(2)</script>\n8.02\tsouth\n8.03\tsouth');
  await expect(gridCell(page, 1, 1)).toHaveText('<script>alert(2)</script>');
  await expect(page.getByRole('columnheader', { name: /<img src=x onerror=alert\(1\)>/ })).toBeVisible();
  expect(await page.locator('img').count()).toBe(0);
  expect(dialogs).toEqual([]);
});

for (const [what, text, said] of [
  ['an empty paste', ' ', 'The text is empty or has only column names.'],
  ['a cell of 1 MB', `x\n8.01\n${'8'.repeat(1_048_576)}`, 'a cell of 1048576 characters; at most 1000 are allowed'],
]) {
  test(`${what} is refused with the reason, and nothing is stored`, async ({ page }) => {
    await newStudy(page);
    await paste(page, text!);
    await expect(page.getByRole('alert')).toContainText(said!);
    await expect(page.getByRole('button', { name: 'Import the readings' })).toBeDisabled();
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByRole('heading', { name: 'Paste a column of readings.' })).toBeVisible();
  });
}

test('files: a CSV opens, one of 200 MB is refused with the limit named, a picture is no text', async ({ page }) => {
  const dir = mkdtempSync(join(tmpdir(), 'verdict-files-'));
  const file = (name: string) => join(dir, name);
  writeFileSync(file('small.csv'), '\ufeffforce,N\r\n1210,1\r\n1198,2\r\n');
  writeFileSync(file('picture.csv'), Buffer.from([0x89, 0x50, 0, 0, 0, 1]));
  const large = openSync(file('large.csv'), 'w');
  ftruncateSync(large, 200 * 1024 * 1024);
  closeSync(large);
  await newStudy(page);
  await openFile(page, 'Open a file', file('large.csv'));
  await expect(page.getByRole('alert')).toContainText('large.csv has 200 MB; files may have at most 60 MB.');
  await openFile(page, 'Open a file', file('picture.csv'));
  await expect(page.getByRole('alert')).toContainText('is not a text file');
  await openFile(page, 'Open a file', file('small.csv'));
  await expect(page.getByRole('button', { name: 'Import 2 rows in 2 columns' })).toBeVisible();
  rmSync(dir, { recursive: true });
});

test('100 000 readings are taken, scrolled to their end, edited and plotted', async ({ page }) => {
  test.setTimeout(120_000);
  const text = Array.from({ length: 100_000 }, (_, i) =>
    (8 + Math.sin(i * 12.9898) * Math.cos(i * 78.233) * 0.3).toFixed(3),
  ).join('\n');
  await studyOf(page, `thickness (mm)\n${text}`);
  await expect(page.getByText('100\u202f000 readings')).toBeVisible();
  await gridCell(page, 1, 0).click();
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageDown');
  await page.getByRole('grid').evaluate((grid) => grid.closest('.scroller')!.scrollTo(0, 1e9));
  await gridCell(page, 100_000, 0).click();
  await page.keyboard.type('8.125');
  await page.keyboard.press('Enter');
  await expect(gridCell(page, 100_000, 0)).toHaveText('8.125');
  expect(await page.getByRole('gridcell').count()).toBeLessThan(1000);
  await stored(page);
  await page.goto(page.url().replace(/readings.*/, 'fit?plot.replicates=199&test.replicates=199'));
  await expect(page.getByRole('img', { name: /Normal probability plot/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Finding' })).toContainText('normal distribution');
});

test('the column’s card changes name, unit, kind, resolution and limits, and refuses limits that cross', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await page.getByLabel('Column name').fill('depth');
  await page.getByLabel('Column name').press('Enter');
  await page.getByLabel('Lower limit').fill('7.5');
  await page.getByLabel('Lower limit').press('Enter');
  await page.getByLabel('Upper limit').fill('7');
  await page.getByLabel('Upper limit').press('Enter');
  await expect(page.getByRole('alert')).toContainText('The lower limit (7.5) must be below the upper limit (7).');
  await page.getByLabel('Upper limit').fill('8.5');
  await page.getByLabel('Upper limit').press('Enter');
  await page.getByLabel('Resolution').fill('coarse');
  await page.getByLabel('Resolution').press('Enter');
  await expect(page.getByRole('alert')).toContainText('must be a number');
  await page.getByLabel('Resolution').fill('0.05');
  await page.getByLabel('Resolution').press('Enter');
  await stored(page);
  await page.reload();
  await expect(page.getByRole('columnheader', { name: /depth/ })).toContainText('mm · 0.05');
  await expect(page.getByLabel('Upper limit')).toHaveValue('8.5');
});
