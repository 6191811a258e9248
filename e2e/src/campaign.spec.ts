import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { signIn } from './steps';

const PLAN = '/send/campaigns/1';
const look = async (page: Page) => {
  await page.getByRole('button', { name: 'Last look at all steps' }).click();
  return page.getByRole('dialog', { name: 'Last look at the campaign' });
};

test('a campaign of email, text and letter is read as sentences, looked at over all steps, and set going', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await page.goto('/send');
  // A draft has the same name.
  const campaigns = page.getByRole('list', { name: 'Campaigns' });
  await campaigns.getByRole('link', { name: 'Winter hull appeal' }).click();
  await expect(page.getByText(/^about 1?[0-9,]+$/)).toHaveCount(3);
  await noViolations(page);

  // Whom the letter is for, by what an earlier step came to.
  await page
    .getByRole('button', { name: /^Whom it is for/ })
    .nth(2)
    .click();
  await page.getByRole('button', { name: 'who did not get “Two planks left”' }).click();
  await expect(page.getByText(/^.*did not get.*“?Two planks left/).first()).toBeVisible();
  await page.getByRole('combobox', { name: 'Whose path' }).fill('ines');
  await page.getByRole('option').first().click();
  await expect(page.getByRole('list', { name: 'Step by step' }).getByRole('listitem')).toHaveCount(3);
  await noViolations(page);

  const other = await (await browser.newContext()).newPage();
  await signIn(other);
  await other.goto(PLAN);
  const [mine, theirs] = [await look(page), await look(other)];
  await expect(mine.getByText('Who gets how many')).toBeVisible();
  await noViolations(page);
  await theirs.getByRole('button', { name: 'Set 3 steps going' }).click();
  await expect(other.getByText('set going')).toHaveCount(3);
  // The look of the other is of what was: nothing is set going twice.
  await mine.getByRole('button', { name: 'Set 3 steps going' }).click();
  await expect(mine.getByRole('alert')).toBeVisible();
  await page.reload();
  await expect(page.getByText('set going')).toHaveCount(3);
  for (let left = 3; left > 0; left--) {
    await page.getByRole('button', { name: 'Take it back' }).first().click();
    await expect(page.getByText('set going')).toHaveCount(left - 1);
  }
  await other.context().close();
});

test('a campaign is begun with nothing, and its first step written, by keys', async ({ page }) => {
  await signIn(page);
  await page.goto('/sort/campaigns');
  await page.getByRole('button', { name: 'Make a campaign' }).first().click();
  await page.getByLabel('Name').fill('Rope for spring');
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('link', { name: 'Rope for spring' }).click();
  await page.getByRole('link', { name: 'Its plan' }).click();
  await expect(page.getByRole('complementary', { name: 'Margin' })).toContainText('It has no first day yet');
  await page.getByRole('button', { name: /^Add a step/ }).press('Enter');
  await page.keyboard.type('Rope comes first');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Rope comes first' })).toBeVisible();
  await expect(page.getByText('Its words are not ready, or no test went out')).toBeVisible();
  await noViolations(page);
  await page.getByRole('button', { name: 'Take it out' }).press('Enter');
  await expect(page.getByText('no steps yet')).toBeVisible();
});
