import { expect, test, type Page } from '@playwright/test';
import { noViolations } from './axe';
import { signIn } from './steps';

const VIEWS: [string, string, string][] = [
  ['Today', '/', ''],
  ['Gather', '/gather', 'Gather'],
  ['New batch', '/gather/new', 'Bring people in'],
  ['Remembered layouts', '/gather/layouts', 'Remembered layouts'],
  ['Work under way', '/gather/work', 'Work under way'],
  ['Campaigns', '/sort/campaigns', 'Sort'],
  ['Campaign', '/sort/campaigns/1', 'Winter hull appeal'],
  ['Files', '/setup/files', 'Setup'],
  ['Forms', '/gather/forms', 'Gather'],
  ['Form', '/gather/forms/1', 'Ferry news'],
  ['House rules', '/house', 'House rules'],
  ['Do not contact', '/house/do-not-contact', 'House rules'],
  ['Automatic answers', '/setup/answers', 'Setup'],
  ['Proof', '/house/proof', 'House rules'],
  ['Fields', '/setup/fields', 'Setup'],
  ['Supporters', '/sort', 'Supporters'],
  ['Record', '/sort/supporters/77', ''],
  ['Segments', '/sort/segments', 'Segments'],
  ['Segment', '/sort/segments/1', ''],
  ['Lists and tags', '/sort/groups', 'Lists and tags'],
  ['Calls', '/sort/calls', 'Calls'],
  ['Write', '/write', 'Write'],
  ['Templates', '/write/templates', 'Templates'],
  ['Template', '/write/templates/2', ''],
  ['Draft', '/write/4', ''],
  ['Send', '/send', 'Send'],
  ['Plan of a campaign', '/send/campaigns/1', 'Winter hull appeal'],
  ['Last look', '/send/4', 'Winter hull appeal'],
  ['Hear back', '/hear-back', 'Hear back'],
  ['Replies', '/hear-back/replies', 'Replies'],
  ['Results', '/hear-back/1', 'Planks are in'],
  ['Sender', '/setup/sender', 'Setup'],
  ['Setup', '/setup', 'Setup'],
  ['Team', '/setup/team', 'Setup'],
  ['Looks of letters', '/setup/letters', 'Setup'],
  ['You', '/setup/you', 'Setup'],
  ['Help', '/help', 'Help'],
];

test.describe('axe finds nothing on', () => {
  // One page for all of them: a new one would fetch and compile the whole interface anew for each.
  let page: Page;
  test.beforeAll(async ({ browser }) => {
    page = await (await browser.newContext()).newPage();
    await signIn(page);
  });
  test.afterAll(() => page.context().close());
  const titles = new Map<string, string>();
  for (const [name, path, heading] of VIEWS) {
    test(name, async () => {
      await page.goto(path);
      await expect(page.getByRole('heading', { level: 1 })).toContainText(heading);
      await page.waitForLoadState('networkidle');
      await noViolations(page);
      // In the history of the browser every page is told from the others.
      const title = await page.title();
      expect([title, titles.get(title) ?? name]).toEqual([title, name]);
      expect(title).toMatch(/. · Good Word$/);
      titles.set(title, name);
      // WCAG 2.2, 1.4.10: nothing is scrolled to the side, in a narrow window or with everything at twice its
      // size.
      for (const width of [1024, 640]) {
        await page.setViewportSize({ width, height: width === 640 ? 400 : 768 });
        const { scrollWidth } = await page.evaluate(() => ({
          scrollWidth: document.documentElement.scrollWidth,
        }));
        expect([name, width, scrollWidth]).toEqual([name, width, width]);
      }
      await page.setViewportSize({ width: 1280, height: 800 });
    });
  }

  test('Sign in', async ({ page: fresh }) => {
    await fresh.goto('/sign-in');
    await noViolations(fresh);
  });
});

test('what could not be read is told, and never looks as if there were nothing', async ({ page }) => {
  await signIn(page);
  const away = { title: 'Busy', status: 503, detail: 'The house is being moved.' };
  await page.route(/\/api\/(?!session)/, (route) =>
    route.fulfill({ status: 503, contentType: 'application/problem+json', body: JSON.stringify(away) }),
  );
  for (const [name, path] of VIEWS.filter(([one]) => one !== 'Help')) {
    await page.goto(path);
    // A page of several parts tells it beside each of them.
    await expect(page.locator('main').getByText(away.detail).first(), name).toBeVisible();
    const words = await page.locator('body').innerText();
    expect(
      words.match(/^.*\b(Nothing|Nobody|No [a-z]+ yet|None|in order)\b.*$/m)?.[0] ?? null,
      name,
    ).toBeNull();
  }
});

test('the columns step, the permission step and their faults pass axe too, and a large file is read off the page', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/gather/new');
  const rows = Array.from(
    { length: 50_000 },
    (_v, i) =>
      `p${i}.large@example.org,Pat${i},Lin,${i % 500 === 0 ? 'not a number' : i % 2 ? '206 555 0123' : ''}`,
  );
  await page.evaluate(() => {
    const gaps = ((window as unknown as { gaps: number[] }).gaps = [] as number[]);
    let last = performance.now();
    const tick = () => {
      const now = performance.now();
      gaps.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await page.getByLabel('Choose a file').setInputFiles({
    name: 'large.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['Email,First name,Last name,Mobile', ...rows].join('\n')),
  });
  await expect(page.getByText('50,000 rows under the header')).toBeVisible();
  await expect(page.getByText('49,900 ready')).toBeVisible();
  expect(page.workers()).toHaveLength(1);
  await noViolations(page);
  await page.getByRole('button', { name: 'Next: where they go' }).click();
  await noViolations(page);
  await page.getByRole('button', { name: 'Next: permission' }).click();
  await page.getByRole('radio', { name: 'They agreed to emails' }).check();
  await page.getByRole('checkbox', { name: 'Ask them to confirm by email' }).check();
  await page.getByLabel('They were bought').last().check();
  await expect(page.getByText('Then they do not come in')).toBeVisible();
  await noViolations(page);
});

test('a picture named .csv is told in a sentence', async ({ page }) => {
  await signIn(page);
  await page.goto('/gather/new');
  await page.getByLabel('Choose a file').setInputFiles({
    name: 'people.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
  });
  await expect(page.getByRole('alert')).toContainText('This is a PNG picture, not a table of people');
});

test('pasted rows are read as they come out of a spreadsheet', async ({ page }) => {
  await signIn(page);
  await page.goto('/gather/new');
  await page.getByLabel('Or paste rows').fill('Email\tFirst name\nann.paste@example.org\tAnn\n');
  await page.getByRole('button', { name: 'Read the pasted rows' }).click();
  await expect(page.getByText('1 row under the header')).toBeVisible();
  await expect(page.getByLabel('Separator')).toHaveValue('\t');
});

test('the stations, the finder and a table are reached by keys alone', async ({ page }) => {
  await signIn(page);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'What waits, the most pressing first' })).toBeVisible();
  await page.keyboard.press('Alt+2');
  await expect(page).toHaveURL(/\/sort$/);
  await page.getByRole('grid', { name: 'Supporters' }).focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('End');
  await page.keyboard.press('Home');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/supporters\/\d+/);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await expect(page.getByPlaceholder('A name, an address, a list, a message')).toBeFocused();
  await page.keyboard.type('Ferry news');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/sort\?list=\d+/);
});

test('a field is edited where it stands, a wrong value is told and not kept', async ({ page }) => {
  await signIn(page);
  await page.goto('/sort/supporters/12');
  await page.getByRole('button', { name: /^Volunteer hours:/ }).click();
  await page.getByRole('textbox', { name: 'Volunteer hours' }).fill('some');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('expected a number, got "some"');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Membership renews:/ }).click();
  await page.getByLabel('Membership renews', { exact: true }).fill('2027-09-11');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Membership renews: Sep 11, 2027. Edit' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Between you' })).toContainText(
    'Membership renews set to Sep 11, 2027',
  );
});

test('a viewer sees, and is not offered what viewers may not do', async ({ page }) => {
  await signIn(page, 'tomas');
  await page.goto('/gather');
  await expect(page.getByRole('button', { name: 'Bring in a file' })).toHaveCount(0);
  await page.goto('/sort/supporters/12');
  await expect(page.getByRole('button', { name: 'More to do with this record' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Write to them' })).toHaveCount(0);
});

test('the way out needs no script and fits 320 pixels', async ({ browser }) => {
  const context = await browser.newContext({
    javaScriptEnabled: false,
    viewport: { width: 320, height: 640 },
  });
  const page = await context.newPage();
  await page.goto(`${process.env.GW_URL}/leave/cut-short`);
  await expect(page.getByRole('heading', { name: 'This link leads nowhere' })).toBeVisible();
  expect(await page.locator('body').evaluate((body) => body.scrollWidth)).toBeLessThanOrEqual(320);
  await context.close();
});

test('letters that were guessed wrong are read anew as what a person says they are', async ({ page }) => {
  await signIn(page);
  await page.goto('/gather/new');
  const buffer = Buffer.from('Email;First;Last\r\njan.anew@example.org;Jan;Ko\xf1ski\r\n', 'latin1');
  await page.getByLabel('Choose a file').setInputFiles({ name: 'old.csv', mimeType: 'text/csv', buffer });
  await expect(page.getByText('read, by a guess, as')).toBeVisible();
  await expect(page.getByRole('gridcell', { name: 'Koñski' })).toBeVisible();
  await page.getByLabel('Encoding').selectOption('windows-1250');
  await expect(page.getByRole('gridcell', { name: 'Koński' })).toBeVisible();
  await page.getByLabel('Separator').selectOption('|');
  await expect(page.getByRole('gridcell', { name: 'jan.anew@example.org;Jan;Koński' })).toBeVisible();
});

test('the guides are in the program: found by typing, and from the Margin of the page that they are about', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/help');
  const guides = page.getByRole('region', { name: 'Guides' });
  for (const title of ['The steps', 'Segments', 'House rules', 'What the reasons mean'])
    await expect(guides.getByRole('heading', { name: title })).toBeAttached();
  await page.getByLabel('Find in the guides').fill('doubles likely');
  await expect(guides.getByRole('heading').first()).toHaveText('Likely doubles');
  await page.goto('/gather/new');
  await page.getByRole('link', { name: 'How this is done' }).click();
  await expect(page).toHaveURL(/help\?at=gather/);
});
