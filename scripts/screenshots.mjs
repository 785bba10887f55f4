/** `npm run screenshots`: one picture of each main view, 1280 × 800, from the demo data on a database of its own. */
import { chromium } from '@playwright/test';
import { chromiumPath } from './chromium.mjs';
import { createWriteStream, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { startMariaDb } from './mariadb.mjs';
import { build, ensureChromium, ensureMariaDb, ROOT } from './setup.mjs';

ensureMariaDb();
ensureChromium();
build();
const out = process.env.SCREENSHOTS ?? join(ROOT, 'docs/screenshots');
mkdirSync(out, { recursive: true });
const dir = mkdtempSync(join(tmpdir(), 'verdict-shots-'));
const database = await startMariaDb(join(dir, 'db'), { lasting: false });
const { serve } = await import(pathToFileURL(join(ROOT, 'server/dist/index.js')).href);
const server = await serve({
  databaseUrl: database.url,
  migrationUrl: database.migrationUrl,
  ports: [0],
  page: join(ROOT, 'web/dist'),
  demo: pathToFileURL(join(ROOT, 'demo/')),
  log: createWriteStream(join(dir, 'log')),
});
const browser = await chromium.launch({ executablePath: chromiumPath() });
const context = await browser.newContext({
  viewport: { width: 1280, height: 800 },
  locale: 'en-GB',
  timezoneId: 'UTC',
});
await context.grantPermissions(['clipboard-read', 'clipboard-write']);
const page = await context.newPage();
const shot = async (name) => {
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: join(out, `${name}.png`), animations: 'disabled' });
};
const stage = (name) => page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();

try {
  await page.goto(server.url);
  await page.getByRole('link', { name: /Tile thickness/ }).click();
  await page.getByRole('region', { name: 'Summary' }).waitFor();
  await shot('readings');

  await page.goto(server.url);
  await page.getByRole('link', { name: /Glaze batches/ }).click();
  await page.getByRole('region', { name: 'Summary' }).waitFor();
  await page.getByRole('columnheader', { name: /^residue/ }).click();
  /** Chooses in a field that opens a list: by value, or by the words of the list. */
  const pick = async (label, wanted) => {
    const box = page.getByRole('combobox', { name: label, exact: true });
    // A sentence may break its lines anew just as it is pressed: then it is pressed once more.
    while ((await box.getAttribute('aria-expanded')) !== 'true') {
      await box.locator('xpath=ancestor::*[@data-chosen][1]').click();
      const opened = box.and(page.locator('[aria-expanded="true"]'));
      await opened.waitFor({ timeout: 1_000 }).catch(() => null);
    }
    const options = page.getByRole('option');
    const byValue = options.and(page.locator(`[data-value="${wanted}"]`));
    await (wanted.label ? page.getByRole('option', { name: wanted.label, exact: true }) : byValue).click();
  };
  const menu = async (word, entry) => {
    await page.getByRole('button', { name: word, exact: true }).click();
    await page.getByRole('menuitem', { name: entry }).click();
  };
  await menu('New column', 'from a formula');
  await page.getByRole('combobox', { name: 'Formula' }).pressSequentially('[tiles scrapped] / [tiles glazed] * 100');
  await page.getByLabel('Name of the column').fill('scrap');
  await page.getByText('First values').waitFor();
  await page.getByRole('button', { name: 'Add the column' }).click();
  await page.getByRole('grid').evaluate((grid) => grid.closest('.scroller').scrollTo(0, 0));
  await page.getByRole('columnheader', { name: /^mill/ }).click();
  await page.getByRole('button', { name: 'Treat as mill A' }).click();
  await page.getByRole('button', { name: 'Record' }).click();
  await page.getByText('order of the labels changed').waitFor();
  await shot('record');
  await page.keyboard.press('Escape');
  await page.goto(server.url);
  await page.getByRole('link', { name: /Tile thickness/ }).click();
  await page.getByRole('region', { name: 'Summary' }).waitFor();

  await stage('Shape');
  await page.getByRole('region', { name: 'Figures' }).waitFor();
  await pick('fitted distribution', 'normal');
  await page
    .getByText(/The bin with the most readings|No evidence of skewness/)
    .first()
    .waitFor();
  await page.getByRole('img', { name: /Histogram of thickness: 48 readings/ }).waitFor();
  await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
  await shot('shape');
  await page.keyboard.press('k');
  await page.getByText(/^Kept: histogram/).waitFor();
  await pick('Split by', { label: 'kiln' });
  await page.getByText('2 groups by kiln').waitFor();
  await page.getByText('Proportions within limits').click();
  await page.getByRole('cell', { name: 'mean ± 3 sd' }).last().waitFor();
  await shot('shape-by-group');

  await stage('Fit');
  await page.getByText('No evidence').first().waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await pick('Split by', { label: 'nothing' });
  await page
    .getByText('What the plot shows')
    .or(page.getByText('No evidence of a long, heavy or light tail'))
    .first()
    .waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await shot('fit');
  const ask = (word) =>
    page.getByRole('radiogroup', { name: 'Questions about the fit' }).getByText(word, { exact: true }).click();
  await ask('Line-up');
  await page.getByRole('img', { name: /^20 small pictures/ }).waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await ask('Plot and test');
  await page.getByText(/ · \d workers?$/).waitFor();
  await page.keyboard.press('k');
  await page.getByText(/^Kept:/).waitFor();

  await page.getByRole('link', { name: 'Calculate probabilities' }).click();
  await pick('Where', 'above');
  await page.getByLabel('Limit', { exact: true }).fill('8.17');
  await page.getByText('3 of 48').waitFor();
  await page.getByLabel('Limit', { exact: true }).blur();

  const thisStudy = page.url();
  await page.goto(server.url);
  await page.getByRole('link', { name: /Glaze batches/ }).click();
  await page.getByRole('region', { name: 'Summary' }).waitFor();
  await stage('Fit');
  await ask('Many columns');
  await page.getByText('adjusted for').waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await pick('Subject', { label: 'tiles scrapped' });
  await ask('Counts');
  await page.getByText('depart from').first().waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await pick('Subject', { label: 'acidity, pH' });
  await stage('Outliers');
  await page.getByText('rows 26 (8.89) and 25 (8.88)').waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await page.getByRole('row', { name: /^26 8\.89/ }).hover();
  await shot('outliers');
  await page.getByRole('radiogroup', { name: 'Questions about outliers' }).getByText('Compare rules').click();
  await page.getByText('one outlier of 5 SD is detected best by').waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  const view = (name) => page.getByRole('radiogroup', { name: 'Display' }).getByText(name).click();
  await page.goto(server.url);
  await page.getByRole('link', { name: /Sorting line/ }).click();
  await page.getByRole('region', { name: 'Summary' }).waitFor();
  await stage('Claims');
  await pick('Subject', { label: 'fault' });
  await page
    .getByRole('textbox', { name: 'claimed proportions' })
    .fill('chipped 50, pinholed 25, crazed 10, off shade 15');
  await page.getByRole('textbox', { name: 'claimed proportions' }).press('Enter');
  await page.getByText('differ from those claimed').first().waitFor();
  await shot('claim-counts');
  await page.goto(server.url);
  await page.getByRole('link', { name: /Tile thickness/ }).click();
  await page.getByRole('region', { name: 'Summary' }).waitFor();
  await stage('Claims');
  await page.getByRole('textbox', { name: 'smallest difference of interest' }).fill('0.05');
  await page.getByRole('textbox', { name: 'smallest difference of interest' }).press('Enter');
  await page.getByText('is detected with 88 % power').waitFor();
  await view('Null distribution');
  await shot('claim-mean');
  await stage('Resample');
  const resample = (word) =>
    page.getByRole('radiogroup', { name: 'Questions of resampling' }).getByText(word, { exact: true }).click();
  const replicates = (words) =>
    page.getByRole('radiogroup', { name: 'How many replicates' }).getByText(words, { exact: true }).click();
  await replicates('10');
  await page.getByText('(10 bootstrap replicates)').waitFor();
  for (let k = 11; k <= 40; k++) {
    await page.getByRole('button', { name: 'one more' }).click();
    await page.getByText(`(${k} bootstrap replicates)`).waitFor();
  }
  await page.getByText('Replicate 40:').waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await shot('redraw');
  await resample('Permutation test');
  await pick('Split by', { label: 'kiln' });
  await page.getByText(/of 10.000 permutations are at least as extreme/).waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await shot('shuffle');
  await page.goto(server.url);
  await page.getByRole('link', { name: /Filling balance/ }).click();
  await page.getByRole('region', { name: 'Summary' }).waitFor();
  await pick('Subject', { label: 'all fillings, g' });
  await stage('Simulate');
  await pick('Quantity', { label: 'the t test of the mean' });
  await page.getByText(/of 1.000 samples have p below/).waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await page.getByRole('img', { name: /^the p of the t test/ }).focus();
  for (let k = 0; k < 3; k++) await page.keyboard.press('ArrowRight');
  await page.getByText(/^Sample \d+: /).waitFor();
  await shot('samples');
  await page.getByRole('button', { name: 'Hide' }).click();
  await pick('Source of the population', { label: 'a distribution' });
  await pick('distribution', 'exponential');
  await pick('Quantity', { label: 'the t interval of the mean' });
  await page.getByText('fewer than the nominal 95').waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await shot('coverage');
  const simulation = page.url().replace(/\?.*/, '');
  const tests =
    'curves.tests=t%20signed-rank%20sign%20anderson-darling&curves.shiftInSd=0.4&curves.values=8%2015%2025%2040%2060%2090';
  await page.goto(`${simulation}?ask=curves&population.from=fit&population.mixedShare=0.05&${tests}`);
  await page.getByText('power against').first().waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await shot('power');
  await page.goto(server.url);
  await page.getByRole('link', { name: /Breaking force/ }).click();
  await page.getByRole('region', { name: 'Summary' }).waitFor();
  await stage('Fit');
  await ask('Transformation');
  await page.getByText('After transformation by Box–Cox').waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await ask('Plot and test');
  await pick('distribution', 'weibull');
  await pick('band', 'line');
  await page.getByRole('radiogroup', { name: 'Figures of the fit' }).getByText('The distribution').click();
  await page.getByText('No evidence').first().waitFor();
  await page.getByText(/ · \d workers?$/).waitFor();
  await page.getByRole('radiogroup', { name: 'Figures of the fit' }).getByText('Distributions').click();
  await page.getByText(/ · \d workers?$/).waitFor({ timeout: 60_000 });
  await page.getByRole('radiogroup', { name: 'Figures of the fit' }).getByText('The test').click();
  await pick('Subject', { label: 'breaking force, N' });
  await pick('distribution', 'generalized-extreme-value');
  await page.getByText(/ · \d workers?$/).waitFor({ timeout: 60_000 });
  await page.getByLabel('number of simulated samples for the test').fill('100000');
  await page.getByLabel('number of simulated samples for the test').press('Enter');
  await page.getByRole('button', { name: 'Continue on the server' }).click();
  await page.getByRole('link', { name: 'Jobs, 1 running' }).click();
  await page.getByRole('progressbar').and(page.locator(':not([aria-valuenow="0"])')).waitFor();
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.getByText('stopped').waitFor();
  await page.goto(thisStudy);

  // A digit was mistyped, and what was kept is about the old one.
  await stage('Readings');
  await page.locator('[id="cell-12-1"]').click();
  await page.keyboard.type('8.06');
  await page.keyboard.press('Enter');
  await page.getByText(/^saved, change/).waitFor();
  await stage('Verdict');
  await page.getByText('Data changed since this was kept').nth(3).waitFor();
  await page.getByRole('img', { name: 'Histogram of thickness' }).waitFor();
  await page.getByText('treat as normal', { exact: true }).click();
  await shot('verdict');
  await page.getByRole('button', { name: 'Run all of them again' }).click();
  await page.getByText('Data changed since this was kept').first().waitFor({ state: 'detached', timeout: 60_000 });
  const answers = page.getByLabel(/^Answer to caution/);
  for (let i = 0; i < (await answers.count()); i++) {
    await answers.nth(i).fill('The gauge reads to 0.01 mm; the p with rounding allowed for agrees.');
    await answers.nth(i).press('Enter');
  }
  await page.getByText('not answered').waitFor({ state: 'detached' });
  await page
    .getByLabel('Reason for the decision')
    .fill(
      'Straight plot, no reading outside the band, and no evidence in the test. The proportion outside the limits may be calculated from a normal distribution.',
    );
  await page.getByRole('button', { name: /Record the verdict/ }).click();
  await page.getByRole('heading', { name: 'On record' }).waitFor();
  await page.getByRole('link', { name: 'Open the report' }).click();
  await page.getByText(/^about \d+ pages?$/).waitFor();
  await shot('sheet');

  await page.goto(`${server.url}help#outliers/grubbs`);
  await page.locator('[id="outliers/grubbs"]').waitFor();
  await shot('help');
  await page.goto(server.url);
  await page.getByText('decided: treat as normal').waitFor();
  await page.getByRole('button', { name: 'New study' }).click();
  await page.getByRole('heading', { name: 'Paste a column of readings.' }).waitFor();
  await page.evaluate(() =>
    navigator.clipboard.writeText(
      'tile;thickness (mm);kiln\n1;7,91;north\n2;8,08;south\n3;8,0l;south\n4;7,75;north\n5;9,87;north\n6;8,05;north\n',
    ),
  );
  await page.keyboard.press('Control+V');
  await page.getByRole('button', { name: /^Import 6 rows/ }).waitFor();
  await shot('paste');

  await page.goto(
    `${server.url}distributions?family=gamma&by=sd&mean=5&spread=2&ask=between&a=3&b=8&over=lognormal&o.logMean=1.53&o.logSd=0.385`,
  );
  await page.getByRole('region', { name: 'Last questions' }).getByRole('link').waitFor();
  await shot('distributions');

  await page.goto(server.url);
  await page.getByRole('button', { name: /Delete untitled/ }).waitFor();
  await shot('studies');
} finally {
  await browser.close();
  await server.close();
  await database.stop();
  rmSync(dir, { recursive: true, force: true });
}
