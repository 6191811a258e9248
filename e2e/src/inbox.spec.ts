import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { newestMail, signIn } from './steps';

const lines = (page: Page) => page.getByRole('list', { name: 'People who wrote back' }).getByRole('link');
const line = (page: Page, words: string) => lines(page).filter({ hasText: words });
const thread = (page: Page) => page.getByRole('region', { name: /^Replies of / });

test('replies are read, done, put aside and noted by keys, and what they ask for is taken up from the Margin', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/hear-back/replies');
  await expect(line(page, 'Can I still join the caulking crew?')).toBeVisible();
  await noViolations(page);
  const open = await lines(page).count();

  await test.step('from one to the next, and done', async () => {
    await lines(page).first().focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(thread(page).getByText('Can I still join the caulking crew?')).toBeVisible();
    await expect(thread(page).getByRole('combobox', { name: 'For' })).toHaveValue(/\d/);
    await page.keyboard.press('d');
    await expect(page.getByText(/^Done with /)).toBeVisible();
    await expect(lines(page)).toHaveCount(open - 1);
    await page.getByRole('button', { name: 'Open it again' }).click();
    await expect(lines(page)).toHaveCount(open);
  });

  await test.step('a gift that somebody writes of', async () => {
    await line(page, 'What a sight she is').click();
    await expect(page.getByText('This reads like a gift')).toBeVisible();
    await noViolations(page);
    await page.keyboard.press('1');
    const sheet = page.getByRole('dialog', { name: 'A gift that they write of' });
    await expect(sheet.getByLabel(/^Amount/)).toHaveValue('$40');
    await noViolations(page);
    await sheet.getByRole('button', { name: 'Enter the gift' }).click();
    await expect(sheet).toBeHidden();
    await expect(thread(page).getByText(/Gave \$40/)).toBeVisible();
  });

  await test.step('somebody who would rather not', async () => {
    await line(page, 'too many emails').click();
    await expect(page.getByText('This reads like leaving')).toBeVisible();
    await page.keyboard.press('1');
    await expect(thread(page).getByText('everything opted out')).toBeVisible();
    await expect(page.getByText('This reads like leaving')).toBeHidden();
  });

  await test.step('a note, and put aside until a morning', async () => {
    await page.keyboard.press('n');
    await page.keyboard.type('Told Idris: d, a and 1 are letters here');
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    await expect(thread(page).getByText('Told Idris: d, a and 1 are letters here')).toBeVisible();
    await thread(page).getByRole('button', { name: 'Put aside…' }).click();
    await page.getByRole('menuitem', { name: /^Tomorrow morning/ }).click();
    await expect(page.getByText(/ is put aside\.$/)).toBeVisible();
    await page.getByRole('button', { name: 'put aside 1' }).click();
    await expect(line(page, 'too many emails')).toBeVisible();
    await page.reload();
    await expect(line(page, 'too many emails')).toBeVisible();
  });
});

test('of two windows that answer one reply the second reads the first, and nothing typed is lost', async ({
  page,
  browser,
}) => {
  const other = await (await browser.newContext()).newPage();
  await signIn(page);
  await signIn(other);
  for (const [one, words] of [
    [page, 'Welcome to the far bank.'],
    [other, 'Thank you for telling us.'],
  ] as const) {
    await one.goto('/hear-back/replies');
    await line(one, 'We have moved across').click();
    await expect(thread(one).getByText('We have moved across')).toBeVisible();
    await one.keyboard.press('a');
    const letter = one.getByRole('textbox', { name: 'The letter' });
    await letter.click();
    await one.keyboard.press('ControlOrMeta+End');
    await one.keyboard.type(` ${words}`);
  }
  const send = { name: /^Send it to / };
  await page.getByRole('button', send).click();
  await expect(page.getByText(/^Your answer to .* is on its way\.$/)).toBeVisible();
  await expect(line(page, 'We have moved across')).toBeHidden();

  await other.getByRole('button', send).click();
  await expect(other.getByRole('alert')).toContainText('has answered meanwhile');
  await expect(thread(other).getByText('Welcome to the far bank.')).toBeVisible();
  await expect(other.getByRole('textbox', { name: 'The letter' })).toContainText('Thank you for telling us.');
  await other.getByRole('button', send).click();
  await expect(other.getByText(/^Your answer to .* is on its way\.$/)).toBeVisible();

  await page.getByRole('group', { name: 'Which replies' }).getByRole('button', { name: 'done' }).click();
  await line(page, 'We have moved across').click();
  await expect(thread(page).getByText('We have moved across')).toBeVisible();
  const to = (await thread(page)
    .getByText(/^\S+@\S+$/)
    .first()
    .textContent())!;
  const mail = await newestMail(to, 2);
  expect(mail).toContain('Thank you for telling us.');
  await expect(thread(page).getByText('Thank you for telling us.')).toBeVisible();
});
