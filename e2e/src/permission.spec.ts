import { createServer } from 'node:http';
import { expect, test, type Browser, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { arrived, linkIn, mailedChoices, newestMail, signIn, textsAtAnyHour } from './steps';

const handsets = process.env.GW_HANDSETS ?? '';
const SCRIPTLESS = { viewport: { width: 360, height: 740 }, javaScriptEnabled: false };

/** A telephone: narrow, and without script, which no page of a supporter needs. */
async function phone(browser: Browser): Promise<Page> {
  return (await browser.newContext({ ...SCRIPTLESS, baseURL: process.env.GW_URL })).newPage();
}

/** The page fits a telephone: nothing is wider than the screen. */
async function fits(page: Page): Promise<void> {
  const box = await page.locator('main').boundingBox();
  expect(box!.x).toBeGreaterThanOrEqual(0);
  expect(box!.width).toBeLessThanOrEqual(360);
}

async function ledgerOf(page: Page, search: string): Promise<Page> {
  await page.goto(`/sort?search=${encodeURIComponent(search)}`);
  await page
    .getByRole('row', { name: new RegExp(search.split('@')[0]!.split('.')[0]!, 'i') })
    .first()
    .click();
  await expect(page.getByRole('region', { name: 'Permission ledger' })).toBeVisible();
  return page;
}

test('a supporter joins, confirms, pauses, leaves and comes back, on a telephone without script', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const ledger = page.getByRole('region', { name: 'Permission ledger' });
  const supporter = await phone(browser);

  await test.step('joining', async () => {
    await supporter.goto('/join/ferry-news');
    await fits(supporter);
    await supporter.getByRole('button', { name: 'Join Ferry news' }).click();
    await expect(supporter.getByText('Please fill this in.')).toBeVisible();
    await supporter.getByLabel('First name').fill('Wilfrida');
    await supporter.locator('input[name=email]').fill('wilfrida.quay@example.org');
    await supporter.getByLabel(/may send me Ferry news by email/).check();
    await supporter.getByRole('button', { name: 'Join Ferry news' }).click();
    await expect(supporter.getByRole('heading', { name: 'Thank you' })).toBeVisible();
    await ledgerOf(page, 'wilfrida.quay@');
    await expect(ledger).toContainText('Asked');
    await expect(ledger).toContainText('Form “Ferry news”, version 1');
  });

  await test.step('confirming', async () => {
    await supporter.goto(linkIn(await newestMail('wilfrida.quay@example.org'), 'confirm'));
    await fits(supporter);
    await supporter.getByRole('button', { name: 'Yes, that was me' }).click();
    await expect(supporter.getByRole('heading', { name: 'You have confirmed' })).toBeVisible();
    await page.reload();
    await expect(ledger).toContainText('Confirmed by the button in our mail');
  });

  let choices = '';
  await test.step('the preference page', async () => {
    choices = await mailedChoices(page);
    await supporter.goto(choices);
    await fits(supporter);
    await expect(supporter.getByLabel(/^Ferry news \(yes\)/)).toBeChecked();
    await expect(supporter.getByText('so that you know what the planks you love are up to')).toBeVisible();
  });

  await test.step('a pause', async () => {
    await supporter.getByRole('button', { name: '60 days' }).click();
    await expect(supporter.getByText(/Paused until/)).toBeVisible();
    await page.reload();
    await expect(ledger).toContainText('Pause');
    await supporter.getByRole('button', { name: 'End the pause now' }).click();
    await expect(supporter.getByText(/Paused until/)).toBeHidden();
  });

  await test.step('leaving everything', async () => {
    await supporter.getByRole('button', { name: 'Send me nothing at all' }).click();
    await expect(supporter.getByText('You get nothing from us any more.')).toBeVisible();
    await page.reload();
    await expect(ledger).toContainText('Email, everything: on the preference page');
  });

  await test.step('coming back', async () => {
    await supporter.getByLabel(/^Ferry news/).check();
    await supporter.getByRole('button', { name: 'Save my choices' }).click();
    await expect(supporter.getByText('Saved. This is how it stands now.')).toBeVisible();
    await expect(supporter.getByLabel(/^Ferry news \(yes\)/)).toBeChecked();
    await page.reload();
    await expect(ledger.getByRole('listitem').first()).toContainText(
      'Email, Ferry news: on the preference page',
    );
  });

  await test.step('asking to be erased, which the owner does', async () => {
    await supporter.getByRole('button', { name: 'Ask us to erase me' }).click();
    await expect(supporter.getByText('You asked to be erased.')).toBeVisible();
    await page.goto('/');
    await page.getByRole('link', { name: /Wilfrida asks to be erased/ }).click();
    await page.getByRole('button', { name: 'More to do with this record' }).click();
    await page.getByRole('menuitem', { name: 'Erase this person' }).click();
    await page.getByRole('button', { name: 'Erase Wilfrida' }).click();
    await expect(page.getByRole('heading', { name: 'Supporters' })).toBeVisible();
    await supporter.goto(choices);
    await expect(supporter.getByRole('heading', { name: 'This link leads nowhere' })).toBeVisible();
  });
});

test("supporters' pages pass axe and work by keyboard alone", async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  await page.goto('/join/ferry-news');
  await noViolations(page);
  await page.keyboard.press('Tab');
  await page.keyboard.type('Kaya');
  for (let i = 0; i < 2; i++) await page.keyboard.press('Tab');
  await page.keyboard.type('kaya.keys@example.org');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Tab');
  await page.keyboard.press('Space');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible();
  await noViolations(page);
  await page.goto(linkIn(await newestMail('kaya.keys@example.org'), 'confirm'));
  await noViolations(page);
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'You have confirmed' })).toBeVisible();
  await noViolations(page);
  await page.goto('/join/ferry-news');
  await page.getByRole('button').click();
  await noViolations(page);
  await page.goto('/leave/example');
  await noViolations(page);
});

test('the preference page passes axe in every language, and asks for a text to confirm a new number', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/sort/supporters/21');
  const path = await mailedChoices(page);
  for (const language of ['en', 'es', 'fr', 'de']) {
    await page.goto(`${path}?lang=${language}`);
    await expect(page.locator('html')).toHaveAttribute('lang', language);
    await noViolations(page);
  }
  await page.goto(path);
  await page.getByLabel('Mobile').fill('212 555 0196');
  await page.getByRole('button', { name: 'Save name and addresses' }).click();
  await expect(page.getByText('For a new address, look for our mail or text there.')).toBeVisible();
  await arrived(`${handsets}/api/texts?number=${encodeURIComponent('+12125550196')}`, (rows) =>
    rows.some((row) => /reply YES/.test(row.body ?? '')),
  );
});

test('house rules are drafted, weighed against everybody, made, and kept with who and when', async ({
  page,
}) => {
  await signIn(page);
  await textsAtAnyHour(page);
  await page.goto('/house');
  await expect(page.getByRole('complementary', { name: 'Margin' })).toContainText('47 CFR 64.1200(c)(1)');
  await expect(page.getByRole('complementary', { name: 'Margin' })).toContainText('Verify with your counsel');
  await page.getByRole('button', { name: 'Canada' }).click();
  await page.getByLabel(/We are a registered charity/).check();
  await expect(page.getByLabel('Email for appeals needs')).toHaveValue('nothing');
  await page.getByRole('button', { name: 'See whom it changes' }).first().click();
  const drawer = page.getByRole('dialog');
  await expect(drawer).toContainText('Canada: email for appeals needs nothing on record');
  await expect(drawer.getByRole('row', { name: /Email, appeals/ })).toBeVisible();
  await noViolations(page);
  await drawer.getByRole('button', { name: 'Make the change' }).click();
  // The place that was looked at is still the one that is shown.
  await expect(page.getByRole('region', { name: /^Rules for/ })).toContainText('Rosa Oduya');
  await expect(page.getByRole('button', { name: 'Canada' })).toHaveAttribute('aria-current', 'true');
  await expect(page.getByLabel(/We are a registered charity/)).toBeChecked();

  await page.getByRole('button', { name: 'Add a place' }).click();
  await page.getByLabel('Country', { exact: false }).first().fill('us');
  await page.getByLabel('Region, if only one').fill('me');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('heading', { name: 'United States, ME' })).toBeVisible();
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(page.getByRole('button', { name: 'United States, ME' })).toBeHidden();
});

test('an organizer may read the rules and not change them', async ({ page }) => {
  await signIn(page, 'idris');
  await page.goto('/house');
  await expect(page.getByLabel('Email for appeals needs')).toBeDisabled();
  await expect(page.getByRole('button', { name: 'See whom it changes' })).toBeHidden();
});

test('do-not-contact takes a list by hand, tells what it could not read, and gives an entry back', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/house/do-not-contact');
  await page.getByRole('button', { name: 'Add to it' }).click();
  await page
    .getByLabel(/^Addresses, domains/)
    .fill('never.again@example.org\nnonsense\n@closed.example.com\n+12125550180 - +12125550189');
  await page.getByLabel('Why').fill('Asked by letter');
  await page.getByRole('button', { name: 'Add them' }).click();
  await expect(page.getByRole('status').last()).toContainText('3 added');
  await expect(page.getByRole('dialog')).toContainText('Line 2, “nonsense”');
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByLabel('Search do-not-contact').fill('closed.example');
  await page.getByRole('button', { name: 'Remove closed.example.com' }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.getByText('Nothing like it is on the list')).toBeVisible();
});

test('a form is made, put in order by keys, refused until its words are whole, opened, and lives in other pages', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/gather/forms');
  await page.getByRole('button', { name: 'Make a form' }).click();
  await page.getByLabel('Name', { exact: false }).first().fill('Harbour fair');
  await page.getByLabel(/Offered with the public list/).selectOption('Launch day');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { name: 'Harbour fair' })).toBeVisible();

  const labels = () =>
    page
      .getByLabel(/^Label of/)
      .evaluateAll((inputs) => inputs.map((input) => (input as HTMLInputElement).value));
  expect(await labels()).toEqual(['First name', 'Last name', 'Email', 'Mobile']);
  await page.getByRole('button', { name: 'Move Mobile', exact: true }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(300);
  await page.keyboard.press('ArrowUp');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect.poll(labels).toEqual(['First name', 'Last name', 'Mobile', 'Email']);
  await page.getByLabel('Ask for more').selectOption('Favourite crossing');
  await page.getByLabel('How Favourite crossing is known').selectOption('hidden');

  await page.getByLabel('Words of box 2').fill('Lantern Ferry Trust may text me.');
  await expect(page.getByText(/The words must still say how often texts come/)).toBeVisible();
  await page.getByRole('button', { name: 'Save a new version' }).click();
  await expect(page.getByRole('complementary', { name: 'Margin' })).toContainText(
    'must say that STOP ends it',
  );
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByRole('alert')).toContainText("It can't be opened yet");
  await page.getByRole('button', { name: 'Remove box 2' }).click();
  await page.getByRole('button', { name: 'Save a new version' }).click();
  await expect(page.getByText('Closed, version 3')).toBeVisible();
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByText('Open, version 3')).toBeVisible();

  await page.getByRole('button', { name: 'Where it lives' }).click();
  await expect(page.getByRole('img', { name: /QR code/ })).toBeVisible();
  const plain = await page.getByLabel('In a page of yours, as plain HTML').inputValue();
  expect(plain).toContain('name="agree_0"');
  const page2 = await page.context().newPage();
  await page2.goto('/join/harbour-fair?field_3=the%20banner');
  await expect(page2.locator('input[type=hidden][value="the banner"]')).toHaveCount(1);
});

test('an entry by hand carries its sheet, an objection closes everything, and all of it prints', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/sort/supporters/33');
  const ledger = page.getByRole('region', { name: 'Permission ledger' });
  await page.getByRole('button', { name: 'Record what they said' }).click();
  await page.locator('select[name=state]').selectOption('implied');
  await expect(page.locator('select[name=how]').locator('option').first()).toHaveText('with a gift');
  await page.locator('select[name=state]').selectOption('yes');
  await page.locator('select[name=how]').selectOption('paper');
  await page.getByLabel('In what words').fill('Yes, write to me about volunteering.');
  await page.locator('select[name=scope]').selectOption('volunteering');
  await page.getByLabel(/The sheet they signed/).setInputFiles({
    name: 'sheet.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.4\n% a sheet\n'),
  });
  await page.getByRole('button', { name: 'Add the entry' }).click();
  await expect(ledger.getByRole('link', { name: 'the sheet' })).toBeVisible();
  await page.getByRole('button', { name: 'They object to all marketing' }).click();
  await page.getByLabel('In what words').fill('No more advertising, please');
  await page.getByRole('button', { name: 'Close every channel to marketing' }).click();
  await expect(ledger).toContainText('everything but service messages: by objecting to all marketing');
  const printed = await page.context().newPage();
  await printed.goto('/api/supporters/33/permission.html');
  await expect(printed.getByText('“No more advertising, please”').first()).toBeVisible();
  await noViolations(printed);
});

test('a text that asks to stop in its own words waits on Today for a person', async ({ page }) => {
  await signIn(page);
  const number = '+12125550197';
  await fetch(`${handsets}/api/phones/${encodeURIComponent(number)}/answer`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ text: 'Please do not text me again' }),
  });
  await expect(async () => {
    await page.goto('/');
    await expect(page.getByText('Please do not text me again')).toBeVisible({ timeout: 3000 });
  }).toPass();
  await page.getByRole('button', { name: 'They mean stop' }).click();
  await expect(page.getByText('Please do not text me again')).toBeHidden();
});

test('a form stands in a page of another origin, as high as it is', async ({ page }) => {
  await signIn(page);
  const host = createServer((_request, response) => {
    response.setHeader('content-type', 'text/html');
    response.end(
      `<!doctype html><title>The trust</title><h1>The trust</h1><script src="${process.env.GW_URL}/join/frame.js" data-form="ferry-news" data-title="Ferry news"></script>`,
    );
  });
  await new Promise<void>((done) => host.listen(0, '127.0.0.1', () => done()));
  const origin = `http://127.0.0.1:${(host.address() as { port: number }).port}`;
  await page.goto('/gather/forms/1');
  await page.getByLabel('Pages that may frame it').fill(origin);
  await page.getByRole('button', { name: 'Save a new version' }).click();
  await expect(page.getByText(/Open, version [2-9]/)).toBeVisible();
  await page.goto(origin);
  const frame = page.frameLocator('iframe[title="Ferry news"]');
  await expect(frame.getByRole('button', { name: 'Join Ferry news' })).toBeVisible();
  await expect.poll(async () => (await page.locator('iframe').boundingBox())!.height).toBeGreaterThan(700);
  await frame.getByLabel('First name').fill('Frame');
  await frame.locator('input[name=email]').fill('frame.visitor@example.org');
  await frame.getByLabel(/may send me Ferry news by email/).check();
  await frame.getByRole('button', { name: 'Join Ferry news' }).click();
  await expect(frame.getByRole('heading', { name: 'Thank you' })).toBeVisible();
  await expect.poll(async () => (await page.locator('iframe').boundingBox())!.height).toBeLessThan(700);
  await newestMail('frame.visitor@example.org');
  await new Promise((done) => host.close(done));
});
