import type { Job } from '@verdict/contract';
import { expect, settled, studyOf, TWELVE, test } from './app.js';

/** A family that takes long to fit, and a band that asks for no simulation. */
const OF_GEV = 'plot.family=generalized-extreme-value&plot.band=line';

test('a simulation that would take long is handed to the server, followed, stopped, gone on with and found again', async ({
  page,
  app,
}) => {
  await studyOf(page, TWELVE);
  await page.goto(page.url().replace(/readings.*/, `fit?${OF_GEV}&fit.replicates=300000`));
  const replicates = page.getByLabel('number of simulated samples for the test');
  // Short work is not handed over; this is told after its first second.
  await page.getByRole('button', { name: 'Continue on the server' }).click();
  const method = page.getByRole('region', { name: 'Method' });
  await expect(method).toContainText('on the server');
  const place = page.url();

  // The page is left; the work goes on.
  await page.getByRole('link', { name: 'Jobs, 1 running' }).click();
  const list = page.getByRole('list', { name: 'Jobs' });
  await expect(list).toContainText('for the generalized extreme value distribution');
  await expect(list.getByRole('progressbar')).not.toHaveAttribute('aria-valuenow', '0');
  await list.getByRole('button', { name: 'Stop' }).click();
  await expect(list).toContainText(/stopped at \d+/);

  // Back where it was asked, it stands where it was and goes on.
  await list.getByRole('link').click();
  await expect(page).toHaveURL(place);
  await expect(method).toContainText('stopped');
  await method.getByRole('button', { name: 'Continue' }).click();
  await expect(method).toContainText('on the server');
  await method.getByRole('button', { name: 'Stop' }).click();
  await expect(method).toContainText('stopped');

  // Another question is worked out here as ever.
  await replicates.fill('999');
  await replicates.press('Enter');
  await settled(page);
  await expect(page.getByRole('region', { name: 'Finding' })).toContainText('p =');
  const jobs: Job[] = await (await fetch(`${app.url}api/jobs`)).json();
  const [job] = jobs.filter(({ place: of }) => place.endsWith(of));
  expect(job).toMatchObject({
    state: 'stopped',
    request: { replicates: 300_000, family: 'generalized-extreme-value' },
  });
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'Remove from the list' }).first().click();
  await expect(page.getByText('There are no jobs.')).toBeVisible();
});

test('what the server has come to is shown where it was asked, and kept like any result', async ({ page, app }) => {
  await studyOf(page, TWELVE);
  await page.goto(page.url().replace(/readings.*/, 'fit?plot.family=logistic&plot.band=line'));
  await settled(page);
  await page.keyboard.press('k');
  await expect(page.getByRole('region', { name: 'Finding' })).toContainText(
    'Kept: probability plot and goodness of fit.',
  );
  const id = /studies\/([^/]+)/.exec(page.url())![1]!;
  // The same question with another seed, asked of the server by itself.
  const [, kept] = await (await fetch(`${app.url}api/studies/${id}/evidence`)).json();
  const { analysis, version, column, fingerprint, request } = kept;
  const asked = { analysis, version, column, fingerprint, parts: null, request: { ...request, seed: 99 } };
  const body = { ...asked, id: crypto.randomUUID(), who: 'tester', place: `/studies/${id}/fit` };
  const headers = { 'Content-Type': 'application/json' };
  await fetch(`${app.url}api/studies/${id}/jobs`, { method: 'POST', headers, body: JSON.stringify(body) });
  const working = page.getByRole('link', { name: /^Jobs/ });
  await expect(working).toHaveText('Jobs');
  const seed = page.getByLabel('seed of the test');
  await seed.fill('99');
  await seed.press('Enter');
  await settled(page);
  const result = await (await fetch(`${app.url}api/jobs/${body.id}/result`)).json();
  await page.getByRole('button', { name: 'Keep as evidence' }).click();
  await expect(page.getByRole('region', { name: 'Finding' })).toContainText('Kept: goodness of fit.');
  const evidence = await (await fetch(`${app.url}api/studies/${id}/evidence`)).json();
  expect(evidence.at(-1).result).toEqual(result.result);
});
