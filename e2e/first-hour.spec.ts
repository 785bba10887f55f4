import { readFileSync } from 'node:fs';
import {
  TWELVE,
  comboboxOf,
  expect,
  gridCell,
  newStudy,
  openFile,
  openStage,
  paste,
  settled,
  stored,
  studyOf,
  test,
  violations,
} from './app.js';

const HOUR = ['breaking force (N)', '112', '131', '148', '163', '187', '204', '226', '149', '171', '158'].join('\n');

test('by keys alone, in under forty of them: paste, a histogram of width 25 from 100, the picture saved', async ({
  page,
}) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Studies' })).toBeVisible();
  await page.evaluate((text) => navigator.clipboard.writeText(text), HOUR);
  let keys = 0;
  const press = async (...names: string[]) => {
    for (const name of names) {
      await page.keyboard.press(name);
      keys++;
    }
  };
  await press('Control+V');
  await expect(page.getByRole('button', { name: 'Import 10 rows in 1 column' })).toBeFocused();
  await press('Enter');
  await stored(page);
  await press('2');
  await expect(page.getByRole('img', { name: /^Histogram of breaking force/ })).toBeVisible();
  await press('s', 'Tab', '2', '5', 'Tab', 'Tab', '1', '0', '0', 'Enter');
  await expect(page.getByRole('textbox', { name: 'bin width' })).toHaveValue('25');
  await expect(page.getByRole('textbox', { name: 'start of the bins' })).toHaveValue('100');
  await press('Escape', 'p', 'Shift+Tab', 'Shift+Tab');
  await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeFocused();
  await press('Enter');
  await expect(page.getByRole('menuitem').first()).toBeFocused();
  const [download] = await Promise.all([page.waitForEvent('download'), press('Enter')]);
  expect(
    readFileSync((await download.path())!)
      .subarray(1, 4)
      .toString(),
  ).toBe('PNG');
  expect(keys).toBeLessThan(40);
});

test('skip links lead to picture, finding and sentence, and say their keys', async ({ page }) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  await page.reload();
  await settled(page);
  await page.keyboard.press('Tab');
  const skips = page.getByRole('navigation', { name: 'Skip to' });
  await expect(skips.getByRole('link', { name: 'To the picture P' })).toBeFocused();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Finding' })).toBeFocused();
  await page.keyboard.press('p');
  await expect(page.getByRole('img', { name: /^Normal probability plot/ })).toBeFocused();
  await page.keyboard.press('s');
  await expect(comboboxOf(page.getByLabel('plotting positions'))).toBeFocused();
});

test('every p of the fit says what it means, and which of them to quote', async ({ page }) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  const finding = page.getByRole('region', { name: 'Finding' });
  await finding.getByRole('button', { name: 'p, simulated' }).hover();
  await expect(page.getByRole('tooltip')).toContainText('Report this one');
  await finding.getByRole('button', { name: 'p, asymptotic' }).click();
  await expect(finding.getByRole('note').filter({ hasText: 'p, asymptotic' })).toContainText('Report the simulated p.');
  await finding.getByRole('button', { name: 'p, rounding allowed for' }).focus();
  await expect(page.getByRole('tooltip').filter({ hasText: 'rounded to the same resolution' })).toBeVisible();
});

test('a column that follows says so when it is typed into, keeps its digits frozen, and is renamed with its source', async ({
  page,
}) => {
  await studyOf(page, 'mass\n15.0\n15.5\n16.0');
  await page.getByRole('button', { name: 'New column' }).click();
  await page.getByRole('menuitem', { name: 'rounded readings' }).click();
  await page.getByLabel('Step').fill('0.5');
  await page.getByRole('button', { name: 'Add the column' }).click();
  await gridCell(page, 1, 1).click();
  await page.keyboard.type('99');
  await page.keyboard.press('Delete');
  await expect(page.getByText('mass rounded is calculated from mass')).toBeVisible();
  await expect(gridCell(page, 1, 1)).toHaveText('15.0');
  await gridCell(page, 1, 0).click();
  const name = page.getByLabel('Column name');
  await name.fill('');
  await name.press('Enter');
  await expect(page.getByText('A column needs a name; its name is still mass.')).toBeVisible();
  await expect(name).toHaveValue('mass');
  await name.fill('weight');
  await name.press('Enter');
  await expect(page.getByRole('columnheader', { name: /^weight rounded/ })).toBeVisible();
  await gridCell(page, 1, 1).click();
  await page.getByRole('button', { name: 'Freeze to plain values' }).click();
  await stored(page);
  await page.reload();
  await expect(gridCell(page, 3, 1)).toHaveText('16.0');
  // Undone and done again by the keys that the buttons name.
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', /\(Ctrl \+ Z\)$/);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Redo' })).toHaveAttribute('title', /\(Ctrl \+ Y\)$/);
  await page.keyboard.press('Control+y');
  await expect(page.getByRole('button', { name: 'Redo' })).toBeDisabled();
});

test('readings outside their limits are listed with the likely slip; a row is set aside from its number', async ({
  page,
}) => {
  await studyOf(page, 'mass (kg)\tkiln\n4.21\tnorth\n4.35\tsouth\n42.1\tnorth\n4.18\tsouth');
  await page.getByLabel('Lower limit').fill('4.0');
  await page.getByLabel('Upper limit').fill('4.5');
  await page.getByLabel('Upper limit').press('Enter');
  const slip = page.getByRole('button', { name: /^Row 3 is 42\.1\skg, above the upper limit 4\.5\skg/ });
  await expect(slip).toContainText('Possible typing error: 4.21');
  await slip.click();
  await expect(page.getByLabel('mass, row 3')).toBeFocused();
  await page.getByRole('rowheader', { name: '3' }).click();
  await page.getByRole('button', { name: 'Set row 3 aside …' }).click();
  await page.getByRole('dialog').getByLabel('Reason').fill('misplaced decimal point');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Set aside/ })
    .click();
  await expect(slip).toHaveCount(0);
  await expect(page.getByText('3 readings, 1 set aside')).toBeVisible();
});

test('of a file of 300 columns those wanted are chosen, by search and by kind', async ({ page }) => {
  await newStudy(page);
  const heads = Array.from({ length: 300 }, (_, j) => (j % 3 === 2 ? `line ${j}` : `gauge ${j}`));
  const row = (i: number) => heads.map((_, j) => (j % 3 === 2 ? 'north' : `${j}.${i}1`)).join('\t');
  await paste(page, [heads.join('\t'), row(1), row(2)].join('\n'));
  const columns = page.getByRole('region', { name: 'Columns to import' });
  await expect(columns).toContainText('200 of 300 columns are selected, at most 200 at once.');
  await columns.getByRole('button', { name: 'The labels' }).click();
  await expect(page.getByRole('button', { name: 'Import 2 rows in 100 columns' })).toBeVisible();
  await columns.getByLabel('Search the columns').fill('gauge 29');
  await columns.getByRole('button', { name: 'Matching columns' }).click();
  await columns.getByText('gauge 298').click();
  await page.getByRole('button', { name: /^Import 2 rows in \d columns$/ }).click();
  await expect(page.getByRole('columnheader', { name: /^gauge 291/ })).toBeVisible();
  await expect(page.getByRole('columnheader', { name: /^gauge 298/ })).toHaveCount(0);
});

test('a share typed for a percentage is pointed out', async ({ page }) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  const confidence = page.getByLabel('confidence level of the band');
  await confidence.fill('0.95');
  await confidence.press('Enter');
  await expect(page.getByRole('region', { name: 'Finding' })).toContainText('For 95 %, enter 95.');
});

test('a file opened at home begins a study; the home of somebody new says how to begin, nobody else’s does', async ({
  page,
}) => {
  await page.route('**/api/studies?*', (route) => route.fulfill({ json: [] }));
  await page.route('**/api/studies', (route) =>
    route.request().method() === 'GET' ? route.fulfill({ json: [] }) : route.continue(),
  );
  await page.goto('/');
  const first = page.getByRole('region', { name: 'First steps' });
  await expect(first).toContainText('a record that anyone can recompute');
  expect(await violations(page)).toEqual([]);
  await first.getByRole('button', { name: 'Try with simulated readings' }).click();
  await page.getByRole('button', { name: 'Add the column' }).click();
  await expect(page.getByText('100 readings')).toBeVisible();
  await page.unrouteAll();
  await page.goto('/');
  await expect(page.getByRole('table')).toBeVisible();
  await expect(first).toHaveCount(0);
  await openFile(page, 'Open a file', {
    name: 'glaze.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('a,b\n1,2\n3,4'),
  });
  await page.getByRole('button', { name: 'Import 2 rows in 2 columns' }).click();
  await expect(gridCell(page, 2, 1)).toHaveText('4');
});
