import { expect, test } from '@playwright/test';
import { noViolations } from './axe';
import { signIn } from './steps';

const desk = process.env.GW_DESK ?? '';

/** Has the donor desk fail in a way, or not. */
async function deskIs(fault: string): Promise<void> {
  await fetch(`${desk}/fault`, { method: 'POST', body: new URLSearchParams({ fault }), redirect: 'manual' });
}

/** Changes a member over there, or adds one. */
async function member(fields: Record<string, string>): Promise<void> {
  await fetch(`${desk}/people`, { method: 'POST', body: new URLSearchParams(fields), redirect: 'manual' });
}

test('a feed that is half said is gone on with by a colleague, tried, run, broken, mended and taken back', async ({
  page,
}) => {
  await signIn(page, 'idris');
  await page.goto('/gather/feeds');
  await expect(page.getByRole('heading', { name: 'Feeds' })).toBeVisible();
  await noViolations(page);
  await page.getByRole('link', { name: 'Neighbours of East Landing' }).click();
  await expect(page.getByText('a feed, half done')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Turn it on' })).toBeDisabled();
  await noViolations(page);

  // The columns are matched as they are guessed, over their first values.
  await page.getByRole('button', { name: 'no column is matched yet' }).click();
  await expect(page.getByRole('cell', { name: 'Record id' })).toBeVisible();
  await noViolations(page);
  await page.getByRole('button', { name: /^Match \d+ columns/ }).click();
  await page.getByRole('button', { name: /^Onto which lists/ }).click();
  await page.getByRole('checkbox', { name: 'Ferry news' }).click();
  await expect(page.getByRole('checkbox', { name: 'Ferry news' })).toBeChecked();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Permission by email/ }).click();
  await page.getByRole('radio', { name: 'Those whose column says yes' }).click();
  const agreedTo = page.getByRole('group', { name: 'What they agreed to by email' });
  await agreedTo.getByRole('checkbox', { name: 'Ferry news' }).click();
  await expect(agreedTo.getByRole('checkbox', { name: 'Ferry news' })).toBeChecked();
  await page.getByLabel('Why they may be written to').fill('They ticked news when they became a member');
  await page.getByLabel('Who vouches for it').fill('Idris Vale');
  await page.keyboard.press('Tab');
  await noViolations(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Permission by text/ }).click();
  await expect(page.getByRole('radio', { name: 'They agreed to none' })).toBeChecked();
  await page.keyboard.press('Escape');
  await expect(page.getByText('a feed, off')).toBeVisible();

  // A trial writes nothing.
  const row = (text: string) => page.getByRole('row').filter({ hasText: text });
  await page.getByRole('button', { name: 'Try it without writing anything' }).click();
  await expect(row('a trial').getByText('tried, nothing written')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByRole('button', { name: 'Take it back out' })).toBeVisible({ timeout: 60_000 });
  await noViolations(page);

  // Broken over there: nothing is written, and it is said what is wrong.
  await deskIs('half a page');
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByText(/end in the middle or are no JSON/).first()).toBeVisible({ timeout: 60_000 });
  await deskIs('none');
  await member({
    id: 'D-1000',
    first: 'Ada',
    last: 'Abbott',
    email: 'ada.here@members.lanternferry.test',
    news: 'yes',
  });
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByRole('button', { name: 'Take it back out' })).toHaveCount(2, { timeout: 60_000 });

  // On, it looks at once when the desk tells of a change.
  await page.getByRole('button', { name: /^At once/ }).click();
  await page.getByRole('button', { name: 'at once', exact: true }).click();
  await page.getByRole('button', { name: 'Turn it on' }).click();
  await expect(page.getByText(/^a feed, on since/)).toBeVisible();
  await expect(page.getByText('nothing to do').first()).toBeVisible({ timeout: 60_000 });
  await member({
    id: 'D-1004',
    first: 'Told',
    last: 'Atonce',
    email: 'told@members.lanternferry.test',
    news: 'yes',
  });
  await expect(row('at once').getByRole('button', { name: 'Take it back out' })).toBeVisible({
    timeout: 60_000,
  });

  await row('at once').getByRole('button', { name: 'Take it back out' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Take it back out' }).click();
  await expect(row('at once').getByText('taken back out')).toBeVisible();
  await expect(page.getByText('a feed, off')).toBeVisible();
});

test('an owner adds a source, and is told at once that it does not answer', async ({ page }) => {
  await signIn(page);
  await page.goto('/setup/sources');
  await page.getByRole('button', { name: 'Add a system' }).click();
  await page.getByLabel('What it is').selectOption({ label: 'A file at an address' });
  await page.getByLabel('What you call it').fill('The shed’s sheet');
  await page.getByLabel('Its address').fill('http://127.0.0.1:9/people.csv');
  await page.getByRole('button', { name: 'Ask it, and keep it' }).click();
  await expect(page.getByText(/is an address of this network/)).toBeVisible();
  await noViolations(page);
});
