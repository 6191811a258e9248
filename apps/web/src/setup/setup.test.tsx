import { screen, waitFor, within } from '@testing-library/react';
import { reply, show, type StubbedAnswers, type RecordedCall } from '../testing';
import Organization from './Organization';
import Team from './Team';
import You from './You';

const ORGANIZATION = {
  name: 'Lantern Ferry Trust',
  legalName: '',
  postalAddress: '14 Slip Lane',
  country: 'US',
  timeZone: 'America/Los_Angeles',
  fiscalMonth: 1,
  currency: 'USD',
  locale: 'en-US',
  languages: ['en', 'es'],
  fromEmail: 'hello@lanternferry.test',
  bounceDomain: 'lists.lanternferry.test',
  textFrom: '+12065550100',
  logo: null,
  version: 4,
  chapters: [{ id: 1, name: 'East Landing', postalAddress: '', people: 12 }],
  missing: [],
};

beforeEach(() => localStorage.clear());

describe('the organization', () => {
  const open = (answers: StubbedAnswers = {}, role: 'owner' | 'organizer' = 'owner') =>
    show(<Organization />, { role, answers: { 'GET organization': () => ORGANIZATION, ...answers } });

  test('is saved whole, from the version that was seen', async () => {
    const { user, asked } = open({ 'PUT organization': () => ({ version: 5 }) });
    await user.type(await screen.findByLabelText(/Legal name/), 'Lantern Ferry Trust, Inc.');
    await user.selectOptions(screen.getByLabelText(/fiscal year/), 'July');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    const { logo: _logo, version: _version, chapters: _chapters, missing: _missing, ...own } = ORGANIZATION;
    expect(asked.find(({ method }) => method === 'PUT')!.body).toEqual({
      ...own,
      legalName: 'Lantern Ferry Trust, Inc.',
      fiscalMonth: 7,
      basedOn: 4,
    });
  });

  test('that somebody else changed meanwhile is shown beside what was typed, and nothing is lost', async () => {
    let now = ORGANIZATION;
    const { user } = open({
      'GET organization': () => now,
      'PUT organization': () => {
        now = { ...ORGANIZATION, name: 'The Ferry', version: 5 };
        return reply(409, {
          title: 'Changed meanwhile',
          status: 409,
          detail: 'Idris changed it.',
          newer: true,
        });
      },
    });
    await user.type(await screen.findByLabelText(/Legal name/), 'Inc.');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect((await screen.findByText('Two versions.')).closest('[role=alert]')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>(/Legal name/).value).toBe('Inc.');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true);
  });

  test('a fault stands at its field', async () => {
    const faults = [{ field: 'textFrom', code: 'x', message: 'Write the number with +.' }];
    const { user } = open({
      'PUT organization': () => reply(422, { title: 'Mend', status: 422, detail: 'x', faults }),
    });
    await user.type(await screen.findByLabelText(/Number that texts/), '9');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText('Write the number with +.')).toBeTruthy();
  });

  test('is only read by whoever may not change it', async () => {
    open({}, 'organizer');
    expect((await screen.findByLabelText<HTMLInputElement>(/Name people know/)).disabled).toBe(true);
    for (const name of ['Save', 'Open a chapter', 'Choose a picture'])
      expect(screen.queryByRole('button', { name })).toBeNull();
  });
});

describe('the team', () => {
  const mate = (id: number, more: object = {}) => ({
    id,
    name: `Mate ${id}`,
    email: `mate${id}@lanternferry.test`,
    role: 'organizer',
    chapterIds: null,
    state: 'here',
    signedInAt: null,
    invitation: null,
    sessions: 2,
    ...more,
  });
  const invited = (state: string, detail: string | null = null) => ({
    state: 'invited',
    invitation: { state, detail, expiresAt: '2026-12-06T00:00:00Z' },
  });
  const open = (team: object[], answers: StubbedAnswers = {}) =>
    show(<Team />, {
      role: 'owner',
      answers: { 'GET team': () => team, 'GET organization': () => ORGANIZATION, ...answers },
    });

  test('says where every invitation stands', async () => {
    open([
      mate(2, invited('waiting')),
      mate(3, invited('waiting', 'The mail server is away')),
      mate(4, invited('sent')),
      mate(5, invited('failed', '550 no such user')),
      mate(6, invited('expired')),
      mate(7, { state: 'gone' }),
    ]);
    for (const words of [
      /is on its way/,
      /waits: The mail server is away/,
      /Invited, until/,
      /did not arrive: 550/,
      /too old; send it again/,
      /^Gone$/,
    ])
      expect(await screen.findByText(words)).toBeTruthy();
  });

  test('somebody who works here already is told at the address', async () => {
    const faults = [{ field: 'email', code: 'taken', message: 'Somebody works here with it already.' }];
    const { user } = open([mate(1)], {
      'POST team': () => reply(422, { title: 'Mend', status: 422, detail: 'x', faults }),
    });
    await user.click(await screen.findByRole('button', { name: 'Invite somebody' }));
    await user.type(screen.getByLabelText('Name'), 'Ines');
    await user.type(screen.getByLabelText(/^Email/), 'mate1@lanternferry.test');
    await user.click(screen.getByRole('button', { name: 'Send the invitation' }));
    expect(await screen.findByText('Somebody works here with it already.')).toBeTruthy();
  });

  test('works in all chapters, in some of them, or in none and is then not saved', async () => {
    const { user, asked } = open([mate(2), mate(3, { chapterIds: [1] })], {
      'PUT team/2': () => reply(204, null),
    });
    expect((await screen.findByText('Mate 3')).closest('tr')!.textContent).toContain(
      ORGANIZATION.chapters[0]!.name,
    );
    await user.click(
      within(screen.getByText('Mate 2').closest('tr')!).getByRole('button', { name: 'Change' }),
    );
    const save = screen.getByRole<HTMLButtonElement>('button', { name: 'Save' });
    await user.click(screen.getByLabelText(/^All chapters/));
    expect([screen.getByText('Choose at least one.') !== null, save.disabled]).toEqual([true, true]);
    for (const { name } of ORGANIZATION.chapters) await user.click(screen.getByLabelText(name));
    await user.click(save);
    expect(asked.find(({ method }) => method === 'PUT')!.body).toEqual({
      role: 'organizer',
      chapterIds: ORGANIZATION.chapters.map(({ id }) => id),
      was: { role: 'organizer', chapterIds: null },
    });
  });

  test('who is taken out hands on what waits, to somebody who was chosen', async () => {
    const { user, asked } = open([mate(1), mate(2), mate(3, invited('sent'))], {
      'GET team/2/waiting': () => ({ messages: 3, batches: 1, callLists: 0 }),
      'POST team/2/take-out': () => reply(204, null),
    });
    const row = (await screen.findByText('Mate 2')).closest('tr')!;
    await user.click(within(row).getByRole('button', { name: 'Change' }));
    expect(await screen.findByText(/3 messages, 1 half-done batch\./)).toBeTruthy();
    const out = screen.getByRole<HTMLButtonElement>('button', { name: 'Remove Mate 2' });
    expect(out.disabled).toBe(true);
    // Nobody who is not here yet can go on with it.
    expect(within(screen.getByLabelText('Who goes on with it')).queryByText('Mate 3')).toBeNull();
    await user.selectOptions(screen.getByLabelText('Who goes on with it'), 'Mate 1');
    await user.click(out);
    expect(asked.find(({ path }) => path === 'team/2/take-out')!.body).toEqual({ handTo: 1 });
  });
});

describe('oneself', () => {
  const profile = {
    name: 'Rosa Oduya',
    email: 'rosa@lanternferry.test',
    title: '',
    mobile: '',
    answersTo: '',
    signature: '',
  };
  const session = (id: number, isThis: boolean) => ({
    id,
    network: '192.0.2.1',
    browser: 'Firefox on Linux',
    since: '2026-11-29T08:00:00Z',
    usedAt: '2026-11-29T09:00:00Z',
    isThis,
  });

  test('other sessions are ended, this one is not offered', async () => {
    let all = [session(1, true), session(2, false)];
    const { user, asked } = show(<You />, {
      answers: {
        'GET me': () => profile,
        'GET me/sessions': () => all,
        'DELETE me/sessions': () => ((all = all.slice(0, 1)), reply(204, null)),
      },
    });
    expect(await screen.findAllByRole('button', { name: 'End it' })).toHaveLength(1);
    await user.click(screen.getByRole('button', { name: 'End all but this one' }));
    expect(
      asked.some(({ method, path }: RecordedCall) => method === 'DELETE' && path === 'me/sessions'),
    ).toBe(true);
    await waitFor(() => expect(screen.queryByRole('button', { name: 'End it' })).toBeNull());
  });

  test('a password that is too easy is told at its field, and nothing typed goes', async () => {
    const faults = [{ field: 'password', code: 'easy', message: 'That is guessed quickly.' }];
    const { user } = show(<You />, {
      answers: {
        'GET me': () => profile,
        'GET me/sessions': () => [session(1, true)],
        'PUT me/password': () => reply(422, { title: 'Mend', status: 422, detail: 'x', faults }),
      },
    });
    await user.type(await screen.findByLabelText('Current password'), 'old');
    await user.type(screen.getByLabelText(/New password/), 'password1234');
    await user.click(screen.getByRole('button', { name: 'Change the password' }));
    expect(await screen.findByText('That is guessed quickly.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>(/New password/).value).toBe('password1234');
  });
});
