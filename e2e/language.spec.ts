import type { Page } from '@playwright/test';
import { expect, gridCell, openStage, pick, stored, studyOf, test, TWELVE } from './app.js';

test.use({ locale: 'de-DE' });

/** Everything on the page that a reader sees, as text: words, fields, and what pointing or a screen reader says. */
const READ = () => {
  const texts = [document.querySelector('#app')?.textContent ?? ''];
  for (const field of document.querySelectorAll('input')) texts.push(field.value);
  for (const name of ['title', 'aria-label'])
    for (const one of document.querySelectorAll(`[${name}]`)) texts.push(one.getAttribute(name) ?? '');
  return texts.flatMap((text) => text.match(/.{0,30}(?<![\d.])\d+\.\d+(?![\d.]).{0,20}/g) ?? []);
};

/** Opens a stage and waits for the time that its calculation took. */
async function calculated(page: Page, stage: 'Shape' | 'Fit' | 'Outliers' | 'Claims'): Promise<void> {
  await openStage(page, stage);
  await expect(page).toHaveURL(new RegExp(`/${stage.toLowerCase()}`));
  if (stage === 'Claims') {
    await page.getByLabel('claimed value', { exact: true }).fill('8,05');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'Finding' })).toContainText('8,05 mm');
  }
  await expect(page.getByRole('region', { name: 'Method' })).toContainText(/\d (ms|s)( |$)/);
}

test('numbers and dates are in the language of the browser on every stage, and what is typed is understood in it', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await expect(gridCell(page, 1, 0)).toHaveText('7,80');
  await gridCell(page, 1, 0).click();
  await page.keyboard.type('7,81');
  await page.keyboard.press('Enter');
  await stored(page);
  await expect(gridCell(page, 1, 0)).toHaveText('7,81');
  await page.getByLabel('Upper limit').fill('8,5');
  await page.keyboard.press('Enter');
  await stored(page);
  await expect(page.getByLabel('Upper limit')).toHaveValue('8,5');
  for (const stage of ['Shape', 'Fit', 'Outliers', 'Claims'] as const) {
    await calculated(page, stage);
    expect(await page.evaluate(READ), stage).toEqual([]);
  }
  await calculated(page, 'Fit');
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await openStage(page, 'Verdict');
  await page.getByRole('link', { name: 'Report' }).click();
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report).toContainText('Upper limit 8,5');
  await expect(report).toContainText(/\d\d\.\d\d\.\d{4}, \d\d:\d\d/);
  expect((await report.innerText()).match(/(?<![\d.])\d+\.\d+(?![\d.]).*/g) ?? []).toEqual([]);
});

test('the language is chosen once for every page of the browser, and stays', async ({ page }) => {
  await studyOf(page, TWELVE);
  const first = gridCell(page, 1, 0);
  await expect(first).toHaveText('7,80');
  await page.getByRole('button', { name: 'Help' }).click();
  await pick(page.getByLabel('Numbers and dates'), 'en-GB');
  await expect(first).toHaveText('7.80');
  await page.reload();
  await expect(first).toHaveText('7.80');
  await page.goto('/');
  await expect(page.getByLabel('Numbers and dates').first()).toBeVisible();
  await pick(page.getByLabel('Numbers and dates'), '');
  await page
    .getByRole('link', { name: /untitled|study/i })
    .first()
    .click();
  await expect(gridCell(page, 1, 0)).toHaveText('7,80');
});
