import { expect, test } from '@playwright/test';
import { signIn } from './steps';

// What people do all day, each in one place.

test('one person is added in one sheet, with what they agreed to', async ({ page }) => {
  await signIn(page);
  await page.goto('/sort');
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByLabel('First name').fill('Fenna');
  await page.getByLabel('Last name').fill("O'Daily");
  await page.getByLabel('Email', { exact: true }).fill('fenna.daily@example.org');
  await page.getByLabel('Emails').check();
  await page.getByLabel('In what words').fill('Yes, please write to me about the hull.');
  await page.getByRole('button', { name: 'Add this person' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText("Fenna O'Daily", { timeout: 60_000 });
  await expect(page.getByText('Yes, please write to me about the hull.').first()).toBeVisible();
  // Once more: she is here already, and it is her record that opens.
  const { pathname } = new URL(page.url());
  await page.goto('/sort');
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByLabel('First name').fill('Fenna');
  await page.getByLabel('Last name').fill("O'Daily");
  await page.getByLabel('Email', { exact: true }).fill('FENNA.daily@example.org');
  await page.getByRole('button', { name: 'Add this person' }).click();
  await expect(page).toHaveURL(new RegExp(`${pathname}$`), { timeout: 60_000 });
});

test('a list is written to from where it stands, and a brace offers the merge fields in subject and letter', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/sort/groups');
  await page
    .getByRole('button', { name: /^Write to / })
    .first()
    .click();
  await page.getByRole('button', { name: 'Begin to write' }).click();
  await expect(page).toHaveURL(/\/write\/\d+$/);
  await page.getByLabel('Subject').click();
  await page.keyboard.type('Hello {fir');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Subject')).toHaveValue('Hello {First name}');
  const letter = page.getByLabel('The letter');
  await letter.click();
  await page.keyboard.type('Dear {last');
  await expect(page.getByRole('listbox', { name: 'Merge fields' })).toBeVisible();
  await page.keyboard.press('Tab');
  await page.keyboard.type(', the planks are in. {');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('listbox', { name: 'Merge fields' })).toBeHidden();
  await page.keyboard.press('Backspace');
  await expect(letter).toContainText('Dear {Last name}, the planks are in.');
  await page.getByRole('button', { name: 'Next: who gets it' }).click();
  await expect(page.getByText('In the group', { exact: true })).toBeVisible();
});
