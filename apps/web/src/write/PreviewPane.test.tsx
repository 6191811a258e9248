import { screen, waitFor, within } from '@testing-library/react';
import type { MessageView } from '@goodword/core/contract';
import { show, type StubbedAnswers } from '../testing';
import { PreviewPane } from './PreviewPane';

const MESSAGE = { id: 4, channel: 'text', groupVersion: 1 } as MessageView;
const READERS = [
  { id: 7, name: 'Amara Lindqvist', address: '+1 206 555 0147', note: null },
  { id: 8, name: '', address: null, note: 'No mobile' },
];
const preview = (query: string) => {
  const id = Number(new URLSearchParams(query.split('?')[1]).get('supporterId'));
  return {
    supporter: { id, name: READERS.find((one) => one.id === id)?.name ?? 'Bo' },
    text: `Hi ${id}`,
    parts: 1,
    holes: [],
  };
};
const pane = (answers: StubbedAnswers = {}) =>
  show(<PreviewPane message={MESSAGE} stamp="1" />, {
    answers: {
      'GET messages/4/readers': ({ path }: { path: string }) =>
        READERS.filter(({ name }) =>
          name.toLowerCase().includes(new URLSearchParams(path.split('?')[1]).get('search') ?? ''),
        ),
      'GET messages/4/preview': ({ path }: { path: string }) => preview(path),
      ...answers,
    },
  });

test('is read as somebody who would get it, with their address', async () => {
  pane();
  expect(await screen.findByText('Hi 7')).toBeTruthy();
  expect(screen.getByRole('heading').textContent).toBe('As Amara Lindqvist will get it');
  expect(screen.getByText('+1 206 555 0147')).toBeTruthy();
});

test('whom else is found by typing, with why they would not get it', async () => {
  const { user, asked } = pane();
  await user.click(await screen.findByRole('button', { name: 'Whom to read it as' }));
  expect(await screen.findByRole('option', { name: /somebody without a name No mobile/ })).toBeTruthy();
  await user.keyboard('amara');
  await waitFor(() => expect(asked.some(({ path }) => path.endsWith('search=amara'))).toBe(true));
  await waitFor(() => expect(screen.getAllByRole('option')).toHaveLength(1));
  await user.clear(screen.getByRole('combobox'));
  await user.click(await screen.findByRole('option', { name: /somebody without a name/ }));
  expect(await screen.findByText('Hi 8')).toBeTruthy();
  expect(screen.getByText(/No mobile/)).toBeTruthy();
});

test('of an empty group it is read as anybody', async () => {
  pane({ 'GET messages/4/readers': [] });
  expect(await screen.findByText('Hi 0')).toBeTruthy();
});

test('an email is shown as a telephone lists it: from whom, its subject and how it begins', async () => {
  const email = { ...MESSAGE, channel: 'email', senderId: 3 } as MessageView;
  const { user } = show(<PreviewPane message={email} stamp="1" />, {
    answers: {
      'GET messages/4/readers': READERS,
      'GET session/teammates': [{ id: 3, name: 'June Marsh', email: 'june@ferry.test' }],
      'GET messages/4/preview': {
        supporter: { id: 7, name: 'Amara Lindqvist' },
        subject: 'Amara, the starboard side of the old ferry is next',
        html: '<p>Dear Amara</p>',
        preheader: 'Two planks in.',
        text: 'Dear Amara, [1]\n\n[1] https://ferry.test/hull',
        parts: 1,
        holes: [],
      },
    },
  });
  await user.click(await screen.findByRole('radio', { name: 'telephone' }));
  const listed = within(await screen.findByRole('figure', { name: 'As a telephone lists it' }));
  expect(await listed.findByText(/^June Marsh, /)).toBeTruthy();
  expect(listed.getByText('Amara, the starboard side of the old fe…')).toBeTruthy();
  expect(listed.getByText(/^Two planks in\. Dear Amara,/)).toBeTruthy();
});
