import { expect, type Page } from '@playwright/test';

export const PASSWORD = 'oak-planks-afloat';

/** Who has signed in already, by the cookies that they were given. */
const sessions = new Map<string, Awaited<ReturnType<ReturnType<Page['context']>['cookies']>>>();

/**
 * Signs in by hand the first time, and from then on comes with the session that was given; whoever calls
 * opens the page.
 */
export async function signIn(page: Page, who = 'rosa'): Promise<void> {
  const known = sessions.get(who);
  if (known) return page.context().addCookies(known);
  await page.goto('/sign-in');
  await page.getByLabel('Email').fill(`${who}@lanternferry.test`);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveTitle('Today · Good Word');
  sessions.set(who, await page.context().cookies());
}

/** Fills the evidence of one channel in the permission step. */
export async function agree(page: Page, channel: 'email' | 'text', scopes: string[]): Promise<void> {
  const card = page.getByRole('region', { name: `May we ${channel} these people?` });
  await card.getByLabel(`They agreed to ${channel}s, and we can show it`).check();
  for (const scope of scopes) await card.getByRole('checkbox', { name: scope, exact: true }).check();
  await card.getByLabel('When').fill('2026-10-02');
  await card.getByLabel('In what words').fill('Yes, please write to me about the ferry.');
}

interface StoodIn {
  subject?: string;
  text?: string;
  html?: string;
  body?: string;
  number?: string;
  id: string;
}

/** Asks a stand-in until it has something, for mail and texts arrive when they arrive. */
export async function arrived(url: string, so: (rows: StoodIn[]) => boolean): Promise<StoodIn[]> {
  let rows: StoodIn[] = [];
  await expect.poll(async () => so((rows = (await (await fetch(url)).json()) as StoodIn[]))).toBe(true);
  return rows;
}

/** Lets texts leave at any hour: the suite runs at whatever time it is where supporters are. */
export async function textsAtAnyHour(page: Page): Promise<void> {
  await changeRules(page, (rules) => {
    for (const place of Object.values(rules.places)) place.hours = { text: null, call: null };
  });
}

/** How long a message that was sent now can be taken back. */
export async function takenBackFor(page: Page, undoSeconds: number): Promise<void> {
  await changeRules(page, (rules) => void (rules.undoSeconds = undoSeconds));
}

interface Rules {
  undoSeconds?: number;
  places: Record<string, { hours: { text: unknown; call: unknown } }>;
}

async function changeRules(page: Page, change: (rules: Rules) => void): Promise<void> {
  const { csrf } = (await (await page.request.get('/api/session')).json()) as { csrf: string };
  const { version, rules } = (await (await page.request.get('/api/house-rules')).json()) as {
    version: number;
    rules: Rules;
  };
  const before = JSON.stringify(rules);
  change(rules);
  if (JSON.stringify(rules) === before) return;
  const answer = await page.request.put('/api/house-rules', {
    data: { rules, basedOn: version },
    headers: { 'x-gw-csrf': csrf },
  });
  expect(answer.status()).toBe(200);
}

/** The newest mail to somebody in the Mailroom, whole. */
export async function newestMail(to: string, count = 1): Promise<string> {
  const mailroom = process.env.GW_MAILROOM ?? '';
  const mails = await arrived(
    `${mailroom}/api/mails?to=${encodeURIComponent(to)}`,
    (rows) => rows.length >= count,
  );
  const newest = mails.reduce((a, b) => (Number(b.id) > Number(a.id) ? b : a));
  return (await (await fetch(`${mailroom}/api/mails/${newest.id}/raw`)).text())
    .replace(/=\r?\n/g, '')
    .replace(/=3D/g, '=');
}

/** Asks for the link to a supporter's preference page from their record, and reads it in the mail to them. */
export async function mailedChoices(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Send them a link to their preference page' }).click();
  const said = page.getByText(/A link to their preference page is on its way to/);
  await expect(said).toBeVisible();
  const to = /on its way to (\S+@\S+?)\. /.exec((await said.textContent())!)![1]!;
  let mail = '';
  await expect.poll(async () => (mail = await newestMail(to))).toContain('/choices/');
  return linkIn(mail, 'choices');
}

export function linkIn(mail: string, path: string): string {
  const found = new RegExp(`/${path}/[a-z2-7]+`).exec(mail);
  if (!found) throw new Error(`expected a link to /${path}/ in the mail`);
  return found[0];
}
