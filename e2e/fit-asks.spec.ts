import type { Evidence, StudyColumn } from '@verdict/contract';
import type { Page, Request } from '@playwright/test';
import { expect, openStage, pick, settled, studyOf, test, violations } from './app.js';

const READINGS = [
  'kiln\tthickness (mm)\twidth (mm)\tfaults\tlooked at',
  ...Array.from({ length: 30 }, (_, i) => {
    const step = (((i * 37) % 30) + 0.5) / 30;
    const thickness = (8 + 0.1 * Math.log(step / (1 - step))).toFixed(2);
    const width = (20 + Math.exp(3 * step)).toFixed(2);
    return [i % 2 ? 'north' : 'south', thickness, width, [0, 0, 1, 2, 0, 1, 4, 3, 0, 1][i % 10], 40].join('\t');
  }),
].join('\n');

const ask = (page: Page, word: string) =>
  page.getByRole('radiogroup', { name: 'Questions about the fit' }).getByText(word, { exact: true }).click();
const finding = (page: Page) => page.getByRole('region', { name: 'Finding' });
const studyId = (page: Page) => /studies\/([^/]+)/.exec(page.url())![1]!;
async function recomputed(page: Page, url: string): Promise<Record<string, boolean | undefined>> {
  const kept: Evidence[] = await (await fetch(`${url}api/studies/${studyId(page)}/evidence`)).json();
  return Object.fromEntries(kept.map(({ analysis, recomputed: again }) => [analysis, again?.same]));
}
/** A question of Fit by its address: the plot and its simulations are not worked out first. */
async function openAsk(page: Page, id: string, readings = READINGS): Promise<void> {
  await studyOf(page, readings);
  await page.goto(`/studies/${studyId(page)}/fit?ask=${id}`);
}
async function open(page: Page): Promise<void> {
  await studyOf(page, READINGS);
  await openStage(page, 'Fit');
  await expect(page.getByRole('img', { name: /Normal probability plot of thickness/ })).toBeVisible();
}

test('a line-up shows and sends no key before the pick, counts viewers, and is kept with its sheet', async ({
  page,
  app,
}) => {
  await open(page);
  const sent: Request[] = [];
  page.on('request', (request) => sent.push(request));
  await ask(page, 'Line-up');
  await expect(finding(page)).toContainText('Which one differs from the others?');
  await settled(page);
  await expect(page.getByRole('img', { name: /^20 small pictures/ })).toBeVisible();
  // Neither the address nor the page nor anything sent holds the seed: it is told after the pick, and looked for then.
  await expect(page.getByRole('button', { name: 'Keep as evidence' })).toHaveCount(0);
  await page.keyboard.press('k');
  await expect(page.getByRole('button', { name: 'Evidence 0' })).toBeVisible();
  const before = {
    text: await page.content(),
    address: page.url(),
    bodies: sent.map((one) => one.postData() ?? one.url()),
  };
  // The plot was on this page already: who picks now is no fresh eye.
  await expect(finding(page)).toContainText('This page has already shown a plot of the readings');
  await expect(page.getByRole('checkbox')).toBeChecked();
  await expect(page.getByRole('button', { name: 'Show the result' })).toBeDisabled();

  await pick(page.getByLabel('Place', { exact: true }), { label: '7' });
  await page.getByRole('button', { name: 'Show the result' }).click();
  await expect(finding(page)).toContainText(/not distinguished|picked out/);
  await expect(finding(page)).toContainText('the pick is weaker evidence');
  const method = page.getByRole('region', { name: 'Method' });
  await expect(method).toContainText('last line-up from seed');
  const seed = /seed (\d+)/.exec((await method.textContent())!)![1]!;
  for (const text of [before.text, before.address, ...before.bodies]) expect(text).not.toContain(seed);

  // A second viewer has another sheet, and is counted alone: only they had not seen the plot.
  await page.getByRole('button', { name: 'Another viewer' }).click();
  await expect(finding(page)).toContainText(/not distinguished|picked out/);
  await expect(page.getByRole('checkbox')).not.toBeChecked();
  const sheet = page.getByRole('img', { name: /^20 small pictures/ });
  await sheet.press('ArrowRight');
  await sheet.press('ArrowRight');
  await sheet.press('Enter');
  await page.getByRole('button', { name: 'Show the result' }).click();
  await expect(finding(page)).toContainText('1 of 2 viewers had seen a plot');
  await expect(method).toContainText('last line-up from seed');
  await settled(page);
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding(page)).toContainText('Kept: line-up.');
  await expect.poll(() => recomputed(page, app.url)).toEqual({ 'line-up': true });
  await openStage(page, 'Verdict');
  await expect(page.getByRole('img', { name: 'line-up of thickness' }).first()).toBeVisible();
});

test('samples of known origin are shown beside the readings, as plots or histograms, and are drawn again on demand', async ({
  page,
}) => {
  await openAsk(page, 'known');
  await expect(finding(page)).toContainText('Reference samples of 30 readings');
  const rows = finding(page).getByRole('row');
  await expect(rows).toHaveCount(9);
  await finding(page).getByRole('button', { name: 'heavy tails' }).click();
  await expect(rows.filter({ hasText: 'heavy tails' })).toContainText('a t distribution with 3 degrees of freedom');
  const picture = page.getByRole('region', { name: 'Reference samples' });
  await picture.getByText('Histograms').click();
  await expect(page).toHaveURL(/kind=heavy.*as=histogram|as=histogram.*kind=heavy/);
  const before = await rows.allTextContents();
  await page.getByRole('button', { name: 'Simulate eight other samples' }).click();
  await expect(page).toHaveURL(/known\.seed=/);
  await expect.poll(() => rows.allTextContents()).not.toEqual(before);
});

test('power of the test: of a normal by departure and by n, of another family by the nearest others', async ({
  page,
  app,
}) => {
  await openAsk(page, 'missed');
  await expect(finding(page)).toContainText(
    /a lognormal distribution with log SD 0.5 .* is detected with about \d+\s% power/,
  );
  await expect(finding(page).getByRole('row')).toHaveCount(6);
  await pick(page.getByLabel('departure'), { label: 'heavy tails' });
  await expect(finding(page)).toContainText('a t distribution with 5 degrees of freedom');
  const far = page.getByLabel('degrees of freedom of heavy tails');
  await far.fill('3');
  await far.press('Enter');
  await expect(finding(page)).toContainText('a t distribution with 3 degrees of freedom');
  // What is beyond the scale is refused where it is typed.
  await far.fill('0.5');
  await far.press('Enter');
  await expect(page.getByRole('alert')).toContainText('from 1 to 1000');
  await settled(page);
  await page.getByText('Sample size').click();
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding(page)).toContainText('Kept: power of the test.');
  await expect.poll(() => recomputed(page, app.url)).toEqual({ power: true });
  await pick(page.getByLabel('distribution', { exact: true }), { label: 'exponential distribution' });
  await expect(finding(page)).toContainText('the nearest alternative to an exponential one');
  // The family is that of Fit: the plot is on its scale.
  await ask(page, 'Plot and test');
  await expect(page.getByRole('region', { name: 'Method' })).toContainText('scale of the exponential distribution');
});

test('counts beside expected values, hanging or side by side, with trials by the row', async ({ page, app }) => {
  await open(page);
  await pick(page.getByLabel('Subject'), { label: 'faults' });
  await expect(page.getByText('faults is a column of counts')).toBeVisible();
  await ask(page, 'Counts');
  await expect(finding(page)).toContainText('a Poisson distribution with mean 1.2');
  await expect(finding(page).getByRole('row').filter({ hasText: 'dispersion D' })).toBeVisible();
  await page.getByText('Hanging').click();
  await page.getByRole('button', { name: 'Table' }).click();
  await expect(page.getByRole('dialog').getByRole('columnheader', { name: 'expected' })).toBeVisible();
  await page.keyboard.press('Escape');
  await pick(page.getByLabel('distribution of the counts'), { label: 'binomial distribution' });
  await expect(page.getByText('needs the number of trials of each count')).toBeVisible();
  await pick(page.getByLabel('column of trials'), { label: 'looked at' });
  await expect(finding(page)).toContainText('a binomial distribution with 40 trials and probability 0.03');
  await settled(page);
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding(page)).toContainText('Kept: count distribution.');
  await expect.poll(() => recomputed(page, app.url)).toEqual({ 'count-fit': true });
});

test('many columns: a row each, a click opens one; groups by a label too', async ({ page, app }) => {
  await openAsk(page, 'many');
  await expect(finding(page)).toContainText('1 of 2 columns departs from a normal distribution: width');
  const table = page.getByRole('region', { name: 'Many columns' });
  await expect(table.getByRole('row').nth(1)).toContainText('width');
  await settled(page);
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding(page)).toContainText('Kept: many columns.');
  await expect.poll(() => recomputed(page, app.url)).toEqual({ screen: true });
  await table.getByRole('button', { name: 'width' }).click();
  await expect(page.getByRole('img', { name: /Normal probability plot of width/ })).toBeVisible();
  await pick(page.getByLabel('Split by'), { label: 'kiln' });
  await ask(page, 'Many columns');
  await expect(finding(page)).toContainText('2 groups by kiln');
});

test('200 columns, some of them empty, are viewed together, and kept', async ({ page, app }) => {
  const wide = Array.from({ length: 13 }, (_, row) =>
    Array.from({ length: 200 }, (_, i) => {
      if (row === 0) return `c${i + 1} (mm)`;
      return i % 50 === 7 ? '' : (5 + ((row * (7 + (i % 5))) % 13) / 7 + i / 100).toFixed(3);
    }).join('\t'),
  ).join('\n');
  await openAsk(page, 'many', wide);
  await expect(finding(page)).toContainText('No evidence against normality in any of 196 columns');
  await expect(finding(page)).toContainText('4 of 200 could not be tested');
  await settled(page);
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding(page)).toContainText('Kept: many columns.');
  await expect.poll(() => recomputed(page, app.url)).toEqual({ screen: true });
});

test('a transformation is chosen, added as a column that follows with its limits, and kept', async ({ page, app }) => {
  await openAsk(page, 'transformed');
  await pick(page.getByLabel('Subject'), { label: 'width, mm' });
  await expect(finding(page)).toContainText('After transformation by Box–Cox with lambda');
  await page.getByRole('button', { name: 'logarithm', exact: true }).click();
  await expect(finding(page)).toContainText('After transformation by the logarithm');
  await settled(page);
  await expect(page.getByRole('img', { name: /^width before and after transformation/ })).toBeVisible();
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding(page)).toContainText('Kept: transformation.');
  await expect.poll(() => recomputed(page, app.url)).toEqual({ transform: true });

  await page.getByRole('button', { name: 'Add as a derived column' }).click();
  await expect(page.getByText('width transformed is calculated from width')).toBeVisible();
  const columns = async (): Promise<StudyColumn[]> =>
    (await (await fetch(`${app.url}api/studies/${studyId(page)}`)).json()).columns;
  await expect
    .poll(async () => (await columns()).at(-1)!.derivation)
    .toMatchObject({ kind: 'transformed', by: 'logarithm', lambda: null });
  // A limit of the source is taken along, and what cannot be transformed is said.
  await openStage(page, 'Readings');
  await page.getByLabel('Upper limit').fill('40');
  await page.getByLabel('Upper limit').press('Enter');
  await expect.poll(async () => (await columns()).at(-1)!.upperLimit).toBeCloseTo(Math.log(40), 12);
  await openStage(page, 'Fit');
  await ask(page, 'Transformation');
  await expect(page.getByText('outside, transformed normal')).toBeVisible();
});

test('two samples: chosen from what there is, changed in the sentence, kept', async ({ page, app }) => {
  await openAsk(page, 'two');
  await finding(page).getByRole('button', { name: 'Groups by kiln' }).click();
  await expect(finding(page)).toContainText(/No evidence that the distributions of south and north differ/);
  await pick(page.getByLabel('first sample'), { label: 'north' });
  await expect(finding(page)).toContainText('north and south');
  await settled(page);
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(finding(page)).toContainText('Kept: two samples.');
  await expect.poll(() => recomputed(page, app.url)).toEqual({ 'two-samples': true });
  await openStage(page, 'Verdict');
  await expect(page.getByRole('img', { name: 'quantiles of north and south' }).first()).toBeVisible();
});

test('no question of Fit has what a screen reader would stumble over, split or not', async ({ page }) => {
  await openAsk(page, 'known');
  await pick(page.getByLabel('Split by'), { label: 'kiln' });
  for (const word of ['Reference samples', 'Power', 'Transformation', 'Many columns', 'Two samples']) {
    await ask(page, word);
    const done = page
      .getByText(/^\d[\d.]* (ms|s)( · \d workers?)?$/)
      .or(page.getByRole('heading', { name: 'No picture' }));
    await expect(done).toBeVisible();
    expect(await violations(page), word).toEqual([]);
  }
  // A question about one column says that it is not split.
  await ask(page, 'Line-up');
  await expect(finding(page)).toContainText('This analysis uses thickness as a whole, not by kiln.');
});
