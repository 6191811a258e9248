import { screen } from '@testing-library/react';
import { useQuery } from '@tanstack/react-query';
import type { RecordView } from '@goodword/core/contract';
import { reading } from '../../app/reading';
import { reply, show } from '../../testing';
import { PlaceRow } from './PlaceRow';

const recordAt = (country: string) =>
  ({ id: 7, place: { country, region: null, rulesOf: country } }) as unknown as RecordView;

function Page() {
  const record = useQuery(reading('supporters/{id}', { id: 7 }));
  return record.data ? <PlaceRow record={record.data} /> : null;
}

test('somebody was quicker: what stands there is told, and pressing once more puts this in its place', async () => {
  let at = 'FR';
  const { user, asked } = show(<Page />, {
    answers: {
      'GET supporters/7': () => recordAt(at),
      'GET regions': [],
      'PUT supporters/7/place': ({ body }: { body: unknown }) => {
        const { country, was } = body as { country: string; was: { country: string } };
        if (was.country !== at)
          return reply(409, {
            title: 'Changed meanwhile',
            status: 409,
            detail: `Somebody changed it to ${at}.`,
            newer: true,
          });
        at = country;
        return {};
      },
    },
  });
  await user.click(await screen.findByRole('button', { name: 'Place: France. Edit' }));
  await user.selectOptions(screen.getByLabelText('Country'), 'CA');
  at = 'GB';
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect((await screen.findByRole('alert')).textContent).toContain('GB');
  expect(screen.getByLabelText<HTMLSelectElement>('Country').value).toBe('CA');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByRole('button', { name: 'Place: Canada. Edit' })).toBeTruthy();
  expect(
    asked
      .filter(({ method }) => method === 'PUT')
      .map(({ body }) => (body as { was: { country: string } }).was.country),
  ).toEqual(['FR', 'GB']);
});
