import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { agree, newestMail, signIn } from './steps';

const margin = (page: Page) => page.getByRole('complementary', { name: 'Margin' });
const grid = (page: Page) => page.getByRole('grid', { name: 'Columns and the first rows' });
const drop = async (page: Page, name: string, text: string) => {
  await page.goto('/gather/new');
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await expect(grid(page)).toBeVisible();
};
const next = (page: Page, step: string) => page.getByRole('button', { name: `Next: ${step}` }).click();

const FAIR = `Harvest fair,,,,
Given name,Surname,E-mail addr,Cell,Shirt
Wren,Quillfeather,wren.q@example.org,(206) 555-0161,M
Ivo,Quillfeather,206 555 0162,ivo.q@example.org,medium
Ada,Brambling,ada.b@example,206 555 0163,Medium
Total,3,,,
`;

test('the grid: titles and totals told, a row swapped, spellings gathered, a cell edited by keys, each undone', async ({
  page,
}) => {
  await signIn(page);
  await drop(page, 'harvest-fair.csv', FAIR);
  await expect(margin(page)).toContainText('1 line over the header');
  await expect(margin(page)).toContainText('1 that sums up');
  await margin(page).getByRole('button', { name: 'Swap it' }).click();
  await expect(page.getByRole('gridcell', { name: 'ivo.q@example.org' })).toHaveAttribute('id', 'cell-1-2');
  await margin(page)
    .getByRole('button', { name: /Write “medium” for it|Write “Medium” for it/ })
    .click();
  await grid(page).focus();
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowRight', 'ArrowRight', 'Enter', 'Control+A'])
    await page.keyboard.press(key);
  await page.keyboard.type('ada.b@example.org');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/3 ready · 0 come in without a cell/)).toBeVisible();
  await expect(margin(page)).toContainText('Row 3: “E-mail addr” is now “ada.b@example.org”');
  await margin(page).getByRole('button', { name: 'Undo' }).first().click();
  await expect(page.getByRole('gridcell', { name: 'ada.b@example', exact: true })).toBeVisible();
  await noViolations(page);
});

test('a half-done batch is saved, found with what it waits for, taken up again and thrown away', async ({
  page,
}) => {
  await signIn(page);
  await drop(page, 'half-way.csv', 'Email,First name\nhalf.way@example.org,Hal\n');
  await next(page, 'where they go');
  await page.getByLabel('Name of the batch').fill('Half way');
  await page.getByRole('button', { name: 'Save and close' }).click();
  const row = page.getByRole('row', { name: /Half way/ });
  await expect(row).toContainText('waits at: where they go');
  await row.getByRole('link').click();
  await expect(page.getByLabel('Name of the batch')).toHaveValue('Half way');
  await page.getByRole('button', { name: 'Throw it away' }).click();
  await page.getByRole('button', { name: 'Throw the batch away' }).click();
  await expect(page).toHaveURL(/\/gather$/);
  await expect(page.getByRole('row', { name: /Half way/ })).toHaveCount(0);
});

test('permission as a sentence, a request to confirm, likely doubles side by side, in and back out', async ({
  page,
}) => {
  await signIn(page);
  // The day that it is in the house of the demo: in UTC it may be tomorrow already.
  const today = new Intl.DateTimeFormat('en-CA', { timeZone: 'America/Los_Angeles' }).format(new Date());
  await test.step('people come in and are asked to confirm', async () => {
    await drop(
      page,
      'boat-day.csv',
      `Email,First name,Last name,Signed\nrobert.f@example.org,Robert,Fennimore,${today}\nlotte.f@example.org,Lotte,Fennimore,${today}\n`,
    );
    await next(page, 'where they go');
    await next(page, 'permission');
    await agree(page, 'email', ['news']);
    await expect(page.getByRole('region', { name: 'May we email these people?' })).toContainText(
      'on the day in column “Signed”',
    );
    await page.getByRole('checkbox', { name: 'Ask them to confirm by email' }).check();
    await page.getByLabel('Subject').fill('Was it you at the boat day?');
    await page.getByRole('region', { name: 'May we text these people?' }).getByLabel('I don’t know').check();
    await next(page, 'matches');
    await next(page, 'check the batch');
    await expect(page.getByText('emails: asked to confirm')).toBeVisible();
    await noViolations(page);
    await page.getByRole('button', { name: 'Bring in 2 people' }).click();
    await expect(page.getByText('What became of the rows')).toBeVisible();
    expect(await newestMail('lotte.f@example.org')).toContain('Was it you at the boat day?');
  });

  await test.step('the next file has a short form and a misspelling', async () => {
    await drop(
      page,
      'boat-day.csv',
      'Email,First name,Last name,Signed\nrobert.f@example.org,Bob,Fennimore,\nlotte.f@example.org,Lotte,Fenimore,\nnew.f@example.org,Nell,Fennimore,\n',
    );
    await expect(margin(page)).toContainText('Looks like “boat day');
    await next(page, 'where they go');
    await next(page, 'permission');
    for (const channel of ['email', 'text'])
      await page
        .getByRole('region', { name: `May we ${channel} these people?` })
        .getByLabel('I don’t know')
        .check();
    await next(page, 'matches');
    await next(page, 'check the batch');
    await expect(page.getByRole('region', { name: 'Perhaps people who are here' })).toContainText(
      'A short form of the name',
    );
    await page
      .getByRole('listitem')
      .filter({ hasText: 'A short form of the name' })
      .getByRole('button', { name: 'Look at it' })
      .click();
    await expect(page.getByRole('dialog')).toContainText(
      '83 of 100: the same email, a short form of the name',
    );
    await noViolations(page);
    await page.getByRole('checkbox', { name: 'take the row’s' }).uncheck();
    await page.getByRole('button', { name: 'The same: merge' }).click();
    await expect(page.getByRole('dialog')).toContainText('All of them are settled.');
    await page.getByRole('button', { name: 'Close' }).click();
    await page
      .getByRole('listitem')
      .filter({ hasText: 'A name spelled nearly so' })
      .getByRole('button', { name: 'Keep both' })
      .click();
    await page.getByRole('button', { name: 'Bring in 3 people' }).click();
    await expect(page.getByText('What became of the rows')).toBeVisible();
    await page.goto('/sort?search=robert.f%40');
    await expect(page.getByRole('grid')).toContainText('Robert Fennimore');
  });

  await test.step('and goes back out', async () => {
    await page.goto('/gather');
    await page
      .getByRole('link', { name: /boat day/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Take the batch back out' }).click();
    await page.getByRole('button', { name: 'Take out 2 people' }).click();
    await expect(page.getByText('taken back out')).toBeVisible();
  });
});

test('a campaign is made, a list put on its roster, somebody moved', async ({ page }) => {
  await signIn(page);
  await page.goto('/sort/campaigns');
  await page.getByRole('button', { name: 'Make a campaign' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Rope drive');
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('link', { name: 'Rope drive' }).click();
  await page.getByRole('button', { name: 'Put people on' }).click();
  await page.getByLabel('Which').selectOption({ label: 'Deck crew' });
  await page.getByRole('button', { name: 'Set them to asked' }).click();
  await expect(page.getByRole('button', { name: /^asked [1-9]/ })).toBeVisible();
  await page
    .getByLabel(/^Stage of/)
    .first()
    .selectOption('pledged');
  await expect(page.getByRole('button', { name: 'pledged 1' })).toBeVisible();
  await noViolations(page);
});
