import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { newestMail, signIn } from './steps';

test.beforeEach(async ({ page }) => signIn(page));

const send = async (page: Page, method: 'post' | 'put', path: string, data: object) => {
  const { csrf } = (await (await page.request.get('/api/session')).json()) as { csrf: string };
  return (await page.request[method](`/api/${path}`, { data, headers: { 'x-gw-csrf': csrf } }))
    .json()
    .catch(() => null) as Promise<unknown>;
};

/** Somebody whom nobody else in these tests changes, with an address of their own. */
async function anybody(
  page: Page,
  at: number,
): Promise<{ id: number; firstName: string; lastName: string; email: string }> {
  const tree = {
    kind: 'all',
    rules: [
      { kind: 'may', channel: 'email', scope: 'appeals', may: true },
      { kind: 'field', field: 'household', op: 'empty' },
      { kind: 'field', field: 'lastName', op: 'begins', value: 'Q' },
    ],
  };
  const { rows } = (await send(page, 'post', 'segments/people', { tree, limit: 50 })) as {
    rows: { id: number; firstName: string; lastName: string; email: string }[];
  };
  return rows.filter((row) => row.firstName !== '')[at]!;
}

test('an edit is told with who and from what, and undone where it was done; notes are written and narrowed to', async ({
  page,
}) => {
  const { id } = await anybody(page, 0);
  await page.goto(`/sort/supporters/${id}`);
  await page.getByRole('button', { name: /^Boat skill: .*Edit$/ }).click();
  await page.getByRole('textbox', { name: 'Boat skill' }).fill('splicing');
  await page.keyboard.press('Enter');
  const timeline = page.getByRole('region', { name: 'Between you' });
  await expect(timeline.getByText('Boat skill set to splicing', { exact: true })).toBeVisible();
  await timeline.getByRole('button', { name: 'Undo: Boat skill set to splicing' }).click();
  await expect(timeline.getByText('Undone: Boat skill set to splicing')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Boat skill: splicing. Edit' })).toHaveCount(0);

  await page.getByRole('textbox', { name: 'A note, for the team alone' }).fill('Met at the slip');
  await page.keyboard.press('Control+Enter');
  await expect(timeline.getByText('Met at the slip')).toBeVisible();
  await page.getByRole('combobox', { name: 'What to show' }).selectOption('Notes');
  await expect(timeline.getByText('Undone: Boat skill set to splicing')).toHaveCount(0);
  await timeline.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(timeline.getByText('Nothing of this kind yet.')).toBeVisible();
});

test('an address is added, put first and taken off; a place is chosen from lists', async ({ page }) => {
  const { id } = await anybody(page, 1);
  await page.goto(`/sort/supporters/${id}`);
  const known = page.getByRole('region', { name: 'What is known' });
  await known.getByRole('button', { name: 'Add', exact: true }).click();
  await known.getByLabel('Another email or mobile').fill(`second${id}@example.net`);
  await page.keyboard.press('Enter');
  await known.getByRole('button', { name: `Write to second${id}@example.net first` }).focus();
  await page.keyboard.press('Enter');
  await expect(known.getByRole('button', { name: `Write to second${id}@example.net first` })).toHaveCount(0);
  await known.getByRole('button', { name: `Remove second${id}@example.net` }).focus();
  await page.keyboard.press('Enter');
  await expect(known.getByText(`second${id}@example.net`)).toHaveCount(0);

  await known.getByRole('button', { name: /^Place: / }).click();
  await known.getByLabel('Country').selectOption({ label: 'Canada' });
  await known.getByLabel('Region').selectOption({ label: 'Quebec' });
  await known.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(known.getByText('rules of Canada')).toBeVisible();
});

test('two who live together are greeted as one, and a letter to the one says so', async ({ page }) => {
  const [one, other] = [await anybody(page, 2), await anybody(page, 3)];
  await page.goto(`/sort/supporters/${one.id}`);
  await page.getByRole('button', { name: 'More to do with this record' }).click();
  await page.getByRole('menuitem', { name: 'Put in a household' }).click();
  await page
    .getByRole('combobox', { name: 'Whom they live with' })
    .fill(`${other.firstName} ${other.lastName}`);
  await page.getByRole('option', { name: new RegExp(other.email.replace(/[.+]/g, '\\$&')) }).click();
  const names = [one, other].sort((a, b) => a.id - b.id).map((person) => person.firstName);
  const greeting = names[0] === names[1] ? names[0]! : names.join(' and ');
  await expect(page.getByText(`Greeted as “${greeting}” · household of 2`)).toBeVisible();
  await noViolations(page);
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Write to them' }).click();
  await page.getByRole('dialog').getByRole('combobox', { name: /^For/ }).selectOption({ index: 1 });
  await expect(page.getByRole('dialog').getByText(`at ${one.email}`)).toBeVisible();
  await page.getByLabel('Subject').fill('For {Greeting}');
  await noViolations(page);
  await page.getByRole('button', { name: /^Send it to/ }).click();
  await expect(page.getByText(/^It is on its way/)).toBeVisible();
  const mail = await newestMail(one.email);
  expect(mail).toContain(`Subject: For ${greeting}`);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('region', { name: 'Between you' }).getByText(/^Got “To /)).toBeVisible();
});

test('two records are brought together side by side by keys, and parted again', async ({ page }) => {
  const [kept, gone] = [await anybody(page, 4), await anybody(page, 5)];
  await page.goto(`/sort/supporters/${kept.id}`);
  await page.getByRole('button', { name: 'More to do with this record' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: 'Merge with…' }).press('Enter');
  await expect(page.getByRole('combobox', { name: 'The other record of this person' })).toBeFocused();
  await page.keyboard.type(gone.email);
  await expect(page.getByRole('option')).toHaveCount(1);
  await page.keyboard.press('Enter');
  const bring = page.getByRole('button', { name: /^Bring the record of/ });
  await expect(bring).toBeVisible();
  await noViolations(page);
  await bring.press('Enter');
  await expect(page.getByText(gone.email, { exact: true })).toBeVisible();
  await expect(page.getByText(/^With the record of/)).toBeVisible();
  // An old address leads to the record that stands in its place.
  await page.goto(`/sort/supporters/${gone.id}`);
  await expect(page).toHaveURL(new RegExp(`/sort/supporters/${kept.id}$`));
  await page.getByRole('button', { name: 'Part them again' }).click();
  await expect(page.getByText(/^With the record of/)).toHaveCount(0);
  await page.goto(`/sort/supporters/${gone.id}`);
  await expect(page.getByText(gone.email, { exact: true })).toBeVisible();
});

test('everything about a person is downloaded; a viewer can neither do that nor write', async ({ page }) => {
  const { id } = await anybody(page, 6);
  await page.goto(`/sort/supporters/${id}`);
  await page.getByRole('button', { name: 'More to do with this record' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'As vCard' }).click();
  expect((await download).suggestedFilename()).toBe(`supporter-${id}.vcf`);
});

test('fields of every kind are edited where they stand', async ({ page }) => {
  const { id } = await anybody(page, 7);
  const make = async (name: string, type: string) =>
    ((await send(page, 'post', 'fields', { name, type, fallback: null })) as { id: number }).id;
  for (const [name, type] of [
    ['Story', 'longtext'],
    ['Next visit', 'datetime'],
    ['Home region', 'region'],
    ['Signed lease', 'file'],
    ['Has a key', 'yesno'],
  ] as const)
    await make(name, type);
  await page.goto(`/sort/supporters/${id}`);
  const edit = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}: .*Edit$`) });
  await edit('Has a key').click();
  await page.getByRole('combobox', { name: 'Has a key' }).selectOption('yes');
  await expect(page.getByRole('button', { name: 'Has a key: yes. Edit' })).toBeVisible();
  // By keys one passes others on the way: only Enter keeps.
  await edit('Has a key').press('Enter');
  await page.getByRole('combobox', { name: 'Has a key' }).press('ArrowDown');
  await expect(page.getByRole('combobox', { name: 'Has a key' })).toHaveValue('no');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Has a key: no. Edit' })).toBeVisible();
  await edit('Next visit').click();
  await page.getByLabel('Next visit', { exact: true }).fill('2027-03-04 18:30');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Next visit: Mar 4, 2027, 6:30/ })).toBeVisible();
  await edit('Home region').click();
  await page.getByRole('combobox', { name: 'Home region: country' }).selectOption({ label: 'Canada' });
  await page
    .getByRole('combobox', { name: 'Home region', exact: true })
    .selectOption({ label: 'Nova Scotia' });
  await expect(page.getByRole('button', { name: 'Home region: Nova Scotia, Canada. Edit' })).toBeVisible();
  await edit('Story').click();
  await page.getByRole('textbox', { name: 'Story' }).fill('She came with the first ferry.\nShe stayed.');
  await page.getByRole('heading', { level: 1 }).click();
  // The value itself: the timeline tells the edit with the same words.
  await expect(
    page.getByRole('button', { name: /^Story: She came with the first ferry\.\s+She stayed\.+ Edit$/ }),
  ).toBeVisible();
  await page.getByLabel('File for Signed lease').setInputFiles({
    name: 'lease.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.7 a lease'),
  });
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'lease.pdf' }).click();
  expect((await download).suggestedFilename()).toBe('lease.pdf');
  await page.getByLabel('File for Signed lease').setInputFiles({
    name: 'tool.exe',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from('MZ\u0000'),
  });
  await expect(page.getByText(/this file is none of them/)).toBeVisible();
  await noViolations(page);
});

test('a roster is joined, moved on and left from the record, by keys alone', async ({ page }) => {
  const { id } = await anybody(page, 2);
  const name = `Slip days ${id}`;
  await send(page, 'post', 'campaigns', {
    name,
    kind: 'appeal',
    appealCode: null,
    stages: ['asked', 'coming', 'came'],
  });
  await page.goto(`/sort/supporters/${id}`);
  await page.getByRole('button', { name: 'Add to' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: `${name}, asked` }).focus();
  await page.keyboard.press('Enter');
  const chip = (stage: string) =>
    page.getByRole('button', { name: `Roster: ${name}, ${stage}. Move or remove` });
  await chip('asked').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: 'Move to “coming”' }).focus();
  await page.keyboard.press('Enter');
  await expect(chip('coming')).toBeVisible();
  await noViolations(page);
  await chip('coming').click();
  await page.getByRole('menuitem', { name: 'Remove from the roster' }).click();
  await expect(chip('coming')).toHaveCount(0);
});

test('a letter says whom it tags, one sentence at a time', async ({ page }) => {
  const tag = `wrote back ${Date.now() % 100_000}`;
  await send(page, 'post', 'tags', { name: tag });
  const { id } = (await send(page, 'post', 'messages', {
    name: 'A tagging letter',
    channel: 'email',
    purpose: 'appeals',
  })) as { id: number };
  await page.goto(`/write/${id}`);
  const triggers = page.getByRole('region', { name: 'Tags by what somebody does' });
  await triggers.getByRole('button', { name: 'Tag whoever clicks a link or replies…' }).click();
  await triggers.getByLabel('The tag that they get').selectOption(tag);
  // At once: before the first change has come back.
  await triggers.getByLabel('What somebody does').selectOption('replies');
  await expect(triggers.getByLabel('The tag that they get').locator('option:checked')).toHaveText(tag);
  await expect(triggers.getByLabel('What somebody does')).toHaveValue('replied');
  await noViolations(page);
  await page.reload();
  await expect(triggers.getByLabel('The tag that they get').locator('option:checked')).toHaveText(tag);
  await triggers.getByRole('button', { name: 'Take this away' }).click();
  await expect(triggers.getByLabel('What somebody does')).toHaveCount(0);
});
