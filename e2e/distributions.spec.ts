import type { Page } from '@playwright/test';
import { TWELVE, pick, expect, openStage, settled, studyOf, test, holds } from './app.js';

const answer = (page: Page) => page.getByRole('region', { name: 'Answer' });
const address = (page: Page) => new URL(page.url()).searchParams;

test('a question is a sentence; its answer names the direction, and the address holds it', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Distributions' }).click();
  await page.getByLabel('mean', { exact: true }).fill('8.02');
  await page.getByLabel('standard deviation', { exact: true }).fill('0,11');
  await page.getByLabel('Lower limit', { exact: true }).fill('7.8');
  await page.getByLabel('Upper limit', { exact: true }).fill('8.2');
  await expect(answer(page)).toContainText('92.64 % of values are between 7.8 and 8.2.');
  await pick(page.getByLabel('Where'), 'above');
  await page.getByLabel('Limit', { exact: true }).fill('8.17');
  await expect(answer(page)).toContainText(
    /8\.634\s% of values are above 8\.17\.\s*The other 91\.37\s% are below 8\.17\./,
  );
  await expect.poll(() => address(page).get('a')).toBe('8.17');
  await page.reload();
  await expect(answer(page)).toContainText('8.634 % of values are above 8.17.');
  await expect(page.getByRole('img', { name: /^Density of a normal distribution .* at 8\.17: 8\.634/ })).toBeVisible();
  await page.goBack();
  await expect(answer(page)).toContainText('between 7.8 and 8.2');
});

test('which value has a share, recorded values, moments in place of shape and scale', async ({ page }) => {
  await page.goto('/distributions?family=normal&p.mean=8.02&p.sd=0.11');
  await pick(page.getByLabel('Question', { exact: true }), 'value');
  await page.getByLabel('Proportion in percent').fill('10');
  await expect(answer(page)).toContainText('10 % of values are above 8.160971.');
  await page.getByLabel('Proportion in percent').fill('0.1');
  await expect(answer(page).getByRole('note')).toContainText('For 10 % enter 10.');
  await pick(page.getByLabel('Side'), 'centralShare');
  await page.getByLabel('Proportion in percent').fill('95');
  await expect(answer(page)).toContainText('Range 7.804404 to 8.235596 contains the middle 95 % of values');
  await pick(page.getByLabel('Question', { exact: true }), 'chance');
  await pick(page.getByLabel('Where'), 'recordedAs');
  await page.getByLabel('Recorded value').fill('8.0');
  await page.getByLabel('Resolution').fill('0.1');
  await expect(answer(page)).toContainText('34.52 % of values are recorded as 8, that is from 7.95 to just below 8.05');
  await pick(page.getByLabel('Family', { exact: true }), 'gamma');
  await pick(page.getByLabel('Specified by'), 'sd');
  await page.getByLabel('mean', { exact: true }).fill('5');
  await page.getByLabel('standard deviation', { exact: true }).fill('2');
  await expect(page.getByRole('region', { name: 'Question', exact: true })).toContainText(
    'That is a gamma distribution with shape 6.25 and scale 0.8.',
  );
});

test('what cannot be answered is said at its field, and nothing typed is lost', async ({ page }) => {
  await page.goto('/distributions');
  const sd = page.getByLabel('standard deviation', { exact: true });
  for (const [text, words] of [
    ['0', 'The standard deviation is a number above 0, not 0.'],
    ['-1', 'The standard deviation is a number above 0, not -1.'],
    ['wide', 'The standard deviation is a number above 0.'],
  ] as const) {
    await sd.fill(text);
    await expect(page.getByRole('alert')).toHaveText(words);
    await expect(answer(page)).toContainText('No answer until the question above is corrected.');
    await expect(sd).toHaveValue(text);
  }
  await sd.fill('1');
  await page.getByLabel('Lower limit', { exact: true }).fill('3');
  await expect(page.getByRole('alert')).toHaveText('The lower limit must be below the upper limit.');
  await pick(page.getByLabel('Family', { exact: true }), 'binomial');
  await page.getByLabel('probability').fill('1.2');
  await expect(page.getByRole('alert').first()).toContainText('between 0 and 1, exclusive, not 1.2');
  await page.getByLabel('probability').fill('0.3');
  await page.getByLabel('trials').fill('1e9');
  await pick(page.getByLabel('Where'), 'below included');
  await page.getByLabel('Limit', { exact: true }).fill('300000000');
  await expect(answer(page)).toContainText('50 % of values are at most 3');
  await pick(page.getByLabel('Family', { exact: true }), 'cauchy');
  await pick(page.getByLabel('Where'), 'withinSd');
  await expect(answer(page)).toContainText('no standard deviation, because its tails are too heavy');
});

test('limits are dragged on the picture and moved by keys, both ways in step, within one frame', async ({ page }) => {
  await page.goto('/distributions?family=normal&p.mean=8.02&p.sd=0.11&ask=between&a=7.8&b=8.2');
  const handle = page.getByRole('slider', { name: 'Upper limit on the picture' });
  await expect(handle).toHaveAttribute('aria-valuetext', '8.2');
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + box.height / 2, { steps: 6 });
  await page.mouse.up();
  const typed = Number(await page.getByLabel('Upper limit', { exact: true }).inputValue());
  expect(typed).toBeGreaterThan(8.22);
  await expect(handle).toHaveAttribute('aria-valuetext', String(typed));
  await expect(answer(page)).toContainText(`are between 7.8 and ${typed}.`);
  await handle.focus();
  await page.keyboard.press('ArrowLeft');
  await expect
    .poll(async () => Number(await page.getByLabel('Upper limit', { exact: true }).inputValue()))
    .toBeLessThan(typed);
  await page.getByLabel('Upper limit', { exact: true }).fill('8.05');
  await expect(handle).toHaveAttribute('aria-valuetext', '8.05');

  // A move of the pointer has reached the words once the microtasks have run, so before the next frame is drawn.
  const late = await handle.evaluate(async (element) => {
    const { left, top, height } = element.getBoundingClientRect();
    const at = (x: number, type: string) =>
      element.dispatchEvent(
        new PointerEvent(type, { clientX: x, clientY: top + height / 2, pointerId: 1, bubbles: true, isPrimary: true }),
      );
    element.setPointerCapture = () => undefined;
    const words = () => document.querySelector('[aria-label="Answer"] .finding')!.textContent;
    at(left + 11, 'pointerdown');
    const late: number[] = [];
    for (let i = 1; i <= 20; i++) {
      const before = words();
      at(left + 11 + i * 4, 'pointermove');
      for (let k = 0; k < 10; k++) await null;
      if (words() === before) late.push(i);
      await new Promise(requestAnimationFrame);
    }
    at(left + 100, 'pointerup');
    return late;
  });
  expect(late).toEqual([]);
});

test('counts: the limits counted or not, and a second family laid over', async ({ page }) => {
  await page.goto('/distributions?family=binomial&p.trials=20&p.probability=0.1&ask=below&b=3');
  await expect(answer(page)).toContainText(
    /86\.7\s% of values are at most 3\.\s*The other 13\.3\s% are more than 3\. For fewer than 3, it is 67\.69\s%\./,
  );
  await pick(page.getByLabel('Where'), 'below excluded');
  await expect(answer(page)).toContainText('67.69 % of values are fewer than 3.');
  await pick(page.getByLabel('Second family'), 'poisson');
  await page.getByLabel('mean of the second family').fill('2');
  await expect(answer(page)).toContainText(
    'Under a Poisson distribution with mean 2: 67.67 % of values are fewer than 3.',
  );
  await pick(page.getByLabel('View'), 'cumulative');
  await expect.poll(() => address(page).get('view')).toBe('cumulative');
  await page.getByLabel('Picture from').fill('9');
  await page.getByLabel('Picture to').fill('2');
  await expect(page.getByRole('alert')).toContainText('must begin below its end');
});

test('the last questions, and the answer copied as a sentence and as JSON', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.goto('/distributions?family=weibull&p.shape=2&p.scale=10&ask=below&b=4');
  const last = page.getByRole('region', { name: 'Last questions' });
  await expect(last.getByRole('link')).toHaveCount(1);
  await page.getByLabel('Limit', { exact: true }).fill('5');
  await expect(last.getByRole('link')).toHaveCount(2);
  await page.getByRole('button', { name: 'Copy the answer' }).click();
  const copied = () => page.evaluate(() => navigator.clipboard.readText());
  await expect
    .poll(copied)
    .toContain(
      'For a Weibull distribution with shape 2 and scale 10, what is the probability of a value below 5? 22.12',
    );
  await page.getByRole('button', { name: 'Copy as JSON' }).click();
  await expect.poll(async () => (await copied()).startsWith('{')).toBe(true);
  const all = JSON.parse(await copied());
  expect(all).toMatchObject({
    analysis: 'distribution',
    request: { family: 'weibull', below: 5 },
    result: { question: 'below' },
  });
  await last.getByRole('link').nth(1).click();
  await expect(page.getByLabel('Limit', { exact: true })).toHaveValue('4');
  await last.getByRole('button', { name: 'Clear the list' }).click();
  await expect(last).toBeHidden();
});

test('opened from the fit: readings under the curve, their share with its interval, and kept as evidence', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await openStage(page, 'Fit');
  await settled(page);
  await page.getByRole('link', { name: 'Calculate probabilities' }).click();
  await holds(page.getByLabel('Readings under the curve'), /.+/);
  // The full mean, not the rounded one of the screen.
  await page.getByLabel('mean', { exact: true }).focus();
  await expect(page.getByLabel('mean', { exact: true })).toHaveValue(String(96.23 / 12));
  await pick(page.getByLabel('Where'), 'above');
  await page.getByLabel('Limit', { exact: true }).fill('8.1');
  await expect(answer(page)).toContainText(
    'Of the readings of thickness, 4 of 12 (33.3 %) are in this range, 95 % confidence interval 9.92 % to 65.1 %.',
  );
  await pick(page.getByLabel('Limits included'), 'excluded');
  await expect(answer(page)).toContainText('3 of 12 (25 %)');
  await page
    .getByRole('heading', { level: 2 })
    .first()
    .or(page.getByRole('region', { name: 'Answer' }))
    .first()
    .click();
  await page.keyboard.press('k');
  await expect(answer(page)).toContainText('Kept: distribution.');
  await pick(page.getByLabel('Readings under the curve'), '');
  await page.getByRole('button', { name: /Keep as evidence/ }).click();
  await expect(answer(page)).toContainText('Kept: distribution.');
  await page.getByRole('button', { name: 'Evidence 2' }).click();
  const drawer = page.getByRole('dialog', { name: 'Evidence' });
  await expect(drawer.getByRole('heading')).toContainText(['Evidence', 'Distribution of thickness', 'Distribution']);
  for (const i of [0, 1]) await drawer.getByRole('button', { name: 'Recompute' }).nth(i).click();
  await expect(drawer.getByText('the same, bit for bit')).toHaveCount(2);
});

test('inside a study the first question is about the subject’s own fit; a long list of families is searched', async ({
  page,
}) => {
  await studyOf(page, TWELVE);
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Distributions' }).click();
  await expect(page).toHaveURL(/p\.mean=8\.019\d+&p\.sd=0\.119\d+/);
  await expect(page.getByLabel('mean', { exact: true })).toHaveValue('8.019167');
  await page.getByLabel('mean', { exact: true }).focus();
  await expect(page.getByLabel('mean', { exact: true })).toHaveValue(/^8\.0191666\d{6,}$/);
  await holds(page.getByLabel('Readings under the curve'), /.+/);
  const family = page.getByRole('combobox', { name: 'Family', exact: true });
  await family.click({ force: true });
  await page.keyboard.type('weib');
  await expect(page.getByRole('option')).toHaveText(['Weibull']);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/family=weibull/);
});
