import type { Evidence } from '@verdict/contract';
import type { Page } from '@playwright/test';
import { commandLine, comboboxOf, expect, holds, openStage, pick, studyOf, test, violations } from './app.js';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Forty tiles of two kilns, the southern ones thicker, by two gauges, with the fault that each was sorted out for. */
const FAULTS = ['chipped', 'chipped', 'pinholed', 'chipped', 'crazed'];
const ROWS = Array.from({ length: 40 }, (_, i) => {
  const step = (((i * 37) % 40) + 0.5) / 40;
  const south = i % 2 === 1;
  const thickness = 8 + 0.1 * Math.log(step / (1 - step)) + (south ? 0.2 : 0);
  const other = thickness + 0.02 + 0.01 * ((i * 7) % 5) - 0.02;
  return [
    south ? 'south' : 'north',
    thickness.toFixed(2),
    other.toFixed(2),
    FAULTS[i % 5]!,
    i % 3 === 0 ? 'night' : 'day',
  ];
});
const BLOCK = ['kiln\tthickness (mm)\tbench (mm)\tfault\tshift', ...ROWS.map((row) => row.join('\t'))].join('\n');

const finding = (page: Page) => page.getByRole('region', { name: 'Finding' });
const claim = (page: Page) => page.getByRole('region', { name: 'Claim' }).first();
const studyId = (page: Page) => /studies\/([^/]+)/.exec(page.url())![1]!;
async function open(page: Page, query = ''): Promise<void> {
  await studyOf(page, BLOCK);
  await page.goto(`/studies/${studyId(page)}/claims${query}`);
  await expect(page.getByRole('region', { name: 'Method' })).toBeVisible();
}
async function type(page: Page, label: string, text: string): Promise<void> {
  await page.getByRole('textbox', { name: label, exact: true }).fill(text);
  await page.getByRole('textbox', { name: label, exact: true }).press('Enter');
}

test('a claim on a mean is entered as a sentence, read back, shown with its null distribution and samples, kept and equal on the command line', async ({
  page,
  app,
}) => {
  await open(page);
  await expect(page.getByText('Enter the claimed mean.')).toBeVisible();
  await type(page, 'claimed value', '8');
  await expect(claim(page)).toContainText('Claim: the mean of thickness is 8.00 mm.');
  await expect(finding(page)).toContainText('The mean of thickness differs from 8.00 mm.');
  await expect(page.getByRole('img', { name: /^null distribution of t, if the claim is true/ })).toBeVisible();

  // The wrong direction is pointed out while it can be mended.
  await pick(page.getByLabel('alternative'), 'less');
  await expect(finding(page)).toContainText('The difference is opposite to the alternative');
  await pick(page.getByLabel('alternative'), 'greater');
  await expect(finding(page)).toContainText('is above 8.00 mm');
  await type(page, 'smallest difference of interest', '0.05');
  await expect(finding(page)).toContainText(/With n = 40, a difference of 0\.05.mm is detected with \d+ % power/);
  await type(page, 'confidence level of the interval', '9.5');
  await expect(finding(page)).toContainText('Did you mean 95 %?');
  await type(page, 'confidence level of the interval', '95');

  const views = page.getByRole('radiogroup', { name: 'Display' });
  await views.getByText('Simulated samples').click();
  await expect(
    page.getByText(/^Of 100 samples drawn as if the claim were true, \d+ lie at least as far from it\.$/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Simulate other samples' }).click();
  await expect(page).toHaveURL(/claim-draws\.seed=4712/);
  await views.getByText('The data').click();
  await expect(page.getByRole('img', { name: /^thickness compared with the claim/ })).toBeVisible();

  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 1' })).toBeVisible();
  const keptNow = async (): Promise<Evidence[]> =>
    (await fetch(`${app.url}api/studies/${studyId(page)}/evidence`)).json();
  await expect.poll(async () => (await keptNow())[0]!.recomputed?.same).toBe(true);
  const [kept] = await keptNow();
  const dir = mkdtempSync(join(tmpdir(), 'verdict-claims-'));
  writeFileSync(join(dir, 'a.csv'), BLOCK.replaceAll('\t', ','));
  const options = JSON.stringify({ claimed: 8, alternative: 'greater', noticeable: 0.05 });
  const printed = await commandLine('mean-claim', join(dir, 'a.csv'), '--column', 'thickness', '--options', options);
  rmSync(dir, { recursive: true });
  expect(printed.result).toEqual(kept!.result);

  await openStage(page, 'Verdict');
  await expect(page.getByRole('article')).toContainText(
    'The mean of thickness is claimed to be 8; alternative: greater.',
  );
});

test('two groups, pairs, several and labels are claimed about, each by what suits it, and recomputed', async ({
  page,
  app,
}) => {
  await open(page);
  await pick(page.getByLabel('Split by'), { label: 'kiln' });
  await expect(finding(page)).toContainText('The mean of thickness differs between north and south.');
  await expect(finding(page)).toContainText('Welch’s t test does not need it');
  await pick(page.getByLabel('first group'), 'south');
  await expect(page).toHaveURL(/first=south/);
  await holds(page.getByLabel('second group'), 'north');
  await expect(claim(page)).toContainText('in south and north');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 1' })).toBeVisible();

  await pick(page.getByLabel('Split by'), { label: 'columns to compare' });
  await pick(page.getByLabel('test of two means'), 'paired');
  await expect(finding(page)).toContainText('The mean of thickness differs from that of bench');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 2' })).toBeVisible();

  await type(page, 'smallest difference of interest', '0.3');
  await expect(page).toHaveURL(/two-means\.noticeable=0\.3/);
  await pick(page.getByLabel('Subject', { exact: true }), { label: 'fault' });
  // What was said of one column is not said of another.
  await expect(page).not.toHaveURL(/two-means\.noticeable/);
  await expect(finding(page)).toContainText(
    'The 3 categories of fault differ in frequency. Largest difference: chipped, 24 observed',
  );
  await type(page, 'claimed proportions', 'chipped 60, pinholed 20, crazed 10');
  await expect(page.getByText('add up to 90 % instead of 100 %')).toBeVisible();
  await type(page, 'claimed proportions', 'chipped 60, pinholed 20, crazed 20');
  await expect(finding(page)).toContainText('No evidence that the proportions of fault differ from those claimed');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 3' })).toBeVisible();

  await pick(page.getByLabel('Split by'), { label: 'shift' });
  await expect(finding(page)).toContainText('No evidence that the proportions of fault differ between the 2 groups');
  // What does not suit says why.
  await comboboxOf(page.getByLabel('Claim')).locator('xpath=ancestor::*[@data-chosen][1]').click();
  await expect(page.getByRole('option', { name: /^mean – fault holds labels/ })).toHaveAttribute(
    'aria-disabled',
    'true',
  );
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 4' })).toBeVisible();
  const recomputed = async () => {
    const all: Evidence[] = await (await fetch(`${app.url}api/studies/${studyId(page)}/evidence`)).json();
    return all.map(({ analysis, recomputed: again }) => [analysis, again?.same]).sort();
  };
  await expect.poll(recomputed).toEqual([
    ['counts-claim', true],
    ['table-claim', true],
    ['two-means', true],
    ['two-means', true],
  ]);
});

test('figures are typed in place of readings, their totals checked, and kept as evidence of their own kind', async ({
  page,
  app,
}) => {
  await open(page);
  await page.getByRole('radiogroup', { name: 'Source of the data' }).getByText('Typed figures').click();
  await type(page, 'n', '12');
  await type(page, 'mean', '8,10');
  await type(page, 'SD', '-1');
  await expect(page.getByText('The standard deviation must be a number between 0 and 10¹⁵⁰.').first()).toBeVisible();
  await type(page, 'SD', '0.1');
  await type(page, 'claimed value', '8');
  await expect(finding(page)).toContainText('The mean of the readings differs from 8');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 1' })).toBeVisible();
  const kept = async () =>
    ((await (await fetch(`${app.url}api/studies/${studyId(page)}/evidence`)).json()) as Evidence[])[0]!;
  await expect.poll(async () => (await kept()).recomputed?.same).toBe(true);
  expect(await kept()).toMatchObject({ column: null, request: { figures: { n: 12, mean: 8.1, sd: 0.1 } } });

  await pick(page.getByLabel('Claim'), 'counts-claim');
  await type(page, 'counts', 'chipped 24, pinholed 12, crazed 9');
  await type(page, 'total', '46');
  await expect(page.getByText('The counts add up to 45, but the total is 46 (difference 1)').first()).toBeVisible();
  await type(page, 'total', '45');
  await expect(finding(page)).toContainText('chipped, 24 observed and 15 expected');
});

test('many claims are viewed together, and nothing on the pages stops a screen reader', async ({ page }) => {
  await open(page, '?mean-claim.claimed=8');
  await expect(finding(page)).toContainText('differs from');
  expect(await violations(page)).toEqual([]);
  await page.getByRole('radiogroup', { name: 'Questions about claims' }).getByText('Many claims').click();
  await expect(finding(page)).toContainText('None of 2 columns can be tested.');
  await expect(page.getByText('Its card states no claim').first()).toBeVisible();
  await page.getByRole('button', { name: 'Dark' }).click();
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'bench', exact: true }).click();
  await expect(page).toHaveURL(/\/claims/);
  await holds(page.getByLabel('Subject', { exact: true }), /.+/);
});
