/**
 * Takes docs/screenshots from a running demo (best a fresh one): `node scripts/screenshots.mjs [address]`.
 */
import { chromium } from '@playwright/test';
import { join } from 'node:path';
import { ROOT } from './lib/prepare.mjs';

const base = process.argv[2] ?? 'http://127.0.0.1:4600';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const picture = async (name) => {
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) });
};

await page.goto(`${base}/sign-in`);
await page.getByLabel('Email').fill('rosa@lanternferry.test');
await page.getByLabel('Password').fill('oak-planks-afloat');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.waitForURL(`${base}/`);

await page.goto(`${base}/gather/new`);
await page.getByLabel('Choose a file').setInputFiles(join(ROOT, 'demo/files/winter-fair-sign-ups.csv'));
await page.getByText('ready ·').waitFor();
await picture('gather-columns');
await page.getByRole('button', { name: 'Next: where they go' }).click();
await page.getByText('winter fair 2026', { exact: true }).click();
await page.getByRole('button', { name: 'Next: permission' }).click();
await page.getByRole('radio', { name: 'They agreed to emails' }).check();
for (const scope of ['news', 'appeals'])
  await page.getByRole('checkbox', { name: scope, exact: true }).check();
await page.getByLabel('When').fill(new Date(Date.now() - 3 * 86_400_000).toISOString().slice(0, 10));
await page.getByLabel('In what words').fill('Yes, write to me by email about the ferry and how I can help.');
await page.getByLabel('I don’t know').last().check();
await picture('gather-permission');

const VIEWS = [
  ['today', '/'],
  ['gather-form', '/gather/forms/1'],
  ['house-rules', '/house'],
  ['sort-supporters', '/sort'],
  ['sort-record', '/sort/supporters/11377'],
  ['sort-segment', '/sort/segments/1'],
  ['send-campaign', '/send/campaigns/1'],
  ['send-automatic', '/send/automatic/1'],
  ['write-email', '/write/4'],
  ['send-last-look', '/send/4'],
  ['setup-sender', '/setup/sender'],
  ['hear-back-results', '/hear-back/1'],
  ['hear-back-replies', '/hear-back/replies/6'],
];
// A feed that ran once; a demo that was not begun anew has runs of its own.
await page.goto(`${base}/gather/feeds/1`);
await page.getByRole('heading', { name: 'Runs' }).waitFor();
if ((await page.getByText('It has not run yet.').count()) > 0)
  await page.getByRole('button', { name: 'Run now' }).click();
await page.getByRole('button', { name: 'Take it back out' }).first().waitFor();
await picture('gather-feed');

for (const [name, path] of VIEWS) {
  await page.goto(base + path);
  await picture(name);
}

await page.goto(`${base}/write`);
await page.getByRole('button', { name: 'Write a message' }).click();
await page.getByLabel('Name').first().fill('Fog on the river');
await page.getByLabel('It goes by').selectOption('text');
await page.getByRole('button', { name: 'Begin to write' }).click();
await page
  .getByRole('textbox', { name: 'The text' })
  .fill(
    'Lantern Ferry: fog on the river, {First name, or "neighbour"}, so the dawn boat waits until nine… Reply STOP to leave.',
  );
await page.getByText('Everything is saved').waitFor();
await picture('write-text');

// Calling through a list, as its first person is answered.
await page.goto(`${base}/sort/calls`);
await page.getByRole('button', { name: 'Make a list to call' }).first().click();
await page.getByLabel('Name of the list').fill('Deck crew, winter hull');
await page.getByLabel('Whom to call').selectOption({ label: 'Deck crew' });
await page.getByLabel('Campaign').selectOption({ label: 'Winter hull appeal' });
await page.getByRole('button', { name: 'Make the list' }).click();
await page.getByRole('region', { name: 'This call' }).waitFor();
await page.keyboard.press('3');
await picture('sort-call');

// What a supporter sees on a telephone.
await page.goto(`${base}/sort/supporters/11377`);
await page.getByRole('button', { name: 'Send them a link to their preference page' }).click();
await page.getByText('Nobody but them sees it').waitFor();
const choices = await mailedLink();
await page.setViewportSize({ width: 400, height: 800 });
await page.goto(choices);
await picture('choices');
await browser.close();

/** The link that was mailed last, as the stand-in for the mail provider has it. */
async function mailedLink() {
  const mailroom = process.env.GW_MAILROOM ?? 'http://127.0.0.1:4610';
  for (let tries = 0; tries < 40; tries++) {
    const [newest] = (await (await fetch(`${mailroom}/api/mails`)).json()).sort(
      (a, b) => Number(b.id) - Number(a.id),
    );
    const raw = newest ? await (await fetch(`${mailroom}/api/mails/${newest.id}/raw`)).text() : '';
    const found = /\/choices\/[a-z2-7]+/.exec(raw.replace(/=\r?\n/g, ''));
    if (found) return base + found[0];
    await page.waitForTimeout(500);
  }
  throw new Error('expected a mail with a link to the preference page, got none');
}
