import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { signIn } from './steps';

/*
 * A message in full: a passage for some people, amounts, columns and the signature, put in where one writes;
 * read as several people, in several ways.
 */
const letterOf = (page: Page) => page.getByRole('textbox', { name: 'The letter' });

/** To the end of the letter; the editor hears of it a moment after the browser. */
async function toTheEnd(page: Page): Promise<void> {
  await letterOf(page).press('Control+End');
  await page.waitForTimeout(300);
}

/** By keys alone: the bar is one stop of Tab, arrows go along it. */
async function putIn(page: Page, words: RegExp): Promise<void> {
  await page.getByRole('button', { name: 'Put in…' }).focus();
  await page.keyboard.press('Enter');
  const item = page.getByRole('menuitem', { name: words });
  await item.waitFor();
  for (let at = 0; at < 10; at++) {
    if (await item.evaluate((one) => one === document.activeElement)) break;
    await page.keyboard.press('ArrowDown');
  }
  await page.keyboard.press('Enter');
}

test('a letter with a passage, amounts, columns and a signature, by keys, and read as one who gave', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/write');
  await page.getByRole('button', { name: 'Write a message' }).click();
  await page.keyboard.type('Starboard in full');
  await page.getByRole('button', { name: 'Begin to write' }).press('Enter');
  await page.getByLabel('Subject').fill('For {First name, or "you"}');
  await letterOf(page).focus();
  await page.keyboard.type('Dear {First name, or "friend"},');
  await page.keyboard.press('Enter');
  await putIn(page, /A passage for some people/);
  await expect(page.getByRole('button', { name: /Whom the passage is for/ })).toBeVisible();
  await page.keyboard.type('You know her ribs.');
  await expect(
    page.getByRole('button', { name: /Whom the passage is for: gave anything ever/ }),
  ).toBeVisible();
  await toTheEnd(page);
  await putIn(page, /Gift buttons/);
  await page.getByLabel('Where it leads').fill('https://give.lanternferry.test/hull');
  await page.keyboard.press('Enter');
  await toTheEnd(page);
  await putIn(page, /Two columns/);
  await expect(page.locator('[data-letter-column]')).toHaveCount(2);
  await page.keyboard.type('On the left');
  await page.getByText('Everything is saved').waitFor();

  await page.getByRole('button', { name: 'Amounts asked for…' }).click();
  await expect(page.getByRole('row')).toHaveCount(5);
  await page.getByLabel('At least').fill('20');
  await page.getByRole('button', { name: 'Ask for these' }).click();
  await page.getByText('Everything is saved').waitFor();

  await page.getByRole('button', { name: 'Whom to read it as' }).click();
  await page.keyboard.type('penhallow');
  await page
    .getByRole('option', { name: /penhallow/i })
    .first()
    .waitFor();
  await page.keyboard.press('Enter');
  await page.getByRole('radio', { name: 'plain text' }).click();
  const plain = page.locator('pre');
  await expect(plain).toContainText('On the left');
  await expect(plain).toContainText(/\$\d+ \[1\]/);
  await page.getByRole('radio', { name: 'headers' }).click();
  await expect(page.getByText('List-Unsubscribe=One-Click')).toBeVisible();
  await page.getByRole('radio', { name: 'dark', exact: true }).click();
  await noViolations(page);

  // It is all there again.
  await page.reload();
  await expect(letterOf(page)).toContainText('You know her ribs.');
  await expect(page.getByRole('img', { name: /Gift buttons, leading to/ })).toBeVisible();
});

test('who is awkward is found among all who would get it, and the letter is read as them', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/write/4');
  await page.getByRole('button', { name: 'Look through all who would get it' }).click();
  await expect(page.getByText(/found among all \d+ who would get it/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: /^longest name/ }).click();
  const pane = page.getByRole('region', { name: 'As they will get it' });
  await expect(pane).toContainText('longest name');
  const first = await pane.getByRole('heading').textContent();
  await page.getByRole('button', { name: /^no first name/ }).click();
  await expect(pane.getByRole('heading')).not.toHaveText(first!);
  await expect(pane).toContainText('no first name');
});

test('a mail is never scrolled to the side, on a small telephone, with pictures blocked and a long address', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/write/4');
  const frame = page.getByTitle('The letter as it will look');
  const html = await frame.getAttribute('srcdoc');
  const long = `https://ferry.test/${'a'.repeat(151)}`;
  const columns = html!.replace('</p>', ` ${long}</p><img src="x" alt="${'b'.repeat(40)}" width="552">`);
  for (const width of [320, 390, 640]) {
    await page.setViewportSize({ width, height: 800 });
    await page.setContent(columns);
    const scroll = await page.evaluate(() => document.documentElement.scrollWidth);
    expect([width, scroll]).toEqual([width, width]);
  }
});
