import type { Page } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  TWELVE,
  expect,
  gridCell,
  newStudy,
  openStage,
  paste,
  stored,
  studyOf,
  test,
  pick,
  holds,
  openFile,
} from './app.js';

const SMALL = 'thickness (mm)\tkiln\n8.01\tnorth\n8.02\tsouth\n8.05\tnorth\n7.99\tsouth';

/** Chooses an entry of a menu of the table by keys alone. */
async function choose(page: Page, menu: string, entry: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: menu, exact: true }).focus();
  await page.keyboard.press('Enter');
  const item = page.getByRole('menuitem', { name: entry });
  await expect(item).toBeVisible();
  for (let i = 0; i < 14 && !(await item.evaluate((node) => node === document.activeElement)); i++) {
    await page.keyboard.press('ArrowDown');
  }
  await expect(item).toBeFocused();
  await page.keyboard.press('Enter');
}
const column = async (page: Page, j: number, rows: number) =>
  Promise.all(Array.from({ length: rows }, (_, i) => gridCell(page, i + 1, j).textContent()));

test('a range is copied, pasted, filled down and emptied with the keys, and each is one undo', async ({ page }) => {
  await studyOf(page, SMALL);
  await gridCell(page, 1, 0).click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowRight');
  // What is chosen is said to who does not see it.
  await expect(page.getByRole('gridcell', { selected: true })).toHaveCount(4);
  await expect(page.getByRole('grid', { name: 'Readings' })).toHaveAttribute('aria-rowcount', '5');
  await page.keyboard.press('Control+c');
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('8.01\tnorth\r\n8.02\tsouth');
  // Copied here, it goes in at once, and the table grows.
  await gridCell(page, 4, 0).click();
  await page.keyboard.press('Control+v');
  await expect(gridCell(page, 5, 1)).toHaveText('south');
  expect(await column(page, 0, 5)).toEqual(['8.01', '8.02', '8.05', '8.01', '8.02']);
  await gridCell(page, 1, 0).click();
  await page.keyboard.press('Control+Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  expect(await column(page, 0, 5)).toEqual(['8.01', '8.01', '8.01', '8.01', '8.01']);
  await page.keyboard.press('Delete');
  expect(await column(page, 0, 5)).toEqual(['', '', '', '', '']);
  await stored(page);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect(gridCell(page, 4, 0)).toHaveText('7.99');
  await expect(page.getByRole('heading', { name: '4 rows, 2 columns' })).toBeVisible();
});

test('a foreign block pasted into the middle is seen first and written over the cells from the cursor on', async ({
  page,
}) => {
  await studyOf(page, SMALL);
  await gridCell(page, 4, 0).click();
  await paste(page, '7.50\teast\n7.60\twest\n7.70\teast');
  const panel = page.getByRole('region', { name: 'Readings to import' });
  await holds(panel.getByLabel('Where they go'), 'over');
  await expect(panel).toContainText(
    'Overwrites cells from row 4 of thickness on, 2 columns wide; the table will have 6 rows.',
  );
  await page.keyboard.press('Enter');
  await expect(gridCell(page, 6, 1)).toHaveText('east');
  expect(await column(page, 0, 6)).toEqual(['8.01', '8.02', '8.05', '7.50', '7.60', '7.70']);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: '4 rows, 2 columns' })).toBeVisible();
});

test('the next file goes below the columns of its names, decimal commas rewritten', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Glaze batches/ }).click();
  await expect(page.getByRole('heading', { name: '60 rows, 11 columns' })).toBeVisible();
  // The troubles of the demo are named with their place.
  await page.getByRole('columnheader', { name: /^density/ }).click();
  await expect(
    page.getByRole('button', { name: 'Row 23 of density holds “1.8l9”: perhaps a letter instead of a digit.' }),
  ).toBeVisible();
  await openFile(page, 'Open a file', fileURLToPath(new URL('../demo/glaze-batches-comma.csv', import.meta.url)));
  await expect(
    page.getByText('11 of 11 columns are added below those of the same name, from row 61 on.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Import 12 rows in 11 columns' }).click();
  await expect(page.getByText('72 readings')).toBeVisible();
  await stored(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('60 readings')).toBeVisible();
});

test('a file dropped on the page is read: a data package with its units and limits', async ({ page }) => {
  await newStudy(page);
  const descriptor = {
    resources: [
      {
        path: 'r.csv',
        schema: { fields: [{ name: 'force', type: 'number', unit: 'N', constraints: { minimum: 1100 } }] },
      },
    ],
  };
  const files = zipSync({
    'datapackage.json': strToU8(JSON.stringify(descriptor)),
    'r.csv': strToU8('force\n1210.5\n1198.0\n1305.5\n'),
  });
  const transfer = await page.evaluateHandle(
    (bytes) => {
      const data = new DataTransfer();
      data.items.add(new File([new Uint8Array(bytes)], 'forces.zip'));
      return data;
    },
    [...files],
  );
  await page
    .getByRole('heading', { name: 'Paste a column of readings.' })
    .dispatchEvent('drop', { dataTransfer: transfer });
  await page.getByRole('button', { name: 'Import 3 rows in 1 column' }).click();
  await expect(page.getByRole('columnheader', { name: /force/ })).toContainText('N · 0.1');
  await expect(page.getByLabel('Lower limit')).toHaveValue('1100');
});

test('rows go in and out and come back, with what they held', async ({ page }) => {
  await studyOf(page, SMALL);
  await gridCell(page, 2, 0).click();
  await choose(page, 'Rows', 'insert 1 above');
  await expect(gridCell(page, 2, 0)).toHaveText('');
  await expect(gridCell(page, 3, 0)).toHaveText('8.02');
  await gridCell(page, 3, 0).click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Alt+Delete');
  expect(await column(page, 0, 3)).toEqual(['8.01', '', '7.99']);
  await stored(page);
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByRole('dialog', { name: 'Record' })).toContainText(
    'Removed rows 3 to 4; their contents stay in the record',
  );
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(gridCell(page, 4, 0)).toHaveText('8.05');
});

test('columns are moved, duplicated and removed by keys alone', async ({ page }) => {
  await studyOf(page, SMALL);
  await gridCell(page, 1, 0).click();
  await choose(page, 'Column', 'move thickness right');
  await expect(page.getByRole('columnheader').nth(1)).toContainText('kiln');
  await choose(page, 'Column', 'duplicate thickness');
  await expect(page.getByRole('columnheader', { name: /thickness \(2\)/ })).toBeVisible();
  await page.getByRole('columnheader', { name: /thickness \(2\)/ }).click();
  await choose(page, 'Column', 'remove thickness (2)');
  await expect(page.getByRole('heading', { name: '4 rows, 2 columns' })).toBeVisible();
  await stored(page);
});

test('a reading “n/a” is missing, “<0.05” censored: kept as written, counted, said', async ({ page }) => {
  await studyOf(page, 'residue (%)\n0.31\nn/a\n<0.05\n0.28\n-\n0.35');
  await expect(page.getByText('3 readings, 2 missing, 1 censored')).toBeVisible();
  await expect(
    page.getByRole('button', { name: 'Row 3 of residue holds “<0.05”: a reading below a detection limit.' }),
  ).toBeVisible();
  await openStage(page, 'Fit');
  await expect(page.getByText('4 readings (1 below 0.05) plotted against a normal')).toBeVisible();
});

test('the card takes target and claims, and says the order they must have', async ({ page }) => {
  await studyOf(page, TWELVE);
  const set = async (label: string, text: string) => {
    await page.getByLabel(label, { exact: true }).fill(text);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  await set('Lower limit', '7.5');
  await set('Upper limit', '8.5');
  await set('Target', '9');
  await expect(page.getByRole('alert')).toContainText('The target (9) must be below the upper limit (8.5).');
  await set('Target', '8');
  await set('Claimed mean', '8.02');
  await set('Claimed SD', '0');
  await expect(page.getByRole('alert')).toContainText('The claimed SD must be a number above 0.');
  await set('Claimed SD', '0.1');
  await stored(page);
  await page.reload();
  await expect(page.getByLabel('Target')).toHaveValue('8');
  await expect(page.getByLabel('Claimed mean')).toHaveValue('8.02');
});

test('levels are counted, merged where only the spelling differs, and ordered; the cells stay as written', async ({
  page,
}) => {
  await studyOf(page, 'kiln\tx\nkiln A\t1.5\nKiln a \t2.5\nkiln B\t3.5\nkiln A\t4.5');
  await page.getByRole('columnheader', { name: /^kiln/ }).click();
  const levels = page.getByRole('region', { name: 'Labels' });
  await expect(levels).toContainText('kiln A and “Kiln a ” differ only in spaces or case.');
  await levels.getByRole('button', { name: 'Treat as kiln A' }).click();
  await expect(levels.getByRole('row', { name: /kiln A/ })).toContainText('3');
  await levels.getByRole('button', { name: 'Move kiln B up' }).click();
  await expect(levels.getByRole('row').first()).toContainText('kiln B');
  await expect(gridCell(page, 2, 0)).toHaveText('Kiln a ');
});

test('a pasted tally is offered as one, and its values become statistic', async ({ page }) => {
  await newStudy(page);
  await paste(page, 'pinholes\ttiles\n0\t3\n1\t7\n2\t5\n3\t1');
  const panel = page.getByRole('region', { name: 'Readings to import' });
  await holds(panel.getByLabel('Meaning'), 'true');
  await panel.getByRole('button', { name: /^Import/ }).click();
  await expect(page.getByRole('main').or(page.locator('.bar')).getByText('pinholes').first()).toBeVisible();
  await expect(page.getByText('16 readings')).toBeVisible();
});

test('a block of lines pasted into the name of the study is offered to the readings', async ({ page }) => {
  await newStudy(page);
  const name = page.getByLabel('Name of the study');
  await name.fill('Glaze trial');
  await name.press('Enter');
  await expect(name).not.toBeFocused();
  await name.focus();
  await name.evaluate((field) => {
    const data = new DataTransfer();
    data.setData('text/plain', '8.01\n8.05\n7.98');
    field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(page.getByRole('region', { name: 'Readings to import' })).toBeVisible();
  await expect(name).toHaveValue('Glaze trial');
});

test('values with frequencies are counted out', async ({ page }) => {
  await studyOf(page, 'pinholes\ttiles\n0.5\t3\n1.5\t2\n2.5\t1\n3.5\t1\n4.5\t2\n5.5\t1\n6.5\t3');
  await page.getByRole('columnheader', { name: /^tiles/ }).click();
  await pick(page.getByLabel('Kind'), 'count');
  await page.getByRole('columnheader', { name: /^pinholes/ }).click();
  await pick(page.getByLabel('Frequencies'), { label: 'as many readings as tiles states' });
  await expect(page.getByText('13 readings', { exact: true })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Summary' })).toContainText('13');
  await page.getByRole('columnheader', { name: /^tiles/ }).click();
  await expect(page.getByText('number of times each value of pinholes occurred')).toBeVisible();
});

test('a range of readings is set aside with one of the earlier reasons, and put back', async ({ page }) => {
  await studyOf(page, TWELVE);
  const dialog = page.getByRole('dialog');
  await gridCell(page, 1, 0).click();
  await page.keyboard.press('Alt+x');
  await dialog.getByLabel('Reason').fill('caliper not closed');
  await page.keyboard.press('Enter');
  await expect(page.getByText('11 readings, 1 set aside')).toBeVisible();
  await gridCell(page, 3, 0).click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.getByRole('button', { name: 'Set 2 readings aside …' }).click();
  await dialog.getByRole('button', { name: 'caliper not closed' }).click();
  await dialog.getByRole('button', { name: 'Set aside' }).click();
  await expect(page.getByText('9 readings, 3 set aside')).toBeVisible();
  await choose(page, 'Rows', 'restore the chosen readings');
  await expect(page.getByText('11 readings, 1 set aside')).toBeVisible();
});

test('a formula offers names, points at its fault, follows its columns and can be frozen', async ({ page }) => {
  await studyOf(page, 'breaking force (N)\tarea\n1210\t2\n1198\t0\n1305\t5');
  await choose(page, 'New column', 'from a formula');
  const field = page.getByRole('combobox', { name: 'Formula' });
  await expect(field).toBeFocused();
  await page.keyboard.type('brea');
  await expect(page.getByRole('option', { name: 'breaking force column' })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.type(' / (area');
  await expect(page.getByRole('alert')).toContainText('(character 25)');
  await page.keyboard.type(')');
  await expect(page.getByText('1 row has no value although all inputs are present, first in row 2.')).toBeVisible();
  await page.getByLabel('Name of the column').fill('pressure');
  await page.getByRole('button', { name: 'Add the column' }).click();
  await expect(gridCell(page, 1, 2)).toHaveText('605');
  await expect(page.getByRole('columnheader', { name: /pressure/ })).toContainText('= [breaking force] / (area)');
  // It follows: a new value in its source, a new name.
  await gridCell(page, 1, 1).click();
  await page.keyboard.type('4');
  await page.keyboard.press('Enter');
  await expect(gridCell(page, 1, 2)).toHaveText('302.5');
  await gridCell(page, 1, 2).click();
  await page.keyboard.type('7');
  await expect(gridCell(page, 1, 2)).toHaveText('302.5');
  await page.getByRole('button', { name: 'Freeze to plain values' }).click();
  await gridCell(page, 1, 1).click();
  await page.keyboard.type('5');
  await page.keyboard.press('Enter');
  await expect(gridCell(page, 1, 2)).toHaveText('302.5');
  await stored(page);
});

test('standard scores say their divisor, go into the analyses, and hold their source in the table', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await choose(page, 'New column', 'standard scores');
  await pick(page.getByLabel('Mean and SD'), 'population');
  await page.getByRole('button', { name: 'Add the column' }).click();
  await expect(page.getByRole('columnheader', { name: /score of thickness/ })).toContainText(
    'standard score of thickness, n',
  );
  await page.getByRole('columnheader', { name: /^thickness/ }).click();
  await choose(page, 'Column', 'remove thickness');
  await expect(page.getByRole('alert')).toContainText(
    'score of thickness depends on thickness. Freeze or remove score of thickness first.',
  );
  await pick(page.getByLabel('Subject'), { label: 'score of thickness' });
  await stored(page);
  await openStage(page, 'Fit');
  await page.getByRole('button', { name: /Keep as evidence/ }).click();
  await page.getByRole('button', { name: /^Evidence/ }).click();
  await page.getByRole('button', { name: 'Recompute' }).first().click();
  await expect(page.getByText('the same, bit for bit').first()).toBeVisible();
});

test('made-up values come from their seed, and the parameters are checked', async ({ page }) => {
  await newStudy(page);
  await page.getByRole('button', { name: 'Simulate readings' }).click();
  const panel = page.getByRole('region', { name: 'Derived column' });
  await panel.getByLabel('Number of values').fill('30');
  await panel.getByLabel('standard deviation', { exact: true }).fill('0');
  await expect(panel.getByRole('alert')).toContainText('The standard deviation is a number above 0, not 0.');
  await panel.getByLabel('standard deviation', { exact: true }).fill('0.1');
  await panel.getByLabel('mean', { exact: true }).fill('8');
  await panel.getByLabel('Step').fill('0.01');
  await panel.getByLabel('Seed').fill('46');
  await panel.getByRole('button', { name: 'Add the column' }).click();
  await expect(page.getByText('30 readings')).toBeVisible();
  const once = await column(page, 0, 8);
  await page.getByRole('button', { name: 'Change' }).click();
  await panel.getByLabel('Seed').fill('47');
  await panel.getByRole('button', { name: 'Change the column' }).click();
  await expect.poll(() => column(page, 0, 8)).not.toEqual(once);
  await page.getByRole('button', { name: 'Change' }).click();
  await panel.getByLabel('Seed').fill('46');
  await panel.getByRole('button', { name: 'Change the column' }).click();
  await expect.poll(() => column(page, 0, 8)).toEqual(once);
});

test('the table is sorted and filtered as a view, kept in the address, and as stored with one click', async ({
  page,
}) => {
  await studyOf(page, SMALL);
  await page.getByRole('button', { name: 'Arrange', exact: true }).click();
  await pick(page.getByLabel('Sort 1'), { label: 'thickness' });
  await pick(page.getByLabel('Direction 1'), 'descending');
  await expect.poll(() => column(page, 0, 4)).toEqual(['8.05', '8.02', '8.01', '7.99']);
  await pick(page.getByLabel('Rows by label'), { label: 'kiln' });
  await page.getByRole('group', { name: 'Arrange' }).getByText('south').click();
  await expect(page.getByText('2 of 4 rows')).toBeVisible();
  await page.reload();
  await expect.poll(() => column(page, 0, 2)).toEqual(['8.05', '8.01']);
  // An edit lands in the row that is shown.
  await gridCell(page, 1, 0).click();
  await page.keyboard.type('7.00');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'As stored' }).click();
  expect(await column(page, 0, 4)).toEqual(['8.01', '8.02', '7.00', '7.99']);
});

test('columns are stacked into measure and label, and spread again; rows become a study of their own', async ({
  page,
}) => {
  await studyOf(page, 'north\tsouth\n8.01\t7.91\n8.02\t7.92\n\t7.93');
  await gridCell(page, 1, 0).click();
  await page.keyboard.press('Shift+ArrowRight');
  await choose(page, 'New column', 'stacked columns');
  await page.getByRole('button', { name: 'Add the columns' }).click();
  await expect.poll(() => column(page, 2, 5)).toEqual(['8.01', '8.02', '7.91', '7.92', '7.93']);
  expect(await column(page, 3, 5)).toEqual(['north', 'north', 'south', 'south', 'south']);
  await choose(page, 'New column', 'a column split by a label');
  await pick(page.getByLabel('Column to split'), { label: 'stacked' });
  await page.getByRole('button', { name: 'Add the columns' }).click();
  await expect(page.getByRole('columnheader', { name: /stacked south/ })).toBeVisible();
  await stored(page);
  await gridCell(page, 1, 0).click();
  await page.keyboard.press('Shift+ArrowDown');
  await choose(page, 'Rows', 'new study from the shown or chosen rows');
  await expect(page.getByRole('heading', { name: '2 rows, 6 columns' })).toBeVisible();
  await expect(page.getByLabel('Name of the study')).toHaveValue(/2 rows$/);
});

test('a text is found and a row gone to', async ({ page }) => {
  await studyOf(page, TWELVE);
  await gridCell(page, 1, 0).click();
  await page.keyboard.press('Control+f');
  await page.keyboard.type('8.1');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 of 4')).toBeVisible();
  await page.getByLabel('Go to row').fill('99');
  await page.getByLabel('Go to row').press('Enter');
  await expect(page.getByRole('alert')).toContainText('Enter a row from 1 to 12.');
  await page.getByLabel('Go to row').fill('12');
  await page.getByLabel('Go to row').press('Enter');
  await expect(page.getByRole('textbox', { name: 'thickness, row 12' })).toBeFocused();
});

test('the record is filtered, leads to the cell, and takes back a change that is not the latest', async ({ page }) => {
  await studyOf(page, SMALL);
  for (const [row, text] of [
    [1, '9.01'],
    [3, '9.03'],
  ] as const) {
    await gridCell(page, row, 0).click();
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
  await stored(page);
  await page.getByRole('button', { name: 'Record' }).click();
  const record = page.getByRole('dialog', { name: 'Record' });
  await record.getByRole('button', { name: 'Undo change 1' }).click();
  await expect(record.getByRole('alert')).toContainText('Change 1 cannot be undone alone: change 2');
  await record.getByRole('button', { name: 'Undo change 2' }).click();
  await expect(record).toContainText('undone by change 4');
  await record.getByLabel('Words in the record').fill('9.03');
  await expect(record.getByRole('listitem')).toHaveCount(1);
  const saved = page.waitForEvent('download');
  await record.getByRole('button', { name: 'Save as CSV' }).click();
  expect(readFileSync((await (await saved).path())!, 'utf8')).toContain('Row 3 of thickness: “8.05” became “9.03”');
  await record.getByRole('button', { name: 'Go to the place of change 3' }).click();
  await expect(page.getByRole('grid')).toBeVisible();
  await expect(gridCell(page, 1, 0)).toHaveText('8.01');
  await expect(gridCell(page, 3, 0)).toHaveText('9.03');
});

test('what is saved opens again: a spreadsheet with its sheet chosen, and the whole study with its record', async ({
  page,
}) => {
  const dir = mkdtempSync(join(tmpdir(), 'verdict-save-'));
  await studyOf(page, 'thickness (mm)\tnote\n8.10\t=1+1\n8.20\tplain\n8.30\tplain');
  const save = async (format: string | null) => {
    await page.getByRole('button', { name: 'Save a copy' }).click();
    if (format) await pick(page.getByLabel('Format'), format);
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: format ? 'Save the readings' : 'Save the whole study' }).click();
    const file = await download;
    const path = join(dir, file.suggestedFilename());
    await file.saveAs(path);
    return path;
  };
  expect(readFileSync(await save('csv'), 'utf8')).toBe(
    "thickness (mm),note\r\n8.10,'=1+1\r\n8.20,plain\r\n8.30,plain\r\n",
  );
  const sheet = await save('xlsx');
  const whole = await save(null);
  await newStudy(page);
  await openFile(page, 'Open a file', sheet);
  const panel = page.getByRole('region', { name: 'Readings to import' });
  await expect(panel.getByLabel('Cells of the sheet')).toHaveValue('A1:B4');
  await panel.getByLabel('Cells of the sheet').fill('A1:A3');
  await panel.getByLabel('Cells of the sheet').press('Enter');
  await panel.getByRole('button', { name: 'Import 2 rows in 1 column' }).click();
  await expect(gridCell(page, 1, 0)).toHaveText('8.10');
  await stored(page);
  await page.goto('/');
  await openFile(page, 'Open a file', whole);
  await expect(gridCell(page, 1, 1)).toHaveText('=1+1');
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByRole('dialog', { name: 'Record' })).toContainText('Added 2 columns: thickness, note');
  // The list tells it from the one that it was saved from.
  await page.goto('/');
  const opened = page.getByRole('row').filter({ hasText: /opened from a file, \d+ \w+ \d{4}/ });
  await expect(opened.first()).toContainText('thickness');
  rmSync(dir, { recursive: true });
});

test('a file of 300 000 cells streams to the server, can be stopped, and is there afterwards', async ({ page }) => {
  test.setTimeout(150_000);
  const dir = mkdtempSync(join(tmpdir(), 'verdict-many-'));
  const names = Array.from({ length: 10 }, (_, j) => `gauge ${j + 1} (mm)`).join(',');
  const lines = Array.from({ length: 30_000 }, (_, i) =>
    Array.from({ length: 10 }, (_, j) => (8 + ((i * 7 + j * 13) % 97) / 100).toFixed(2)).join(','),
  );
  const file = join(dir, 'many.csv');
  writeFileSync(file, `${names}\n${lines.join('\n')}\n`);
  await newStudy(page);
  await openFile(page, 'Open a file', file);
  const take = page.getByRole('button', { name: 'Import 30\u202f000 rows in 10 columns' });
  // As over a slow line: the stop comes in the middle.
  const network = await page.context().newCDPSession(page);
  const line = { offline: false, latency: 0, downloadThroughput: -1 };
  await network.send('Network.enable');
  await network.send('Network.emulateNetworkConditions', { ...line, uploadThroughput: 100_000 });
  await take.click();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('alert')).toContainText('Stopped. Nothing was stored.');
  await network.send('Network.emulateNetworkConditions', { ...line, uploadThroughput: -1 });
  await take.click();
  await expect(page.getByRole('heading', { name: '30\u202f000 rows, 10 columns' })).toBeVisible();
  await expect(page.getByText('30\u202f000 readings')).toBeVisible();
  await gridCell(page, 1, 0).click();
  await page.keyboard.press('Control+End');
  await expect(gridCell(page, 30_000, 9)).toBeVisible();
  await page.keyboard.type('8.125');
  await page.keyboard.press('Enter');
  await expect(gridCell(page, 30_000, 9)).toHaveText('8.125');
  await stored(page);
  rmSync(dir, { recursive: true });
});

test('an import that the database does not survive is there wholly or not at all, and the page says which', async ({
  page,
  app,
}) => {
  test.setTimeout(120_000);
  const dir = mkdtempSync(join(tmpdir(), 'verdict-cut-'));
  const file = join(dir, 'long.csv');
  writeFileSync(file, `x,y\n${Array.from({ length: 200_000 }, (_, i) => `${i}.5,${i}`).join('\n')}\n`);
  await newStudy(page);
  await openFile(page, 'Open a file', file);
  await page.getByRole('button', { name: 'Import 200\u202f000 rows in 2 columns' }).click();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  const bringBack = await app.loseDatabase();
  await expect(page.getByRole('alert')).toContainText('Checking whether it arrived');
  await bringBack();
  const alert = page.getByRole('alert').filter({ hasText: /stored|complete/ });
  await expect(alert).toContainText(/Nothing was stored|the import is complete/);
  const there = (await alert.textContent())!.includes('is complete');
  await page.reload();
  const heading = there ? /200\u202f000 rows, 2 columns/ : 'Paste a column of readings.';
  await expect(page.getByRole('heading', { name: heading })).toBeVisible();
  rmSync(dir, { recursive: true });
});
