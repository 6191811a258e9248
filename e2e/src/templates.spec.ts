import { expect, test } from '@playwright/test';
import { signIn } from './steps';

/*
 * Words that are kept: from a starter to a template, from the template to a message, to one person, and what
 * is said of them when they go.
 */
test('a starter becomes a template, and the template a message that remembers it', async ({ page }) => {
  await signIn(page);
  await page.goto('/write/templates');
  await page.getByRole('button', { name: 'Make a template' }).click();
  await page.getByLabel(/^Welcome/).check();
  await page.getByLabel('Folder').fill('New people');
  await page.getByRole('button', { name: 'Make the template' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByText('Blanks to fill in each time')).toBeVisible();
  await page.getByLabel('Name of the template').fill('Welcome aboard');
  await page.getByText('Everything is saved').waitFor();

  await page.goto('/write');
  await page.getByRole('button', { name: 'Write a message' }).click();
  await page.getByRole('button', { name: 'Begin with a blank sheet' }).click();
  await page.keyboard.type('aboard');
  await page.getByRole('option', { name: /Welcome aboard/ }).waitFor();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Name').first()).toHaveValue('Welcome aboard');
  await expect(page.getByLabel('It is for')).toHaveValue('news');
  await page.getByRole('button', { name: 'Begin to write' }).click();
  await expect(page.getByText('From the template Welcome aboard')).toBeVisible();
  await expect(page.getByText(/^Fill in the blank/).first()).toBeVisible();
  await expect(page.getByLabel('Subject')).toHaveValue(/Good that you are here/);

  await page.goto('/write/templates?search=aboard');
  await expect(page.getByText('used once')).toBeVisible();
  await page.getByRole('link', { name: 'Welcome aboard' }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText(/“Welcome aboard” began with it/)).toBeVisible();
  await page.getByRole('button', { name: 'Delete the template' }).click();
  await expect(page.getByRole('heading', { name: 'Templates' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Welcome aboard' })).toHaveCount(0);
});

test('one person is written to with the words of a template, which can be edited', async ({ page }) => {
  await signIn(page);
  await page.goto('/sort/supporters/77');
  await page.getByRole('button', { name: /^Write to/ }).click();
  await page.getByRole('button', { name: 'Begin with a blank sheet' }).click();
  await page.keyboard.type('thank plank');
  await page.getByRole('option', { name: /Thank you for a plank/ }).waitFor();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Subject')).toHaveValue('Thank you, {First name, or "friend"}');
  await expect(page.getByRole('textbox', { name: 'The letter' })).toContainText('It is oak by now');
  await page.getByRole('textbox', { name: 'The letter' }).press('Control+End');
  await page.keyboard.type(' And thank you once more.');
  await expect(page.getByRole('textbox', { name: 'The letter' })).toContainText('once more');
});
