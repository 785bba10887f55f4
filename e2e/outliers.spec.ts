import type { Evidence } from '@verdict/contract';
import type { Page } from '@playwright/test';
import { commandLine, expect, holds, openStage, pick, settled, studyOf, test, violations } from './app.js';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Thirty ordinary readings, two far ones that hide each other, and one with its decimal point shifted in another column. */
const CELLS = Array.from({ length: 30 }, (_, i) => {
  const step = (((i * 37) % 30) + 0.5) / 30;
  const thickness = (8 + 0.1 * Math.log(step / (1 - step))).toFixed(2);
  const width = (20 + 0.2 * Math.log((1 - step) / step)).toFixed(2);
  return [i % 3 === 0 ? 'north' : i % 3 === 1 ? 'south' : 'east', thickness, i === 11 ? '2.01' : width];
});
const BLOCK = [
  'kiln\tthickness (mm)\twidth (mm)',
  ...[...CELLS, ['north', '8.81', '20.1'], ['south', '8.82', '19.9']].map((c) => c.join('\t')),
].join('\n');

const finding = (page: Page) => page.getByRole('region', { name: 'Finding' });
const studyId = (page: Page) => /studies\/([^/]+)/.exec(page.url())![1]!;
const ask = (page: Page, word: string) =>
  page.getByRole('radiogroup', { name: 'Questions about outliers' }).getByText(word, { exact: true }).click();
const told = (page: Page, word: string) =>
  page.getByRole('radiogroup', { name: 'Tables' }).getByText(word, { exact: true }).click();
const show = (page: Page, word: string) =>
  page.getByRole('radiogroup', { name: 'Pictures' }).getByText(word, { exact: true }).click();
async function open(page: Page, query = ''): Promise<void> {
  await studyOf(page, BLOCK);
  await page.goto(`/studies/${studyId(page)}/outliers${query}`);
  await settled(page);
}

test('a pair that hides itself is named, pointed at both ways, left in or set aside with a reason, and printed', async ({
  page,
}) => {
  await open(page);
  await expect(finding(page)).toContainText(
    'Suspected outliers: rows 32 (8.82) and 31 (8.81) (generalised ESD test, up to 3 outliers',
  );
  await expect(finding(page)).toContainText('Grubbs’ test may miss outliers (masking): it finds none');
  await expect(finding(page)).toContainText('Look for the cause first.');

  // From the list to the picture, and back.
  await page.getByRole('row', { name: /^32 8\.82/ }).hover();
  const picture = page.getByRole('region', { name: 'Picture' });
  await expect(picture).toContainText('row 32: 8.82 mm, z');
  await page.getByRole('img', { name: /^readings of thickness/ }).press('ArrowRight');
  await expect(finding(page)).toContainText(/Row \d+, \d\.\d\d/);

  await page
    .getByRole('row', { name: /^32 8\.82/ })
    .getByRole('button')
    .click();
  await finding(page).getByRole('button', { name: 'Keep row 32 …' }).click();
  await page.getByRole('button', { name: 'no cause found' }).click();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(finding(page)).toContainText('1 kept with a reason');
  // It still takes part.
  await expect(finding(page)).toContainText('Suspected outliers: rows 32 (8.82) and 31 (8.81)');
  await page.getByRole('button', { name: 'Set it aside …' }).click();
  await page.getByRole('button', { name: 'instrument fault' }).click();
  await page.getByRole('button', { name: 'Set aside', exact: true }).click();
  await expect(finding(page)).toContainText('The significance level may not hold: 1 reading is already set aside.');

  await openStage(page, 'Verdict');
  await page.getByRole('link', { name: 'Open the report' }).click();
  const sheet = page.getByRole('article', { name: 'Report' });
  await expect(sheet).toContainText('row 31, 8.81: instrument fault');
  await expect(sheet).toContainText('Suspected outliers kept with a reason:');
  await expect(sheet).toContainText('row 32, 8.82: no cause found');

  await openStage(page, 'Outliers');
  await page.getByRole('button', { name: 'Restore and test together' }).click();
  await expect(finding(page)).toContainText('Suspected outliers: rows 32 (8.82) and 31 (8.81)');
  await expect(page).toHaveURL(/outliers\.rule=generalized-esd/);
  await page.getByText('1 kept with a reason').click();
  await page.getByRole('button', { name: 'Review row 32 again' }).click();
  await expect(finding(page)).not.toContainText('kept with a reason');
  await page.keyboard.press('Control+z');
  await expect(finding(page)).toContainText('1 kept with a reason');
});

test('all rules are listed, one is chosen for the study, and the evidence is the same on the command line', async ({
  page,
  app,
}) => {
  await open(page, '?panel=rules');
  await expect(page.getByRole('row', { name: /^generalised ESD/ })).toContainText('32, 31');
  await expect(page.getByRole('row', { name: /^Dixon/ })).toContainText('–');
  await expect(page.getByRole('row', { name: /^z > 3/ })).toContainText('%');
  await page
    .getByRole('row', { name: /^Grubbs(’ test)? [\d.]/ })
    .getByRole('button')
    .click();
  await page.getByRole('button', { name: 'Make it the rule of the study' }).click();
  await expect(finding(page)).toContainText('No outliers found (Grubbs’ test');
  await expect(finding(page)).toContainText('would be flagged');
  await holds(page.getByLabel('outlier rule of the study'), 'grubbs');
  await settled(page);

  // On another scale the same readings.
  await pick(page.getByLabel('distribution', { exact: true }), 'lognormal');
  await expect(finding(page)).toContainText('for a lognormal distribution');
  await expect(finding(page)).toContainText('For a normal distribution the rule finds none either.');
  await pick(page.getByLabel('distribution', { exact: true }), 'normal');
  await pick(page.getByLabel('outlier rule of the study'), 'generalized-esd');
  await told(page, 'Without them');
  await expect(page.getByRole('row', { name: /^n / })).toContainText('30');
  for (const [word, name] of [
    ['In order', /^readings in order of thickness/],
    ['Influence', /^influence of each reading of thickness/],
    ['Plot', /^probability plot of thickness/],
    ['Box', /^box plot of thickness/],
  ] as const) {
    await show(page, word);
    await expect(page.getByRole('img', { name })).toBeVisible();
  }
  await settled(page);
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 1' })).toBeVisible();
  const keptNow = async (): Promise<Evidence[]> =>
    (await fetch(`${app.url}api/studies/${studyId(page)}/evidence`)).json();
  await expect.poll(async () => (await keptNow())[0]!.recomputed?.same).toBe(true);
  const kept = await keptNow();

  const dir = mkdtempSync(join(tmpdir(), 'verdict-outliers-'));
  writeFileSync(join(dir, 'a.csv'), BLOCK.replaceAll('\t', ','));
  const options = JSON.stringify({ alpha: 0.05 });
  const printed = await commandLine('outliers', join(dir, 'a.csv'), '--column', 'thickness', '--options', options);
  rmSync(dir, { recursive: true });
  const tests = (result: unknown) => JSON.parse(JSON.stringify((result as { tests: unknown }).tests)) as unknown;
  expect(tests(printed.result)).toEqual(tests(kept[0]!.result));
});

test('which rule, groups and many columns answer, are kept and recomputed, and a slip is pointed out', async ({
  page,
  app,
}) => {
  await open(page, '?ask=which');
  await expect(finding(page)).toContainText('one outlier of 5 SD is detected best by');
  await expect(page.getByRole('row', { name: /^box-plot fences/ })).toContainText('%');
  await page
    .getByRole('radiogroup', { name: 'Outliers in the samples' })
    .getByText('two outliers on the same side')
    .click();
  await expect(page.getByRole('columnheader', { name: 'two outliers on the same side, found' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 1' })).toBeVisible();

  await ask(page, 'Groups');
  await expect(page.getByText('Choose a label column to split the subject by.')).toBeVisible();
  await finding(page).getByRole('button', { name: 'kiln' }).click();
  await expect(finding(page)).toContainText(/Outlying: |No outlying group/);
  await settled(page);
  await page.getByRole('radiogroup', { name: 'Statistic' }).getByText('Means (h)').click();
  await expect(page.getByRole('img', { name: /kiln/ })).toBeVisible();
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 2' })).toBeVisible();

  await pick(page.getByLabel('Split by'), { label: 'nothing' });
  await ask(page, 'Many columns');
  await expect(finding(page)).toContainText(/suspected outliers? in [12] of 2 columns: /);
  await settled(page);
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Evidence 3' })).toBeVisible();
  const recomputed = async () => {
    const all: Evidence[] = await (await fetch(`${app.url}api/studies/${studyId(page)}/evidence`)).json();
    return all.map(({ analysis, recomputed: again }) => [analysis, again?.same]).sort();
  };
  await expect.poll(recomputed).toEqual([
    ['outlier-rules', true],
    ['outlier-screen', true],
    ['outlying-groups', true],
  ]);

  await page.getByRole('button', { name: 'width', exact: true }).click();
  await expect(finding(page)).toContainText(
    'Row 12, 2.01: possible typing error. decimal point shifted: 20.1 would fit',
  );
  await page.getByRole('button', { name: 'Correct it in the table' }).click();
  await expect(page.getByRole('grid')).toBeVisible();
  await expect(page.getByText('the 1 chosen in a picture')).toBeVisible();
});

test('nothing on the pages of Outliers stops a screen reader, light or dark', async ({ page }) => {
  await open(page);
  expect(await violations(page)).toEqual([]);
  await told(page, 'All rules');
  await page.getByRole('button', { name: 'Dark' }).click();
  expect(await violations(page)).toEqual([]);
  await ask(page, 'Compare rules');
  await settled(page);
  expect(await violations(page)).toEqual([]);
});
