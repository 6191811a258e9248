import { screen } from '@testing-library/react';
import { Route, Routes, useLocation } from 'react-router';
import { reply, show, type StubbedAnswers } from '../testing';
import SignIn from './SignIn';

const Where = () => <p>at {useLocation().pathname}</p>;
const signIn = (answers: StubbedAnswers, at = '/sign-in') =>
  show(
    <Routes>
      <Route path="/sign-in" element={<SignIn />} />
      <Route path="*" element={<Where />} />
    </Routes>,
    { answers, at },
  );

async function enter(user: ReturnType<typeof signIn>['user']) {
  await user.type(screen.getByLabelText('Email'), 'rosa@lanternferry.test');
  await user.type(screen.getByLabelText('Password'), 'oak-planks-afloat{Enter}');
}

test('who is known goes where they were going', async () => {
  const { user, asked } = signIn({ 'POST session': () => reply(204, null) }, '/sign-in?to=%2Fsort%2Fgroups');
  await enter(user);
  expect(await screen.findByText('at /sort/groups')).toBeTruthy();
  expect(asked.find(({ method }) => method === 'POST')!.body).toEqual({
    email: 'rosa@lanternferry.test',
    password: 'oak-planks-afloat',
  });
});

test.each(['//elsewhere.example', 'https://elsewhere.example/', 'sort'])(
  'never to a page of somebody else: %s',
  async (to) => {
    const { user } = signIn(
      { 'POST session': () => reply(204, null) },
      `/sign-in?to=${encodeURIComponent(to)}`,
    );
    await enter(user);
    expect(await screen.findByText('at /')).toBeTruthy();
  },
);

test('who is not known is told so, and what was typed stays', async () => {
  const detail = 'That email and password do not belong together.';
  const { user } = signIn({ 'POST session': () => reply(401, { title: 'Not known', status: 401, detail }) });
  await enter(user);
  expect(await screen.findByText(detail)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Email').value).toBe('rosa@lanternferry.test');
});
