import { expect, test, type Page } from '@playwright/test';
import type { ComparisonView } from '@goodword/core/contract';
import { noViolations } from './axe';
import { signIn, takenBackFor } from './steps';

const [ONE, TWO] = ['Which plank is yours', 'A plank with your name'];

/** A draft to everybody who wears a tag of the demo, with words of its own. */
async function draft(page: Page): Promise<number> {
  const { csrf } = (await (await page.request.get('/api/session')).json()) as { csrf: string };
  const send = async (method: 'post' | 'put', path: string, data: object) =>
    (await (await page.request[method](path, { data, headers: { 'x-gw-csrf': csrf } })).json()) as {
      id: number;
    };
  const lists = (await (await page.request.get('/api/lists')).json()) as { id: number; name: string }[];
  const crew = lists.find(({ name }) => name === 'Deck crew')!;
  const made = { name: 'Planks by name', channel: 'email', purpose: 'appeals' };
  const { id } = await send('post', '/api/messages', made);
  const text = { type: 'paragraph', content: [{ type: 'text', text: 'The hull is open.' }] };
  await send('put', `/api/messages/${id}`, {
    ...{
      name: made.name,
      purpose: 'appeals',
      listId: null,
      subject: ONE,
      preheader: '',
      text: '',
      basedOn: 0,
    },
    letter: { type: 'doc', content: [text] },
  });
  await send('put', `/api/messages/${id}/recipients`, {
    ...{ from: [{ kind: 'list', id: crew.id }], minus: [], without: [], basedOn: 0 },
  });
  return id;
}

test('another wording is written beside the first, some get either by lot, and one is chosen for the rest', async ({
  page,
}) => {
  await signIn(page);
  await takenBackFor(page, 0);
  const id = await draft(page);
  await page.goto(`/write/${id}`);
  await page.getByRole('button', { name: 'Compare it with another wording' }).click();
  await page.waitForURL((url) => /^\/write\/\d+$/.test(url.pathname) && url.pathname !== `/write/${id}`);
  const wordings = page.getByRole('navigation', { name: 'Wordings' });
  await expect(wordings.getByText('wording 2')).toHaveAttribute('aria-current', 'page');
  await expect(page.getByLabel('Subject').first()).toHaveValue(ONE);
  await page.getByLabel('Subject').first().fill(TWO);
  await expect(page.getByText('Everything is saved')).toBeVisible();
  await noViolations(page);
  await page.getByRole('button', { name: 'Next: who gets it' }).click();
  await expect(page).toHaveURL(new RegExp(`/send/${id}$`));

  // It leaves when all of them could.
  await expect(page.getByText(/wording 2”: Send yourself a test first/)).toBeVisible();
  await page.getByRole('button', { name: 'Send me a test' }).click();
  await expect(page.getByText(/^Sent to/)).toBeVisible();
  await page.goto(`/write/${id}`);
  await wordings.getByRole('link', { name: 'wording 2' }).click();
  await page.getByRole('button', { name: 'Send me a test' }).click();
  await expect(page.getByRole('button', { name: /^Sent to/ })).toBeVisible();
  await page.getByRole('button', { name: 'Next: who gets it' }).click();

  const sentence = page.getByRole('region', { name: 'How the wordings are compared' });
  await expect(sentence.getByText(/^About \d+ people get each first/)).toBeVisible();
  await sentence.getByRole('button', { name: /^How many get one of them first/ }).click();
  await page.getByRole('button', { name: '40%' }).click();
  await expect(sentence.getByRole('button', { name: 'How many get one of them first: 40%' })).toBeVisible();
  await noViolations(page);
  const button = page.getByRole('button', { name: /^Send now to/ });
  await expect(button).toBeEnabled();
  const reached = Number((await button.innerText()).replace(/\D/g, ''));
  await button.click();
  const last = page.getByRole('region', { name: 'Before it leaves' });
  await expect(last.getByText(`“${ONE}” or “${TWO}”, by lot, for 40% of them`)).toBeVisible();
  await last.getByRole('button', { name: /^Yes, send it to/ }).click();

  const came = page.getByRole('region', { name: 'Wordings' });
  const choosing = came.getByRole('button', { name: 'The rest gets this one' });
  await expect(choosing).toHaveCount(2);
  await noViolations(page);
  await choosing.nth(1).click();
  await page
    .getByRole('alertdialog')
    .getByRole('button', { name: /^Send it to/ })
    .click();
  await expect(came.getByText('Rosa Oduya chose wording 2 for the rest')).toBeVisible();
  const gone = async () => {
    const compared = await (await page.request.get(`/api/messages/${id}/comparison`)).json();
    return (compared as ComparisonView).wordings.map((one) => one.gone);
  };
  await expect.poll(async () => (await gone()).reduce((sum, n) => sum + n, 0)).toBe(reached);
  // Most of them got the second: its half of those drawn, and the rest.
  const [first, second] = await gone();
  expect(second).toBeGreaterThan(first!);
  await came.getByRole('link', { name: 'wording 2' }).click();
  await expect(page.getByText('What came of this wording')).toBeVisible();
});
