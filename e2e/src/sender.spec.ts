import { expect, test } from '@playwright/test';
import { signIn } from './steps';

const MAILROOM = process.env.GW_MAILROOM ?? 'http://127.0.0.1:4610';

test('a record that is taken away is told on Today and where it is set, and made right again', async ({
  page,
  request,
}) => {
  await page.goto(`${MAILROOM}/names`);
  const zone = await page.getByLabel('Records').inputValue();
  const set = (records: string) => request.post(`${MAILROOM}/names`, { form: { zone: records } });
  await signIn(page);
  await set(zone.replace(/^_dmarc.*$/m, '').replace('-all', '+all'));
  await page.goto('/setup/sender');
  await page.getByRole('button', { name: 'Look again' }).click();
  await expect(page.getByText('not right')).toHaveCount(2);
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await expect(margin).toContainText('It lets everybody send in your name. End it with -all.');
  await page.goto('/');
  await expect(page.getByText('records of your sender')).toBeVisible();
  await set(zone);
  await page.goto('/setup/sender');
  await page.getByRole('button', { name: 'Look again' }).click();
  await expect(page.getByText('not right')).toHaveCount(0);
  await expect(margin).toContainText('Everything that was looked for is right');

  await page.getByRole('button', { name: 'Send one through' }).click();
  await expect(page.getByRole('status')).toContainText('Every signature holds.', { timeout: 30_000 });
});
