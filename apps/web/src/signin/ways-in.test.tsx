import { screen } from '@testing-library/react';
import { Route, Routes, useLocation } from 'react-router';
import { reply, show, type StubbedAnswers } from '../testing';
import Begin from './Begin';
import Forgotten from './Forgotten';
import NewPassword from './NewPassword';
import SignIn from './SignIn';

const Where = () => <p>at {useLocation().pathname}</p>;
const open = (at: string, answers: StubbedAnswers) =>
  show(
    <Routes>
      <Route path="/sign-in" element={<SignIn />} />
      <Route path="/begin" element={<Begin />} />
      <Route path="/forgotten" element={<Forgotten />} />
      <Route path="/password/:token" element={<NewPassword />} />
      <Route path="*" element={<Where />} />
    </Routes>,
    { at, answers },
  );

test('an empty house leads from signing in to its beginning, and a full one back', async () => {
  open('/sign-in', { 'GET beginning': () => ({ open: true }) });
  expect(await screen.findByLabelText(/The word/)).toBeTruthy();
});

test('whoever begins where somebody is already is sent to sign in', async () => {
  open('/begin', { 'GET beginning': () => ({ open: false }) });
  expect(await screen.findByLabelText('Password')).toBeTruthy();
});

test('the beginning says the word, who we are and who I am, and tells a wrong word at its field', async () => {
  let tries = 0;
  const faults = [{ field: 'word', code: 'word', message: 'That is not the word.' }];
  const { user, asked } = open('/begin', {
    'GET beginning': () => ({ open: true }),
    'POST beginning': () =>
      tries++ === 0 ? reply(422, { title: 'Mend', status: 422, detail: 'x', faults }) : reply(204, null),
  });
  await user.type(await screen.findByLabelText(/The word/), 'oak-reed');
  await user.type(screen.getByLabelText(/^Organization/), 'Pier Street Choir');
  await user.type(screen.getByLabelText('Your name'), 'Mabel Quay');
  await user.type(screen.getByLabelText(/Your email/), 'mabel@pierstreet.test');
  await user.type(screen.getByLabelText(/^Password/), 'seven otters under the slipway');
  await user.selectOptions(screen.getByLabelText('Currency'), 'GBP');
  await user.click(screen.getByRole('button', { name: 'Begin' }));
  expect(await screen.findByText('That is not the word.')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Begin' }));
  expect(await screen.findByText('at /setup')).toBeTruthy();
  expect(asked.at(-1)!.body).toMatchObject({
    word: 'oak-reed',
    organization: { name: 'Pier Street Choir', currency: 'GBP' },
    chapter: 'Everybody',
    name: 'Mabel Quay',
  });
});

test('a forgotten password: the answer is the same whoever it is', async () => {
  const { user, asked } = open('/forgotten', { 'POST password/forgotten': () => reply(204, null) });
  await user.type(screen.getByLabelText('Email'), 'nobody@lanternferry.test{Enter}');
  expect((await screen.findByRole('status')).textContent).toContain('If somebody works here');
  expect(asked[0]!.body).toEqual({ email: 'nobody@lanternferry.test' });
});

test('a link that is spent says so and offers another', async () => {
  open('/password/abc', {
    'GET password/abc': () =>
      reply(409, { title: 'Not as things stand', status: 409, detail: 'This link was used.' }),
  });
  expect(await screen.findByText('This link was used.')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Have a link sent' })).toBeTruthy();
});

test('an invitation asks for the name too, and leads to the profile', async () => {
  const { user, asked } = open('/password/abc', {
    'GET password/abc': () => ({
      kind: 'invitation',
      name: 'Ines',
      email: 'ines@lanternferry.test',
      organization: 'Lantern Ferry Trust',
    }),
    'POST password/abc': () => reply(204, null),
  });
  await user.type(await screen.findByLabelText('Name'), ' Calder');
  await user.type(screen.getByLabelText(/New password/), 'seven otters under the slipway{Enter}');
  expect(await screen.findByText('at /setup/you')).toBeTruthy();
  expect(asked.at(-1)!.body).toEqual({ password: 'seven otters under the slipway', name: 'Ines Calder' });
});
