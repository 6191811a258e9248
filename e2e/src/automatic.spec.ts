import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { arrived, signIn } from './steps';

const mailroom = process.env.GW_MAILROOM ?? '';

/** Writes the words of the draft that is open. */
async function written(page: Page, subject: string, words: string): Promise<void> {
  await page.getByLabel('Subject').first().fill(subject);
  const letter = page.getByRole('textbox', { name: 'The letter' });
  await letter.click();
  await letter.pressSequentially(words);
  await expect(page.getByText('Everything is saved')).toBeVisible();
}

test('a thank-you is said as a sentence, tested, looked at, switched on, and leaves for a gift by itself', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/send');
  await page.getByRole('button', { name: 'Begin one' }).click();
  await page.getByLabel('What you call it').fill('Thanks for large gifts');
  await noViolations(page);
  await page.keyboard.press('Enter');
  await expect(page.getByText('off: it leaves to nobody')).toBeVisible();
  await page.getByRole('button', { name: 'Amount: of any amount' }).click();
  await page.getByRole('textbox', { name: /^At least/ }).fill('777');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Amount: of at least $777' })).toBeVisible();
  await page.getByRole('button', { name: /^Add a message/ }).click();
  await page.getByLabel('What it is called').fill('Large thanks');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^When it leaves: 2 hours later/ }).click();
  await page.getByLabel('How long').fill('0');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('button', { name: 'When it leaves: at once' })).toBeVisible();
  await noViolations(page);

  await page.getByRole('link', { name: 'Write it' }).click();
  await written(page, 'A large thank you', 'Thank you. It is a whole keel.');
  await page.goBack();
  await page.getByRole('link', { name: 'Test it' }).click();
  await page.getByRole('button', { name: 'Send me a test' }).click();
  await expect(page.getByText(/^Sent to/)).toBeVisible();
  await page.getByRole('link', { name: 'It leaves by itself: switch it on there' }).click();

  await page.getByRole('button', { name: 'Look, and switch it on' }).click();
  const look = page.getByRole('dialog', { name: 'Switch it on' });
  await expect(look.getByText(/^In the last 30 days it happened to/)).toBeVisible();
  await noViolations(page);
  await look.getByRole('button', { name: 'Switch it on', exact: true }).click();
  await expect(page.getByText(/^on since/)).toBeVisible();
  await page.reload();
  await expect(page.getByText('When a gift of at least $777 arrives')).toBeVisible();
  const own = page.url();

  const { csrf } = (await (await page.request.get('/api/session')).json()) as { csrf: string };
  const found = await page.request.get('/api/supporters?search=ines%20quayle&limit=1');
  const { rows } = (await found.json()) as { rows: { id: number }[] };
  const day = new Date(Date.now() - 8 * 3_600_000).toISOString().slice(0, 10);
  const given = await page.request.post(`/api/supporters/${rows[0]!.id}/gifts`, {
    data: { amount: 77_700, on: day },
    headers: { 'x-gw-csrf': csrf },
  });
  expect(given.status()).toBeLessThan(300);
  const mails = await arrived(`${mailroom}/api/mails`, (all) =>
    all.some(({ subject }) => subject === 'A large thank you'),
  );
  // The test of it was another.
  expect(mails.filter(({ subject }) => subject === 'A large thank you')).toHaveLength(1);
  await page.goto(own);
  await expect(page.getByRole('button', { name: '1 through' })).toBeVisible();
  await noViolations(page);
  await page.getByRole('button', { name: 'Switch it off' }).click();
  await expect(page.getByRole('button', { name: 'Write it anew' })).toBeVisible();
});

test('a welcome in two is begun with nothing by keys, and deleted; its words stay', async ({ page }) => {
  await signIn(page);
  await page.goto('/send');
  await page.getByRole('button', { name: 'Begin one' }).press('Enter');
  await page.keyboard.type('Welcome by keys');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^What sets it going/ }).press('Enter');
  await page.getByRole('button', { name: 'somebody joins the list' }).press('Enter');
  await expect(page.getByRole('button', { name: /^List: / })).toBeVisible();
  await page.getByRole('button', { name: /^Add a message/ }).press('Enter');
  await page.keyboard.type('Hello by keys');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Hello by keys' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete it' }).press('Enter');
  await page.getByRole('alertdialog').getByRole('button', { name: 'Delete it' }).press('Enter');
  await expect(page).toHaveURL(/\/send$/);
  await expect(page.getByRole('link', { name: 'Hello by keys' })).toBeVisible();
});
