import { expect, test, type Page } from '@playwright/test';
import { signIn } from './steps';

/*
 * Something is typed in every editor that is saved by a press, and left at once without saving. It is there
 * again, it says that it is not saved, and whoever puts it back has what was there.
 */

test.beforeEach(({ page }) => signIn(page));

interface Editor {
  open(page: Page): Promise<void>;
  field(page: Page): ReturnType<Page['getByLabel']>;
  /** It makes something small, and says nothing until that is made. */
  isSmall?: boolean;
}

const aRecord = async (page: Page): Promise<void> => {
  await page.goto('/sort/supporters/500');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
};

const EDITORS: Record<string, Editor> = {
  organization: {
    open: async (page) => void (await page.goto('/setup')),
    field: (page) => page.getByLabel('Legal name'),
  },
  profile: {
    open: async (page) => void (await page.goto('/setup/you')),
    field: (page) => page.getByLabel('Title'),
  },
  form: {
    open: async (page) => {
      await page.goto('/gather/forms');
      await page.getByRole('link', { name: 'Ferry news' }).first().click();
    },
    field: (page) => page.getByLabel('A word before it'),
  },
  segment: {
    open: async (page) => void (await page.goto('/sort/segments/new')),
    field: (page) => page.getByLabel('Name of the segment'),
  },
  list: {
    open: async (page) => {
      await page.goto('/sort/groups');
      await page.getByRole('region', { name: 'Lists' }).getByRole('button', { name: 'Make a list' }).click();
    },
    field: (page) => page.getByLabel('What it is'),
  },
  campaign: {
    open: async (page) => {
      await page.goto('/sort/campaigns');
      await page.getByRole('button', { name: 'Make a campaign' }).click();
    },
    field: (page) => page.getByLabel('Appeal code'),
  },
  tag: {
    open: async (page) => {
      await page.goto('/sort/groups');
      await page
        .getByRole('region', { name: 'Tags' })
        .getByRole('button', { name: /^Change / })
        .first()
        .click();
    },
    field: (page) => page.getByLabel('Name', { exact: true }),
  },
  'answers to texts': {
    open: async (page) => void (await page.goto('/setup/answers')),
    field: (page) => page.getByLabel('To HELP'),
  },
  field: {
    open: async (page) => {
      await page.goto('/setup/fields');
      await page
        .getByRole('button', { name: /^Open / })
        .first()
        .click();
    },
    field: (page) => page.getByLabel('What to tell beside it'),
  },
  chapter: {
    open: async (page) => {
      await page.goto('/setup');
      await page
        .getByRole('listitem')
        .filter({ hasText: 'East Landing' })
        .getByRole('button', { name: 'Change' })
        .click();
    },
    field: (page) => page.getByRole('dialog').getByLabel('Postal address'),
  },
  'rows that are pasted': {
    open: async (page) => void (await page.goto('/gather/new')),
    field: (page) => page.getByLabel('Or paste rows, or a list of addresses'),
    isSmall: true,
  },
  'name of a form': {
    open: async (page) => {
      await page.goto('/gather/forms');
      await page.getByRole('button', { name: 'Make a form' }).click();
    },
    field: (page) => page.getByLabel('Name', { exact: false }),
    isSmall: true,
  },
  'list to call': {
    open: async (page) => {
      await page.goto('/sort/calls');
      await page.getByRole('button', { name: 'Make a list to call' }).first().click();
    },
    field: (page) => page.getByLabel('Name of the list'),
    isSmall: true,
  },
  note: { open: aRecord, field: (page) => page.getByLabel('A note, for the team alone'), isSmall: true },
  'message to one person': {
    open: async (page) => {
      await aRecord(page);
      await page.getByRole('button', { name: 'Write to them' }).click();
    },
    field: (page) => page.getByLabel('Subject'),
    isSmall: true,
  },
  'lines of do not contact': {
    open: async (page) => {
      await page.goto('/house/do-not-contact');
      await page.getByRole('button', { name: 'Add to it' }).click();
    },
    field: (page) => page.getByLabel('Addresses, domains, numbers, ranges'),
    isSmall: true,
  },
};

for (const [name, editor] of Object.entries(EDITORS))
  test(`what is typed into the ${name} and left at once is there again`, async ({ page, context }) => {
    const all: [string, (at: Page) => Promise<Page>][] = [
      ['a click elsewhere', async (at) => (await at.goto('/send'), at)],
      ['Back', async (at) => (await at.goBack(), at)],
      ['a closed tab', async (at) => (await at.close(), context.newPage())],
      ['a reload', async (at) => (await at.reload(), at)],
    ];
    // They all keep it by the same means: every way is tried with one of them.
    const ways = name === 'form' ? all : all.slice(-1);
    let at = page;
    await at.goto('/sort');
    await editor.open(at);
    const before = await editor.field(at).inputValue();
    for (const [way, leave] of ways) {
      await editor.field(at).fill(`left by ${way}`);
      at = await leave(at);
      await editor.open(at);
      await expect(editor.field(at)).toHaveValue(`left by ${way}`);
      if (!editor.isSmall) await expect(at.getByText('Not saved yet.')).toBeVisible();
    }
    await editor.field(at).fill(before);
    await expect(at.getByText('Not saved yet.')).toBeHidden();
  });

test('a batch: what was settled and left at once goes on where it was, and Back goes one step back', async ({
  page,
}) => {
  await page.goto('/gather');
  await page.goto('/gather/new');
  const file = {
    name: 'left-in-haste.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Email,First name\nhaste@example.org,Hal\n'),
  };
  await page.getByLabel('Choose a file').setInputFiles(file);
  await page.getByRole('button', { name: 'Next: Where they go' }).click();
  await expect(page).toHaveURL(/gather\/\d+\?.*step=Where/);
  await page.getByLabel('Name of the batch').fill('Left in haste');
  await page.reload();
  await expect(page.getByLabel('Name of the batch')).toHaveValue('Left in haste');
  await page.getByRole('button', { name: 'Next: Permission' }).click();
  await expect(page.getByRole('region', { name: 'May we email these people?' })).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel('Name of the batch')).toHaveValue('Left in haste');
  await page.goForward();
  await expect(page.getByRole('region', { name: 'May we email these people?' })).toBeVisible();
  await page.getByRole('button', { name: 'Throw it away' }).click();
  await page.getByRole('button', { name: 'Throw the batch away' }).click();
});

test('of two who settle one batch the second is told, and neither is overwritten', async ({
  page,
  context,
}) => {
  await page.goto('/gather/new');
  const file = {
    name: 'two-hands.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Email,First name\nhands@example.org,Hal\n'),
  };
  await page.getByLabel('Choose a file').setInputFiles(file);
  await page.getByRole('button', { name: 'Next: Where they go' }).click();
  await page.getByLabel('Name of the batch').fill('Mine at first');
  await expect(page).toHaveURL(/gather\/\d+/);
  const id = /gather\/(\d+)/.exec(page.url())![1];
  await expect
    .poll(
      async () => ((await (await page.request.get(`/api/batches/${id}`)).json()) as { name: string }).name,
    )
    .toBe('Mine at first');
  const other = await context.newPage();
  await other.goto(`/gather/${id}?change=1`);
  await other.getByLabel('Name of the batch').fill('Theirs');
  await expect
    .poll(
      async () => ((await (await page.request.get(`/api/batches/${id}`)).json()) as { name: string }).name,
    )
    .toBe('Theirs');
  await page.getByLabel('Name of the batch').fill('Mine again');
  await expect(page.getByText('Two versions.')).toBeVisible();
  await page.getByRole('button', { name: 'Mine stays' }).click();
  await expect
    .poll(
      async () => ((await (await page.request.get(`/api/batches/${id}`)).json()) as { name: string }).name,
    )
    .toBe('Mine again');
});
