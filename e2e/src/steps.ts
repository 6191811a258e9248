import { expect, type Page } from '@playwright/test';

export const PASSWORD = 'oak-planks-afloat';

export async function signIn(page: Page, who = 'rosa'): Promise<void> {
  await page.goto('/sign-in');
  await page.getByLabel('Email').fill(`${who}@lanternferry.test`);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Good to see you');
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
  await expect.poll(async () => so((rows = (await (await fetch(url)).json()) as StoodIn[])), { timeout: 20_000 }).toBe(true);
  return rows;
}
