import type { Page } from '@playwright/test';
import {
  TWELVE,
  expect,
  gridCell,
  newStudy,
  openStage,
  paste,
  pick,
  settled,
  stored,
  studyOf,
  test,
  violations,
} from './app.js';

/** The home of somebody who has no study yet. */
async function emptyHome(page: Page): Promise<void> {
  await page.route('**/api/studies', (route) =>
    route.request().method() === 'GET' ? route.fulfill({ json: [] }) : route.continue(),
  );
  await page.goto('/');
  await expect(page.getByRole('region', { name: 'First steps' })).toBeVisible();
}

test('by keyboard alone, in under 40 actions: from an empty home to a printed verdict on pasted readings', async ({
  page,
}) => {
  await page.addInitScript(() => {
    (window as unknown as { printed: number }).printed = 0;
    window.print = () => void (window as unknown as { printed: number }).printed++;
  });
  await emptyHome(page);
  await page.evaluate((text) => navigator.clipboard.writeText(text), TWELVE);
  let actions = 0;
  const press = async (...keys: string[]) => {
    for (const key of keys) {
      await page.keyboard.press(key);
      actions++;
    }
  };
  const write = async (text: string) => {
    await page.keyboard.type(text);
    actions++;
  };
  /** Tabs on until something of this name has the focus. */
  const tabTo = async (name: RegExp) => {
    const focused = () =>
      page.evaluate(() => {
        const { activeElement: at, body } = document;
        return at === body ? '' : (at?.getAttribute('aria-label') ?? at?.textContent ?? '');
      });
    for (let i = 0; i < 12 && !name.test(await focused()); i++) await press('Tab');
    expect(await focused()).toMatch(name);
  };
  await press('Control+V');
  await expect(page.getByRole('button', { name: 'Import 12 rows in 1 column' })).toBeFocused();
  await press('Enter');
  await stored(page);
  await press('2');
  await expect(page.getByRole('img', { name: /^Histogram of thickness/ })).toBeVisible();
  await expect(page.getByText('Mean 8.019')).toBeVisible();
  await press('k');
  await expect(page.getByText('Kept: histogram and description.')).toBeVisible();
  await press('3');
  await settled(page);
  await press('k');
  await expect(page.getByText('Kept: probability plot and normality test.')).toBeVisible();
  await press('8');
  await expect(page.getByRole('article')).toHaveCount(4);
  await press('d');
  // The radios have no name of their own: the label holds it.
  await press('Tab', 'Space');
  await expect(page.getByRole('radio', { name: 'treat as normal', exact: true })).toBeChecked();
  await tabTo(/^Reason for the decision$/);
  await write('The plot is straight, and no reading lies outside the band.');
  if (await page.getByLabel('Why it stays open').isVisible()) {
    await tabTo(/^Why it stays open$/);
    await write('Known, and of no weight here.');
  }
  await tabTo(/Record the verdict/);
  await press('Enter');
  await expect(page.getByRole('region', { name: 'Decision on record' })).toContainText('treat as normal');
  await press('d');
  await tabTo(/Open the report/);
  await press('Enter');
  await expect(page.getByRole('article', { name: 'Report' })).toContainText('The plot is straight');
  await expect(page.getByText(/about \d+ pages?/)).toBeVisible();
  await tabTo(/Print, or save as PDF/);
  await press('Enter');
  expect(await page.evaluate(() => (window as unknown as { printed: number }).printed)).toBe(1);
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(pdf.match(/\/Type\s*\/Page\b/g)!.length).toBeLessThanOrEqual(3);
  expect(actions).toBeLessThan(40);
});

test('a study starts from its question: the path marks what answers it, and says what is not viewed, here and on the sheet', async ({
  page,
}) => {
  await emptyHome(page);
  await page.getByRole('button', { name: 'May I treat it as normal?' }).click();
  await expect(page.getByRole('heading', { name: 'Paste a column of readings.' })).toBeVisible();
  await paste(page, TWELVE);
  await page.getByRole('button', { name: /^Import 12 rows/ }).click();
  await stored(page);
  const guide = page.getByRole('button', { name: /May I treat it as normal\?.*0 of 7 viewed/ });
  await expect(guide).toBeVisible();
  const stages = page.getByRole('navigation', { name: 'Stages' });
  await expect(stages.getByRole('link', { name: 'Fit' })).toHaveAttribute('title', 'It helps to answer the question');
  await expect(stages.getByRole('link', { name: 'Claims' })).not.toHaveAttribute('title', /./);
  await openStage(page, 'Shape');
  await page.getByRole('button', { name: /2 of 7 viewed/ }).click();
  const steps = page.getByRole('region', { name: 'The question' });
  await expect(steps).toContainText('Not viewed: readings in row order, probability plot');
  await steps.getByRole('link', { name: 'readings in row order' }).click();
  await expect(page.getByRole('img', { name: /in (row )?order/i })).toBeVisible();
  await page.getByRole('button', { name: /3 of 7 viewed/ }).click();
  await pick(page.getByLabel('Question of the study'), 'sure');
  await expect(page.getByRole('button', { name: /How precise is this result\? 2 of 5 viewed/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await openStage(page, 'Verdict');
  await expect(page.getByRole('region', { name: 'Analyses viewed' })).toContainText(
    'Not viewed: outliers, bootstrap, precision of larger samples.',
  );
  await page.getByRole('link', { name: 'Open the report' }).click();
  await expect(page.getByRole('article', { name: 'Report' })).toContainText('Not viewed: outliers');
});

test('the studies are searched, tagged, filtered by tag and sorted, kept in the address', async ({ page }) => {
  await newStudy(page);
  const name = `depth ${Date.now()}`;
  await page.getByLabel('Name of the study').fill(name);
  await page.getByLabel('Name of the study').press('Enter');
  await paste(page, 'groove depth (mm)\n1.1\n1.2\n1.4');
  await page.getByRole('button', { name: /^Import 3 rows/ }).click();
  await stored(page);
  await page.goto('/');
  const search = page.getByLabel('Search the studies');
  await search.fill('groove');
  const row = page.getByRole('row', { name: new RegExp(name) });
  await expect(row).toContainText('3 readings');
  await expect(page.getByRole('row')).toHaveCount(2);
  await row.getByRole('button', { name: `Tags of ${name}` }).click();
  await page.getByRole('combobox', { name: `Tags of ${name}` }).fill('week 47');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  await expect(row.getByRole('button', { name: 'week 47' })).toBeVisible();
  await expect(page).toHaveURL(/search=groove/);
  await search.fill('no study says this');
  await expect(page.getByText('No study matches all of these words')).toBeVisible();
  await search.fill('');
  await page.getByRole('group', { name: 'Tags' }).getByText('week 47').click();
  await expect(page).toHaveURL(/tag=week/);
  await expect(page.getByRole('row')).toHaveCount(2);
  await page.reload();
  await expect(row).toBeVisible();
  await page.getByRole('group', { name: 'Tags' }).getByText('week 47').click();
  await page.getByRole('button', { name: /^study/ }).click();
  await expect(page.getByRole('columnheader', { name: /^study/ })).toHaveAttribute('aria-sort', 'ascending');
});

test('a slash searches everywhere and Enter goes there; help says what the words of the page mean, and formula', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  const field = page.getByRole('combobox', { name: 'Search everywhere' });
  const goTo = async (text: string, option: RegExp) => {
    await page.keyboard.press('/');
    await field.fill(text);
    await expect(page.getByRole('option', { selected: true })).toHaveAccessibleName(option);
    await page.keyboard.press('Enter');
  };
  await goTo('compare rules', /Compare rules/);
  await expect(page).toHaveURL(/outliers\?ask=which/);
  await goTo('thickness', /^thickness a column of this study/);
  await expect(gridCell(page, 1, 0)).toBeVisible();
  await goTo('weibull', /^Weibull/);
  await expect(page).toHaveURL(/distributions\?family=weibull/);
  await goTo('filling balance', /^Filling balance, glaze sacks/);
  await expect(page.getByLabel('Name of the study')).toHaveValue(/^Filling balance/);
  await goTo('grubbs', /^Grubbs/);
  const entry = page.locator('[id="outliers/grubbs"]');
  await expect(entry).toBeInViewport();
  await expect(entry).toContainText('(1950)');
  await page.getByLabel('Search the methods').fill('hyndman');
  await expect(page.getByRole('region', { name: 'Terms' })).toContainText('nine common definitions');
  await page.goBack();
  await openStage(page, 'Outliers');
  await page.getByRole('button', { name: 'Help', exact: true }).click();
  const help = page.getByRole('dialog', { name: 'Help with this page' });
  await expect(help.getByRole('region', { name: 'Terms on this page' })).toContainText('ESD');
  await help.getByRole('link', { name: 'Outliers', exact: true }).click();
  await expect(page.locator('[id="outliers"]').first()).toContainText('Calculated with');
});

/** What is wider than the window, in pixels. */
const overhang = (page: Page) => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

/** A page as everybody sees it: light and dark, twice as large, and on a narrow window. */
async function forEverybody(page: Page, name: string): Promise<void> {
  expect(await violations(page), `${name}, light`).toEqual([]);
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(page.locator('html')).toHaveClass(/dark/);
  expect(await violations(page, ['color-contrast']), `${name}, dark`).toEqual([]);
  await page.emulateMedia({ colorScheme: 'light' });
  for (const [width, height] of [
    [640, 400],
    [360, 740],
  ] as const) {
    await page.setViewportSize({ width, height });
    await expect.poll(() => overhang(page), { message: `${name}, ${width} px wide` }).toBe(0);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
}

test('home, help, distributions, jobs and dialogs are accessible', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('table')).toBeVisible();
  await forEverybody(page, 'home');
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Search everywhere' }).fill('glaze');
  await expect(page.getByRole('option').first()).toBeVisible();
  expect(await violations(page), 'search').toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  expect(await violations(page), 'keys').toEqual([]);
  await page.goto('/distributions');
  await expect(page.getByRole('region', { name: 'Answer' })).toContainText('%');
  await forEverybody(page, 'distributions');
  await page.goto('/jobs');
  // The tests of a worker share an application: another may have left a job.
  await expect(page.getByText('There are no jobs.').or(page.getByRole('list', { name: 'Jobs' }))).toBeVisible();
  await forEverybody(page, 'jobs');
  await page.goto('/help?search=outlier');
  await expect(page.getByRole('heading', { name: 'Methods' })).toBeVisible();
  await forEverybody(page, 'help');
});

const LABELLED = 'thickness (mm)\tkiln\n8.01\tnorth\n8.02\tsouth\n8.05\tnorth\n7.99\tsouth\n8.04\tnorth\n8.00\tsouth';

test('Readings, Shape, Fit and Outliers are there for everybody', async ({ page }) => {
  await studyOf(page, LABELLED);
  await gridCell(page, 1, 0).click();
  await forEverybody(page, 'Readings');
  await page.keyboard.press('Escape');
  for (const stage of ['Shape', 'Fit', 'Outliers'] as const) {
    await openStage(page, stage);
    await expect(page.getByRole('region', { name: 'Method' })).toContainText(/\d (ms|s)/);
    await forEverybody(page, stage);
  }
});

test('Claims, Resample, Simulate, Verdict and the sheet are there for everybody', async ({ page }) => {
  await studyOf(page, LABELLED);
  for (const stage of ['Claims', 'Resample', 'Simulate'] as const) {
    await openStage(page, stage);
    await expect(page.getByRole('region', { name: 'Method' })).toBeVisible();
    await forEverybody(page, stage);
  }
  await openStage(page, 'Fit');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByText(/^Kept: probability plot/)).toBeVisible();
  await openStage(page, 'Verdict');
  await expect(page.getByRole('article').first()).toBeVisible();
  await forEverybody(page, 'Verdict');
  await page.getByRole('button', { name: 'Start from a question' }).click();
  await expect(page.getByRole('region', { name: 'The question' })).toBeVisible();
  expect(await violations(page), 'question').toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Open the report' }).click();
  await expect(page.getByText(/about \d+ pages?/)).toBeVisible();
  await forEverybody(page, 'sheet');
});
