import { expect, test, type Page } from '@playwright/test';
import { signIn } from './steps';

test.beforeEach(({ page }) => signIn(page));

async function draft(page: Page, name: string): Promise<string> {
  await page.goto('/write');
  await page.getByRole('button', { name: 'Write a message' }).click();
  await page.getByLabel('Name', { exact: false }).first().fill(name);
  await page.getByRole('button', { name: 'Begin to write' }).click();
  await expect(page.getByLabel('Subject').first()).toBeVisible();
  return page.url();
}
const subject = (page: Page) => page.getByLabel('Subject').first();

test('words typed and left at once are kept: by a click elsewhere, a reload, Back, a closed tab', async ({
  page,
  context,
}) => {
  const at = await draft(page, 'Left in haste');
  await subject(page).fill('By a click');
  await page.getByRole('link', { name: 'Sort', exact: true }).click();
  await page.goto(at);
  await expect(subject(page)).toHaveValue('By a click');

  await subject(page).fill('By a reload');
  await page.reload();
  await expect(subject(page)).toHaveValue('By a reload');

  await page.goto('/sort');
  await page.goto(at);
  await subject(page).fill('By Back');
  await page.goBack();
  await page.goForward();
  await expect(subject(page)).toHaveValue('By Back');

  await subject(page).fill('By a closed tab');
  await page.close();
  const other = await context.newPage();
  await other.goto(at);
  await expect(subject(other)).toHaveValue('By a closed tab');
  await expect(other.getByText('Everything is saved')).toBeVisible();
});

test('words typed while the connection is cut are told, kept and sent when it is back', async ({
  page,
  context,
}) => {
  const at = await draft(page, 'In a tunnel');
  await context.setOffline(true);
  await subject(page).fill('Under the river');
  await expect(page.getByText('Not saved yet.')).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText('Everything is saved')).toBeVisible();
  await page.goto(at);
  await expect(subject(page)).toHaveValue('Under the river');
});

test('of two tabs the second is told whose words are newer, sees both, and says which stay', async ({
  page,
  context,
}) => {
  const at = await draft(page, 'In two tabs');
  const other = await context.newPage();
  await other.goto(at);
  await subject(other).fill('Theirs');
  await expect(other.getByText('Everything is saved')).toBeVisible();
  await subject(page).fill('Mine');
  await expect(page.getByText('Two versions.')).toBeVisible();
  await page.getByRole('button', { name: 'See theirs' }).click();
  await expect(subject(page)).toHaveValue('Theirs');
  await page.getByRole('button', { name: 'See mine' }).click();
  await expect(subject(page)).toHaveValue('Mine');
  await page.getByRole('button', { name: 'Mine stays' }).click();
  await expect(page.getByText('Everything is saved')).toBeVisible();
  await other.reload();
  await expect(subject(other)).toHaveValue('Mine');
});
