import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { signIn } from './steps';

test.beforeEach(async ({ page }) => signIn(page));

/** The words of the PDF that is downloaded, as poppler reads them. */
async function printed(page: Page): Promise<string[]> {
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download' }).click();
  const path = await (await download).path();
  return execFileSync('pdftotext', ['-layout', '-', '-'], { input: readFileSync(path) })
    .toString()
    .split('\f')
    .slice(0, -1);
}

test('people chosen in the table are printed as labels, one for each household', async ({ page }) => {
  await page.goto(
    `/sort?tree=${encodeURIComponent(JSON.stringify({ kind: 'field', field: 'household', op: 'at-least', value: 2 }))}`,
  );
  await page.getByRole('checkbox', { name: 'Choose all of Supporters' }).check();
  await page.getByRole('toolbar').getByRole('button', { name: 'Print…' }).click();
  await page.getByLabel('What to print').selectOption({ label: 'Mailing labels' });
  await page.getByLabel('Labels of the first sheet that are used already').fill('3');
  await noViolations(page);
  await page.getByRole('button', { name: /^Print [\d,]+ people$/ }).click();
  const pages = await printed(page);
  expect(pages.length).toBeGreaterThan(2);
  expect(pages.join('\n')).toMatch(/ and /);
});

test('a list is called through by keys, and its sheet is entered from paper by keys', async ({ page }) => {
  await page.goto('/sort/calls');
  await page.getByRole('button', { name: 'Make a list to call' }).first().click();
  await page.getByLabel('Name of the list').fill('Evening calls');
  await page.getByLabel('Whom to call').selectOption({ label: 'Deck crew' });
  await page.getByLabel('Campaign').selectOption({ label: 'Winter hull appeal' });
  await noViolations(page);
  await page.getByRole('button', { name: 'Make the list' }).click();
  await expect(page.getByText(/0 of \d+ called/)).toBeVisible();

  const name = page.getByRole('region', { name: 'This call' }).getByRole('heading', { level: 2 });
  const first = await name.textContent();
  await expect(page.getByText(/it is Rosa Oduya of Lantern Ferry Trust/)).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByRole('radio', { name: /pledged/ })).toBeChecked();
  await page.keyboard.press('n');
  await page.keyboard.type('Pledged on the telephone');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Enter');
  await expect(name).not.toHaveText(first!);
  await expect(page.getByText(/1 of \d+ called/)).toBeVisible();
  await noViolations(page);
  await page.keyboard.press('ArrowLeft');
  await expect(name).toHaveText(first!);
  await expect(page.getByRole('textbox', { name: 'Note' })).toHaveValue('Pledged on the telephone');

  await page.getByRole('button', { name: 'Print the sheet' }).click();
  const sheet = (await printed(page)).join('\n');
  expect(sheet).toContain('Evening calls');
  expect(sheet).toContain(first!.trim());
  const numbers = [...sheet.matchAll(/^\s*(\d{1,3})\s{2,}\S/gm)].map((found) => Number(found[1]));
  expect(numbers.length).toBeGreaterThan(1);

  await page.getByRole('button', { name: 'From paper' }).click();
  const wanted = numbers[1]!;
  await page.getByLabel('Go to the number').fill(String(wanted));
  await page.keyboard.press('Enter');
  const answer = page.getByRole('combobox', { name: new RegExp(`number ${wanted}$`) });
  await expect(answer).toBeFocused();
  await page.keyboard.press('2');
  await expect(answer).toHaveValue('thinking');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Ask again in spring');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/2 of \d+ called/)).toBeVisible();
  await noViolations(page);
});

test('lists go into folders and in order by keys; two tags are made one; a segment is seen over time and put on a list', async ({
  page,
}) => {
  await page.goto('/sort/groups');
  for (const name of ['rowers', 'oarsfolk']) {
    await page.getByRole('button', { name: 'Make a tag' }).click();
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('button', { name: `Change ${name}` })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Merge oarsfolk with another' }).click();
  await page.getByLabel('The tag that stays').selectOption({ label: 'rowers' });
  await noViolations(page);
  await page.getByRole('button', { name: 'Merge oarsfolk with rowers' }).click();
  await expect(page.getByRole('button', { name: 'Change oarsfolk' })).toHaveCount(0);

  await page.getByRole('button', { name: 'Make a list' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Summer crew');
  await page.getByRole('combobox', { name: /^Folder/ }).fill('Seasons');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('region', { name: 'Seasons' }).getByText('Summer crew')).toBeVisible();
  await page.getByRole('button', { name: 'Move Summer crew' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/is picked up|is over/)).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect(page.getByRole('region', { name: 'Seasons' })).toHaveCount(0);

  await page.goto('/sort/segments/1');
  await page.getByRole('button', { name: 'Over time' }).click();
  await expect(page.getByRole('img', { name: /people now/ })).toBeVisible();
  await page.getByRole('button', { name: 'As a table' }).click();
  await noViolations(page);
  await page.getByLabel('Name of the list').fill('As of today');
  await page.getByRole('button', { name: 'Put them on the list' }).click();
  await expect(page.getByLabel('Work on a group')).toContainText(/changed/);
});
