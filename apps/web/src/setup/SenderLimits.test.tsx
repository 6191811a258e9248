import { screen, waitFor } from '@testing-library/react';
import type { SenderView } from '@goodword/core/contract';
import { show } from '../testing';
import { SenderLimits } from './SenderLimits';

const page = (part: Partial<SenderView> = {}, role: 'owner' | 'viewer' = 'owner') =>
  show(<SenderLimits view={{ limits: null, mailsLeft: null, ...part } as SenderView} />, {
    ...{ role, at: '/setup/sender', answers: { 'PUT sender/limits': null } },
  });
const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save' });

test('an hour, a day and the first days of a new domain are said and kept', async () => {
  const { user, asked } = page();
  expect(save().disabled).toBe(true);
  await user.type(await screen.findByLabelText(/^In an hour at most/), '500');
  await user.click(screen.getByRole('checkbox', { name: /^The domain is new/ }));
  const amounts = screen.getByLabelText(/^Mails on each day/);
  await user.clear(amounts);
  await user.type(amounts, '10, twenty');
  expect(save().disabled).toBe(true);
  expect(screen.getByText(/^Numbers with spaces between them/)).toBeTruthy();
  await user.clear(amounts);
  await user.type(amounts, '10, 20');
  await user.click(save());
  await waitFor(() => expect(asked.filter(({ method }) => method === 'PUT')).toHaveLength(1));
  expect(asked.find(({ method }) => method === 'PUT')?.body).toMatchObject({
    ...{ perHour: 500, perDay: null, warmUp: { amounts: [10, 20] } },
  });
});

test('what may leave just now is told, and nobody but an owner changes it', async () => {
  page({ limits: { perHour: null, perDay: 2000, warmUp: null }, mailsLeft: 150 }, 'viewer');
  expect(await screen.findByText('150 more may leave just now.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
  expect(screen.getByText('An owner can change this.')).toBeTruthy();
});
