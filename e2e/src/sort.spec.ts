import { expect, test } from '@playwright/test';
import { noViolations } from './axe';
import { signIn } from './steps';

test.beforeEach(async ({ page }) => signIn(page));

test('a segment is said by mouse: a group of none within all, another segment inside, each line with its count', async ({
  page,
}) => {
  await page.goto('/sort/segments/new');
  await page.getByLabel('Name of the segment').fill('Menders who did not give');
  await page.getByRole('button', { name: 'Add a line: add a line…' }).click();
  await page.getByRole('button', { name: 'who have a tag', exact: true }).click();
  await page.getByRole('button', { name: 'Add a line: and also…' }).click();
  await page.getByRole('button', { name: 'who fit none of several' }).click();
  await expect(page.getByRole('button', { name: 'How these count: fit none of these:' })).toBeVisible();
  await page.getByRole('button', { name: 'Add a line: nor also…' }).click();
  await page.getByRole('button', { name: 'who are in another segment' }).click();
  const sentence = page.getByRole('region', { name: 'The sentence' });
  await expect(sentence.getByTitle('Pass this line alone')).toHaveCount(4);
  await expect(sentence.getByTitle('Pass this line alone').last()).toHaveText(/\d/);
  await noViolations(page);
  await page.getByRole('button', { name: 'Save the segment' }).click();
  await expect(page).toHaveURL(/segments\/\d+$/);
  // It may not hold itself, through whatever other segment.
  const id = Number(/\d+$/.exec(page.url())![0]);
  const { csrf } = (await (await page.request.get('/api/session')).json()) as { csrf: string };
  const itself = await page.request.put(`/api/segments/${id}`, {
    data: {
      name: 'Menders who did not give',
      tree: { kind: 'segment', segmentId: id, in: true },
      basedOn: 0,
    },
    headers: { 'x-gw-csrf': csrf },
  });
  expect([itself.status(), ((await itself.json()) as { detail: string }).detail]).toEqual([
    422,
    expect.stringContaining('would hold itself'),
  ]);
});

test('a segment is said by keys alone', async ({ page }) => {
  await page.goto('/sort/segments/new');
  await page.getByLabel('Name of the segment').focus();
  await page.keyboard.type('By keys');
  const add = page.getByRole('button', { name: 'Add a line: add a line…' });
  for (let i = 0; i < 12 && !(await add.evaluate((one) => one === document.activeElement)); i++)
    await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'who gave, or did not' })).toBeFocused();
  await page.keyboard.press('Enter');
  const gave = page.getByRole('button', { name: 'Gave or not: gave' });
  await expect(gave).toBeVisible();
  for (let i = 0; i < 20 && !(await gave.evaluate((one) => one === document.activeElement)); i++)
    await page.keyboard.press('Shift+Tab');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Gave or not: did not give' })).toBeVisible();
});

test('people are filtered by a sentence, put in order, chosen across pages, tagged in the background, and that is undone', async ({
  page,
}) => {
  const tree = JSON.stringify({ kind: 'gave', did: true, atLeast: 50_000, window: { over: 'ever' } });
  await page.goto(`/sort?tree=${encodeURIComponent(tree)}`);
  const table = page.getByRole('grid', { name: 'Supporters' });
  await expect(table.getByRole('row').nth(1)).toBeVisible();
  await page.getByRole('button', { name: 'Supporter ↑' }).click();
  await expect(page).toHaveURL(/down=1/);
  await page.getByRole('button', { name: 'Columns' }).click();
  // The address holds what is shown, so the box follows a moment later.
  await page.getByRole('checkbox', { name: 'Shirt size' }).click();
  await expect(page.getByRole('checkbox', { name: 'Shirt size' })).toBeChecked();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Shirt size', exact: true }).click();
  await expect(table.getByRole('columnheader', { name: 'Shirt size' })).toHaveAttribute(
    'aria-sort',
    'ascending',
  );

  await page.getByRole('checkbox', { name: 'Choose all of Supporters' }).check();
  await table.getByRole('row').nth(1).getByRole('checkbox').uncheck();
  const bar = page.getByRole('toolbar');
  const many = Number(/([\d,]+)/.exec((await bar.textContent()) ?? '')![1]!.replace(',', ''));
  expect(many).toBeGreaterThan(1);
  await noViolations(page);
  await bar.getByRole('button', { name: 'Tag…' }).click();
  await page.getByRole('combobox', { name: /^Tag/ }).selectOption({ index: 1 });
  await page.getByRole('button', { name: /^Do it for/ }).click();
  const work = page.getByLabel('Work on a group');
  await expect(work).toContainText(/changed/);
  await work.getByRole('button', { name: 'Undo' }).click();
  await expect(work).toContainText('Undone.');
});

test('a table is kept under a name and opened again; a download is written', async ({ page }) => {
  await page.goto('/sort?by=created&down=1');
  await page.getByRole('button', { name: /^Views/ }).click();
  await page.getByLabel('Name of this table').fill('Newest first');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Newest first', exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.goto('/sort?tag=1');
  await page.getByRole('button', { name: /^Views/ }).click();
  await page.getByRole('button', { name: 'Newest first', exact: true }).click();
  await expect(page).toHaveURL(/by=created/);

  const table = page.getByRole('grid', { name: 'Supporters' });
  await table.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await expect(page.getByRole('toolbar')).toContainText('1 person chosen');
  await page.getByRole('button', { name: 'Download…' }).click();
  await page.getByRole('button', { name: 'Write the file of 1 person' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download' }).click();
  expect((await download).suggestedFilename()).toMatch(/^supporters \d{4}-\d\d-\d\d\.csv$/);
});

test('a field is made, put in order by keys, refused another type with those who stand in the way, and deleted', async ({
  page,
}) => {
  await page.goto('/setup/fields');
  await page.getByRole('button', { name: 'Make a field' }).click();
  await page.getByLabel('Name').fill('Rowing since');
  await page.getByRole('button', { name: 'Make the field' }).click();
  const rows = page.getByRole('region', { name: 'More', exact: true }).getByRole('listitem');
  await expect(rows.filter({ hasText: 'Rowing since' })).toBeVisible();

  const crossing = page.getByRole('button', { name: 'Open Favourite crossing' });
  await crossing.click();
  await page.getByRole('combobox', { name: /^Make it something other/ }).selectOption('number');
  await expect(page.getByText(/values would not convert/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make it number' })).toBeDisabled();
  await noViolations(page);
  await page.getByRole('button', { name: 'Close' }).click();

  await page.getByRole('button', { name: 'Open Rowing since' }).click();
  await page.getByRole('button', { name: 'Delete the field…' }).click();
  await page.getByRole('button', { name: 'Delete Rowing since' }).click();
  await expect(rows.filter({ hasText: 'Rowing since' })).toHaveCount(0);
});
