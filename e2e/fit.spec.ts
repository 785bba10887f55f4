import type { Page } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import type { Evidence } from '@verdict/contract';
import { TWELVE, commandLine, pick, expect, openStage, settled, studyOf, test, holds } from './app.js';

const plotted = (page: Page) => page.getByRole('img', { name: /Normal probability plot/ });
const ROOT = fileURLToPath(new URL('..', import.meta.url));

test('the demo: plot, finding, keep, and the same numbers on the server and on the command line', async ({
  page,
  app,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Tile thickness/ }).click();
  await page.keyboard.press('Escape');
  await openStage(page, 'Fit');
  const finding = page.getByRole('region', { name: 'Finding' });
  await expect(finding).toContainText(
    'No evidence against a normal distribution (A² = 0.302, p = 0.59). Mean 8.016\u00a0mm',
  );
  await settled(page);
  await expect(plotted(page)).toHaveAccessibleName(/95 % of normal samples lie entirely within the shaded band/);
  await page.keyboard.press('k');
  await expect(finding).toContainText('Kept: probability plot and normality test.');
  await page.keyboard.press('k');
  await expect(finding).toContainText('This result is already kept.');
  await page.getByRole('button', { name: 'Evidence 2' }).click();
  const drawer = page.getByRole('dialog', { name: 'Evidence' });
  // The server works out by itself what was kept.
  await expect(drawer.getByText(/^the same, \d/)).toHaveCount(2);
  for (const i of [0, 1]) await drawer.getByRole('button', { name: 'Recompute' }).nth(i).click();
  await expect(drawer.getByText('the same, bit for bit')).toHaveCount(2);

  const id = /studies\/([^/]+)/.exec(page.url())![1]!;
  const kept: Evidence[] = await (await fetch(`${app.url}api/studies/${id}/evidence`)).json();
  for (const item of kept) {
    const { column: _, ...settings } = item.request;
    const options = ['--column', 'thickness', '--options', JSON.stringify(settings)];
    const printed = await commandLine(item.analysis, `${ROOT}demo/tile-thickness.csv`, ...options);
    expect(printed.result, item.analysis).toEqual(item.result);
    expect(printed.fingerprint).toBe(item.fingerprint);
  }
});

test('level and subject are changed in the bar, and everything follows', async ({ page }) => {
  await studyOf(
    page,
    'a (mm)\tb (N)\n1.1\t12\n1.2\t900\n1.3\t13\n1.1\t12.5\n1.25\t11\n1.15\t12.2\n1.22\t12.1\n1.17\t11.8\n1.28\t12.3\n1.21\t11.9',
  );
  await openStage(page, 'Fit');
  const finding = page.getByRole('region', { name: 'Finding' });
  await expect(finding).toContainText('No evidence against');
  await pick(page.getByLabel('Subject'), { label: 'b, N' });
  await expect(finding).toContainText('The readings depart from a normal distribution');
  await expect(page.getByRole('heading', { name: 'probability plot of b' })).toBeVisible();
  await page.getByLabel('Level', { exact: true }).fill('95');
  await page.getByLabel('Level', { exact: true }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('The significance level must lie between 0 and 1');
  await page.getByLabel('Level', { exact: true }).fill('0.95');
  await page.getByLabel('Level', { exact: true }).press('Enter');
  await expect(finding).toContainText(
    'The significance level 0.95 is unusual; 0.05 and 0.01 are common. Did you mean 0.05?',
  );
});

test('a reading is pointed at, set aside with a reason, and put back; plot and test follow', async ({ page }) => {
  await studyOf(page, TWELVE.replace('8.19', '9.87'));
  await openStage(page, 'Fit');
  await settled(page);
  const finding = page.getByRole('region', { name: 'Finding' });
  await expect(finding).toContainText('The readings depart from');
  await page.getByRole('img', { name: /Normal probability plot/ }).focus();
  await page.keyboard.press('ArrowLeft');
  const plot = page.getByRole('region', { name: 'Probability plot' });
  await expect(plot).toContainText('row 5: 9.87 mm, 95.8 % at or below');
  await page.keyboard.press('x');
  const dialog = page.getByRole('dialog', { name: 'Set a reading aside' });
  await expect(dialog.getByRole('button', { name: 'Set aside' })).toBeDisabled();
  await dialog.getByLabel('Reason').fill('caliper not closed');
  await dialog.getByLabel('Reason').press('Enter');
  await expect(page.getByText('11 readings, 1 set aside')).toBeVisible();
  await expect(finding).toContainText('No evidence against');
  await expect(finding).toContainText('9.87 — caliper not closed');
  await finding.getByRole('button', { name: 'Restore row 5' }).click();
  await expect(finding).toContainText('The readings depart from');
});

test('pointing at a mark with the mouse names its row and value', async ({ page }) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  const picture = page.getByRole('img', { name: /Normal probability plot/ });
  const box = (await picture.boundingBox())!;
  const plot = page.getByRole('region', { name: 'Probability plot' });
  // Along the fitted line until a mark is hit.
  await expect(async () => {
    for (let t = 0.2; t < 0.8; t += 0.004) {
      await page.mouse.move(box.x + 60 + (box.width - 80) * t, box.y + (box.height - 50) * (1 - t));
      if (/row \d+: \d\.\d\d mm/.test((await plot.textContent()) ?? '')) return;
    }
    throw new Error('no mark was hit');
  }).toPass();
});

test('settings stand in the sentence and in the address, survive a reload, and refuse what is out of range', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await pick(page.getByLabel('plotting positions'), 'blom');
  await page.getByLabel('confidence level of the band').fill('90');
  await page.getByLabel('confidence level of the band').press('Enter');
  await expect(page).toHaveURL(/plot\.positions=blom/);
  await expect(page).toHaveURL(/plot\.confidence=0\.9/);
  await page.reload();
  await holds(page.getByLabel('plotting positions'), 'blom');
  await expect(plotted(page)).toHaveAccessibleName(/90 % of normal samples lie entirely within the shaded band/);
  await page.getByLabel('confidence level of the band').fill('100');
  await page.getByLabel('confidence level of the band').press('Enter');
  await expect(page.getByRole('alert')).toContainText('must be a percentage from 0.1 to 99.999');
  await expect(page).toHaveURL(/plot\.confidence=0\.9/);
  // An unusual one is pointed out, not refused.
  await page.getByLabel('confidence level of the band').fill('9.5');
  await page.getByLabel('confidence level of the band').press('Enter');
  await expect(page.getByRole('region', { name: 'Finding' })).toContainText('Did you mean 95 %?');
  await pick(page.getByLabel('band', { exact: true }), 'none');
  await expect(plotted(page)).not.toHaveAccessibleName(/shaded band/);
  await expect(page.getByLabel('seed of the band')).toHaveCount(0);
});

const FORCES = [
  'force (N)',
  ...'812 905 961 1004 1043 1077 1110 1139 1168 1196 1224 1251 1278 1306 1334 1364 1396 1432 1476 1541'.split(' '),
];

test('any family: estimated or claimed, its own scale and test, read off both ways, kept and carried to Distributions', async ({
  page,
}) => {
  await studyOf(page, FORCES.join('\n'));
  await page.goto(page.url().replace(/readings.*/, 'fit?plot.replicates=999&fit.replicates=999'));
  const finding = page.getByRole('region', { name: 'Finding' });
  await pick(page.getByLabel('distribution', { exact: true }), 'weibull');
  await settled(page);
  await expect(finding).toContainText('No evidence against a Weibull distribution (A²');
  await expect(page.getByRole('img', { name: /^Weibull probability plot of force/ })).toBeVisible();
  await page.getByRole('radiogroup', { name: 'Figures of the fit' }).getByText('The distribution').click();
  await expect(finding.getByRole('row', { name: /^shape ± / })).toBeVisible();

  const read = page.getByRole('region', { name: 'Read off' });
  await read.getByLabel('percentage below').fill('1');
  await read.getByLabel('percentage below').press('Enter');
  await expect(read).toContainText('95 % confidence interval of the 1 % quantile');
  await read.getByLabel('value', { exact: true }).fill('1200');
  await read.getByLabel('value', { exact: true }).press('Enter');
  await expect(read.getByLabel('percentage below')).toHaveValue(/^4\d\.\d/);
  await page.getByRole('slider', { name: 'Value read off' }).press('ArrowRight');
  await expect(read.getByLabel('value', { exact: true })).not.toHaveValue(/^1200/);
  await read.getByLabel('percentage below').fill('120');
  await read.getByLabel('percentage below').press('Enter');
  await expect(read.getByRole('alert')).toContainText('a percentage between 0 and 100');

  // A claim: what the sentence takes, and what it says when it is not enough.
  const parameters = page.getByLabel('parameters', { exact: true });
  await parameters.fill('8');
  await parameters.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'takes shape, scale' })).toBeVisible();
  await parameters.fill('8 1900');
  await parameters.press('Enter');
  await settled(page);
  await expect(parameters).toHaveValue('shape 8, scale 1900');
  await expect(finding).toContainText('depart from the claimed Weibull distribution (A²');
  await expect(finding).toContainText('The centre is lower');
  await pick(page.getByLabel('axis', { exact: true }), 'difference');
  await pick(page.getByLabel('line', { exact: true }), 'quartiles');
  await settled(page);
  await page.keyboard.press('k');
  await expect(finding).toContainText('Kept: probability plot and goodness of fit.');
  // Another family begins with its own parameters.
  await pick(page.getByLabel('distribution', { exact: true }), 'lognormal');
  await expect(parameters).toHaveValue('estimated');
  // These lean to the left: no threshold is the best, and the page says so.
  await pick(page.getByLabel('threshold'), 'estimated');
  await expect(page.getByText('The threshold cannot be estimated').first()).toBeVisible();
  await pick(page.getByLabel('threshold'), 'none');
  await settled(page);
  await page.getByRole('link', { name: 'Calculate probabilities' }).click();
  await expect(page.getByRole('region', { name: 'Question', exact: true })).toContainText('lognormal');
});

test('patterns in the plot are reported only if significant, and can be pointed at', async ({ page }) => {
  await studyOf(page, TWELVE.replace('8.19', '9.87'));
  await openStage(page, 'Fit');
  const shown = page.getByRole('region', { name: 'What the plot shows' });
  const far = shown.getByRole('button', { name: 'One suspected outlier' });
  await expect(shown).toContainText('row 5,');
  const canvas = page.getByRole('region', { name: 'Probability plot' }).locator('canvas');
  const drawn = () => canvas.evaluate((of: HTMLCanvasElement) => of.toDataURL());
  await settled(page);
  const before = await drawn();
  await far.focus();
  await expect.poll(drawn).not.toBe(before);
  await far.blur();
  await expect.poll(drawn).toBe(before);
  await page.getByRole('link', { name: 'Studies' }).first().click();
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await expect(shown).toContainText('No evidence of a long');
});

test('families are ranked, their p arriving one by one; one is chosen for the plot, and all is kept', async ({
  page,
}) => {
  await studyOf(page, FORCES.join('\n'));
  await page.goto(page.url().replace(/readings.*/, 'fit?show=families&families.replicates=199&plot.band=line'));
  const finding = page.getByRole('region', { name: 'Finding' });
  await expect(finding).toContainText('of 17 distributions are plausible');
  await expect(finding).toContainText('with the others, because the limits are estimated from minimum and maximum');
  await expect(finding).toContainText('20 readings are too few to distinguish distributions');
  await settled(page);
  await expect(finding.getByRole('row')).toHaveCount(20);
  await expect(finding.getByRole('table')).not.toContainText('…');
  await finding.getByText('3 left out').click();
  await expect(finding).toContainText('It is the distribution of a test statistic, not of readings.');
  await finding.getByRole('button', { name: 'smallest extreme value', exact: true }).click();
  await expect(page).toHaveURL(/plot\.family=smallest-extreme-value/);
  await holds(page.getByLabel('distribution', { exact: true }), 'smallest-extreme-value');
  await settled(page);
  await page.keyboard.press('k');
  await expect(finding).toContainText('Kept: probability plot and comparison of distributions.');
  await page.getByRole('button', { name: 'Evidence 2' }).click();
  const drawer = page.getByRole('dialog', { name: 'Evidence' });
  for (const i of [0, 1]) await drawer.getByRole('button', { name: 'Recompute' }).nth(i).click();
  await expect(drawer.getByText('the same, bit for bit')).toHaveCount(2);
});

test('a long simulation shows progress, leaves the page answering, and can be stopped', async ({ page }) => {
  await studyOf(page, TWELVE);
  // Without a band, which may or may not have come by the time it is stopped.
  await page.goto(page.url().replace(/readings.*/, 'fit?test.replicates=1000000&plot.band=none'));
  await expect(page.getByRole('progressbar', { name: 'Simulation' })).toBeVisible();
  // The plot is there and its table opens while the test still runs.
  await page.getByRole('button', { name: 'Table' }).click();
  await expect(page.getByRole('dialog', { name: 'Table of the probability plot' })).toContainText(
    'observed − expected',
  );
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /Keep as evidence/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('region', { name: 'Method' })).toContainText('stopped');
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  await page.getByLabel('number of simulated samples for the test').fill('999');
  await page.getByLabel('number of simulated samples for the test').press('Enter');
  await settled(page);
  await expect(page.getByRole('region', { name: 'Finding' })).toContainText('999 samples');
});

for (const [what, text, reason] of [
  ['one number', 'x\n8.01', 'x has 1 reading; a probability plot needs at least 3.'],
  ['two numbers', 'x\n8.01\n8.02', 'x has 2 readings; a probability plot'],
  [
    'equal numbers',
    'x (mm)\n8.01\n8.01\n8.01\n8.01',
    'All 4 readings of x are 8.01; a probability plot needs readings that vary',
  ],
]) {
  test(`a column with ${what} says why there is no plot`, async ({ page }) => {
    await studyOf(page, text!);
    await openStage(page, 'Fit');
    await expect(page.getByRole('region', { name: 'Probability plot' })).toContainText(reason!);
  });
}

test('a study with words only has no fit, and says what is needed', async ({ page }) => {
  await studyOf(page, 'kiln\nnorth\nsouth\nnorth');
  await expect(page.getByText('No number column yet')).toBeVisible();
  await openStage(page, 'Fit');
  await expect(page.getByText('A number column is needed.')).toBeVisible();
});

test('the plot is saved as a picture, its table as CSV and TSV, and a note is written beside the evidence', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  const download = async (press: () => Promise<void>) => {
    const [file] = await Promise.all([page.waitForEvent('download'), press()]);
    const chunks: Buffer[] = [];
    for await (const chunk of await file.createReadStream()) chunks.push(chunk as Buffer);
    return { name: file.suggestedFilename(), bytes: Buffer.concat(chunks) };
  };
  const saved = (form: string) => async () => {
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('menuitem', { name: form }).click();
  };
  const png = await download(saved('as PNG'));
  expect(png.name).toBe('probability plot of thickness.png');
  expect(png.bytes.subarray(1, 4).toString()).toBe('PNG');
  // Twice the size on the page.
  const shown = (await page.getByRole('img', { name: /Normal probability plot/ }).boundingBox())!;
  expect(Math.abs(png.bytes.readUInt32BE(16) - 2 * shown.width)).toBeLessThan(3);

  const svg = await download(saved('as SVG'));
  expect(svg.name).toBe('probability plot of thickness.svg');
  const drawn = svg.bytes.toString();
  // Twelve readings, the fitted line and the words of the axes.
  expect(drawn.match(/<path d="M[^"]*A/g)!.length).toBeGreaterThanOrEqual(12);
  for (const words of ['probability plot of thickness', 'thickness, mm', 'readings at or below, %'])
    expect(drawn).toContain(words);

  await page.getByRole('button', { name: 'Table' }).click();
  const csv = await download(() => page.getByRole('button', { name: 'Save as CSV' }).click());
  const lines = csv.bytes.toString().trim().split('\r\n');
  expect(lines).toHaveLength(13);
  expect(lines[0]).toBe('i,row,reading,p,score,expected,observed − expected');
  expect(lines[1]).toMatch(/^1,1,7\.8,0\.041666666666666664,-1\.73\d+,/);
  await page.getByRole('button', { name: 'Copy as TSV' }).click();
  await expect
    .poll(() => page.evaluate(() => navigator.clipboard.readText()))
    .toContain('\t7.8\t0.041666666666666664\t');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: /Keep as evidence/ }).click();
  await page.getByRole('button', { name: 'Evidence 2' }).click();
  const note = page.getByLabel('Note on the normality test');
  await note.fill('caliper 3');
  await Promise.all([page.waitForResponse(/\/api\/evidence\/[^/]+$/), note.press('Enter')]);
  await page.reload();
  await page.getByRole('button', { name: 'Evidence 2' }).click();
  await expect(page.getByLabel('Note on the normality test')).toHaveValue('caliper 3');
});

test('a new name of the study runs nothing again, another level draws no new sample', async ({ page }) => {
  await page.addInitScript(() => {
    const sent: string[] = [];
    Object.assign(window, { sent });
    const post = Worker.prototype.postMessage as (this: Worker, ...message: unknown[]) => void;
    Worker.prototype.postMessage = function (this: Worker, ...message: unknown[]) {
      const { method } = message[0] as { method?: string };
      if (method) sent.push(method);
      post.apply(this, message);
    };
  });
  const sent = () => page.evaluate(() => (window as unknown as { sent: string[] }).sent.splice(0));
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  expect((await sent()).filter((method) => method === 'chunk').length).toBeGreaterThan(4);
  await page.getByLabel('Name of the study').fill('Tiles of week 46');
  const answered = page.waitForResponse(/\/changes$/);
  await page.getByLabel('Name of the study').press('Enter');
  await answered;
  await expect(page).toHaveTitle(/Tiles of week 46/);
  expect(await sent()).toEqual([]);
  await page.getByLabel('Level', { exact: true }).fill('0.01');
  await page.getByLabel('Level', { exact: true }).press('Enter');
  await expect(page.getByRole('region', { name: 'Finding' })).toContainText('level 0.01');
  await settled(page);
  expect(new Set(await sent())).toEqual(new Set(['advance']));
});

test('all tests of normality are listed, and the one chosen in the sentence gives the finding', async ({ page }) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  const finding = page.getByRole('region', { name: 'Finding' });
  await expect(finding).toContainText('A² = ');
  await finding.getByText('All tests').click();
  const row = (name: string | RegExp) => finding.getByRole('row', { name });
  await expect(finding.getByRole('row')).toHaveCount(10);
  await expect(row(/^Anderson–Darling/)).toContainText('chosen');
  await expect(finding).toContainText('None of 9 tests finds evidence against normality');
  await pick(page.getByLabel('test of normality'), 'shapiro-wilk');
  await expect(page).toHaveURL(/test\.test=shapiro-wilk/);
  await settled(page);
  await expect(finding).toContainText('W = ');
  await expect(row(/^Shapiro–Wilk/)).toContainText('chosen');
  await finding.getByRole('button', { name: /^Shapiro–Wilk/ }).click();
  await expect(finding.getByRole('note').filter({ hasText: 'most sensitive to' })).toContainText('p, asymptotic');
});
