import { expect, test, type Locator, type Page } from '@playwright/test';
import { arrived, signIn, takenBackFor } from './steps';

const mailroom = process.env.GW_MAILROOM ?? '';

/** Goes on by Tab until something has the focus; says what stood in between where it never does. */
async function tabTo(page: Page, target: Locator, most = 60): Promise<number> {
  await expect(target).toBeVisible();
  for (let pressed = 0; pressed <= most; pressed++) {
    if (await target.evaluate((element) => element === document.activeElement)) return pressed;
    await page.keyboard.press('Tab');
  }
  throw new Error(`not reached by ${most} presses of Tab`);
}

/** Reaches a control by Tab and presses a key on it. */
async function press(page: Page, target: Locator, key = 'Enter'): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.press(key);
}

async function type(page: Page, target: Locator, text: string): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.type(text);
}

test('from a file to a message that has left, with the keyboard alone', async ({ page }) => {
  await signIn(page);
  await takenBackFor(page, 0);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'What waits, the most pressing first' })).toBeVisible();
  const button = (name: string | RegExp) =>
    page.getByRole('button', { name, exact: typeof name === 'string' });

  await test.step('rows come in', async () => {
    await page.keyboard.press('Alt+1');
    await press(page, button('Bring in a file'));
    const chooser = page.waitForEvent('filechooser');
    await press(page, page.getByLabel('Choose a file'));
    const buffer = Buffer.from(
      'Email,First name,Last name\nkay.board@example.org,Kay,Board\ntab.stop@example.org,Tab,Stop\n',
    );
    await (await chooser).setFiles({ name: 'by keys.csv', mimeType: 'text/csv', buffer });
    await expect(page.getByText('2 rows under the header')).toBeVisible();
    await press(page, button('Next: where they go'));
    await type(page, page.getByLabel('A new tag'), 'by keys');
    await press(page, button('Add'));
    await press(page, button('Next: permission'));
    // Of a group of radios one is a stop of the Tab key, and the arrows choose.
    const card = page.getByRole('region', { name: 'May we email these people?' });
    await tabTo(page, card.getByRole('radio').first());
    const agreed = card.getByLabel('They agreed to emails, and we can show it');
    for (let i = 0; i < 4 && !(await agreed.isChecked()); i++) await page.keyboard.press('ArrowDown');
    await press(page, card.getByRole('checkbox', { name: 'appeals', exact: true }), 'Space');
    await type(page, card.getByLabel('When'), '2026-10-02');
    await type(page, card.getByLabel('In what words'), 'Yes, please write to me about the ferry.');
    const texts = page.getByRole('region', { name: 'May we text these people?' });
    await tabTo(page, texts.getByRole('radio').first());
    await page.keyboard.press('ArrowDown');
    await expect(texts.getByLabel('I don’t know, or they did not')).toBeChecked();
    await press(page, button('Next: matches'));
    await press(page, button('Next: check the batch'));
    await press(page, button('Bring in 2 people'));
    await expect(page.getByText('What became of the rows')).toBeVisible();
  });

  await test.step('a message is written', async () => {
    await page.keyboard.press('Alt+3');
    await press(page, button('Write a message'));
    await page.keyboard.type('By keys');
    await press(page, button('Begin to write'));
    await type(page, page.getByLabel('Subject').first(), 'Hello {First');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Subject').first()).toHaveValue('Hello {First name}');
    await type(page, page.getByRole('textbox', { name: 'The letter' }), 'The planks are in.');
    await expect(page.getByText('Everything is saved')).toBeVisible();
    // From the words to the next step: few presses, since a bar of tools is one stop.
    await page.getByLabel('Subject').first().focus();
    expect(await tabTo(page, button('Next: who gets it'))).toBeLessThanOrEqual(8);
    await page.keyboard.press('Enter');
  });

  await test.step('its group is chosen by typing, and it leaves', async () => {
    await press(page, button('choose a group'));
    await page.keyboard.type('by keys');
    await expect(page.getByRole('option').first()).toContainText('by keys');
    await page.keyboard.press('Enter');
    await expect(button('2 will get it. See them')).toBeVisible();
    await press(page, button('Send me a test'));
    await expect(page.getByText('Sent to rosa@lanternferry.test')).toBeVisible();
    await expect(button('Send now to 2')).toBeEnabled();
    await press(page, button('Send now to 2'));
    await expect(button('Sent: 2. See them')).toBeVisible();
    const [mail] = await arrived(
      `${mailroom}/api/mails?to=kay.board@example.org`,
      (rows) => rows.length === 1,
    );
    expect([mail!.subject, mail!.text]).toEqual(['Hello Kay', expect.stringContaining('The planks are in.')]);
  });

  await test.step('one of them is written to, between the greeting and the name', async () => {
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused();
    await page.keyboard.type('Kay Board');
    await expect(page.getByRole('option').first()).toContainText('Kay Board');
    await page.keyboard.press('Enter');
    await press(page, button('Write to them'));
    const letter = page.getByRole('textbox', { name: 'The letter' });
    await type(page, letter, 'See you on Saturday.');
    expect((await letter.locator('p').allInnerTexts()).map((text) => text.trim())).toEqual([
      expect.stringMatching(/^Dear/),
      'See you on Saturday.',
      expect.stringContaining('Sender: name'),
    ]);
  });
});
