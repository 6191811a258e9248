import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { signIn } from './steps';

/*
 * A letter from its first word to the post; a page of HTML made elsewhere; and a draft that two people see to.
 */
async function begin(page: Page, name: string, channel: string): Promise<void> {
  await page.goto('/write');
  await page.getByRole('button', { name: 'Write a message' }).click();
  await page.getByLabel('Name').first().fill(name);
  await page.getByLabel('It goes by').selectOption(channel);
  await page.getByRole('button', { name: 'Begin to write' }).click();
  await expect(page).toHaveTitle(`Write: ${name} · Good Word`);
}

test('a letter is written, laid out for its envelopes, and posted', async ({ page }) => {
  await signIn(page);
  await begin(page, 'Hull letter', 'post');
  const words = page.getByRole('textbox', { name: 'The letter' });
  await words.click();
  await page.keyboard.type('Dear {Greeting, or "friend"},');
  await page.keyboard.press('Enter');
  await page.keyboard.type('half of the planks are paid for.');
  await page.getByText('The words are in order').waitFor();
  await page.getByText('Everything is saved').waitFor();
  await noViolations(page);
  await page.getByRole('button', { name: 'Next: who gets it' }).click();
  await page.getByRole('button', { name: 'choose a group' }).click();
  await page.getByRole('option', { name: 'boat shed key' }).click();
  await expect(page.getByLabel('How many letters to a household')).toHaveValue('one');
  await page.getByRole('button', { name: /^Lay out \d+/ }).click();
  const sure = page.getByRole('button', { name: /^Yes, lay out/ });
  const laidOut = page.getByText(/laid out, by postcode/);
  await expect(sure.or(laidOut)).toBeVisible();
  if (await sure.isVisible()) await sure.click();
  await expect(laidOut).toBeVisible({ timeout: 60_000 });
  await noViolations(page);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: /letters 1 to \d+\.pdf/ }).click();
  const pdf = readFileSync(await (await download).path());
  const pages = execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf }).toString().split('\f');
  expect(pages[0]).toContain('half of the planks are paid for.');
  expect(pages[0]).toContain('Letter 1');
  await page.getByRole('button', { name: /^Say that \d+ w(as|ere) posted/ }).click();
  await expect(page).toHaveURL(/\/hear-back\/\d+/);
  await expect(page.getByRole('rowheader', { name: /^Posted/ })).toBeVisible();
});

test('a page of HTML made elsewhere is mailed as it looks, and says what was taken out', async ({ page }) => {
  await signIn(page);
  await begin(page, 'Page from elsewhere', 'email');
  await page.getByRole('button', { name: 'Put in…' }).click();
  await page.getByRole('menuitem', { name: /^A whole page of HTML/ }).click();
  await page
    .getByLabel('Or the page itself, pasted')
    .fill('<style>h1{color:#004b5c}</style><h1>Oak, {First name, or "friend"}</h1><script>alert(1)</script>');
  await noViolations(page);
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page.getByText('1 element that does or fetches something was taken out.')).toBeVisible();
  const mail = page.frameLocator('iframe').first();
  await expect(mail.getByRole('heading', { name: /^Oak, / })).toHaveCSS('color', 'rgb(0, 75, 92)');
  await expect(mail.getByText('Leave, or choose what you get')).toBeVisible();
  await noViolations(page);
  await page.getByRole('button', { name: 'Write its words here instead' }).click();
  await expect(page.getByRole('textbox', { name: 'The letter' })).toContainText('Oak, ');
});

test('a writer hands a draft over with a note to a place; an organizer agrees, and a change undoes it', async ({
  page,
  browser,
}) => {
  await signIn(page, 'june');
  await begin(page, 'Read this first', 'email');
  const words = page.getByRole('textbox', { name: 'The letter' });
  await words.click();
  await page.keyboard.type('The tide is at seven.');
  await page.getByText('Everything is saved').waitFor();
  await page.keyboard.press('Shift+Home');
  await page.getByRole('button', { name: 'Note…' }).click();
  await page.getByLabel('About these words').fill('Or at eight?');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('button', { name: '“The tide is at seven.”' })).toBeVisible();
  await noViolations(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Hand over for a go' }).click();
  await page.getByLabel('What should be looked at').fill('The hour');
  await page.getByRole('button', { name: 'Hand over for a go' }).click();
  await expect(page.getByText(/^Waits for a go/)).toBeVisible();

  const other = await (await browser.newContext()).newPage();
  await signIn(other);
  await other.goto('/');
  await other.getByRole('link', { name: /^Read it: 1 Read this first/ }).click();
  await other.getByRole('button', { name: '1 note' }).click();
  await other.getByLabel('Answer').fill('Seven it is.');
  await other.getByRole('button', { name: 'Answer' }).click();
  // At once: the answer, which opens a note again, must not overtake it.
  await other.getByRole('button', { name: 'Settled' }).click();
  await expect(other.locator('p', { hasText: 'Seven it is.' })).toBeVisible();
  await expect(other.getByText(/^Settled by Rosa Oduya/)).toBeVisible();
  await other.keyboard.press('Escape');
  await other.getByRole('button', { name: 'Agree to these words' }).click();
  await expect(other.getByText(/^Rosa Oduya agreed to these words/)).toBeVisible();

  await page.reload();
  await words.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' Bring boots.');
  await expect(page.getByText(/^Changed since Rosa Oduya agreed/)).toBeVisible();
  await other.context().close();
});
