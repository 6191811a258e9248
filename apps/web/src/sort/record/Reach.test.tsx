import { screen, waitFor, within } from '@testing-library/react';
import type { RecordView } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers } from '../../testing';
import { Reach } from './Reach';

const point = (id: number, kind: 'email' | 'mobile' | 'post', shown: string, rest: object = {}) => ({
  ...{ id, kind, shown, line: null, parts: null, onHold: false, holdReason: null, sharedWith: [], ...rest },
});
const record = (rest: object = {}): RecordView =>
  ({
    ...{
      id: 5,
      firstName: 'Ada',
      lastName: 'Lin',
      place: { country: 'US', region: null, rulesOf: 'United States' },
    },
    ...{
      contactPoints: [point(1, 'email', 'ada@example.org'), point(2, 'email', 'lin@example.org')],
      fields: [],
      gifts: [],
      ...rest,
    },
  }) as unknown as RecordView;
const reach = (of: RecordView, answers: StubbedAnswers = {}, role: 'organizer' | 'viewer' = 'organizer') =>
  show(<Reach record={of} />, { role, answers });

describe('addresses', () => {
  test('the second can be put first, the first cannot; each can be taken off', async () => {
    const { user, asked } = reach(record(), {
      'POST supporters/5/contact-points/2/first': () => reply(204, null),
    });
    expect(screen.queryByRole('button', { name: 'Write to ada@example.org first' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Write to lin@example.org first' }));
    await waitFor(() =>
      expect(asked.some(({ path }) => path === 'supporters/5/contact-points/2/first')).toBe(true),
    );
    expect(screen.getAllByRole('button', { name: /^Remove / })).toHaveLength(2);
  });

  test('what is refused is told beside them', async () => {
    const { user } = reach(record(), {
      'DELETE supporters/5/contact-points/1': () =>
        reply(409, { title: 'Not as things stand', status: 409, detail: 'A message to it is on its way.' }),
    });
    await user.click(screen.getByRole('button', { name: 'Remove ada@example.org' }));
    expect((await screen.findByRole('alert')).textContent).toBe('A message to it is on its way.');
  });

  test('one more is added as what it looks like, and stays typed where it is refused', async () => {
    let refuse = true;
    const { user, asked } = reach(record(), {
      'POST supporters/5/contact-points': () =>
        refuse
          ? reply(422, {
              title: 'Something needs mending',
              status: 422,
              detail: 'expected a telephone number, got "206 55"',
            })
          : reply(204, null),
    });
    await user.click(screen.getByRole('button', { name: 'Add' }));
    const input = screen.getByRole<HTMLInputElement>('textbox', { name: 'Another email or mobile' });
    await user.type(input, '206 55{Enter}');
    expect((await screen.findByRole('alert')).textContent).toContain('"206 55"');
    expect(input.value).toBe('206 55');
    refuse = false;
    await user.clear(input);
    await user.type(input, 'third@example.org{Enter}');
    await waitFor(() => expect(screen.queryByRole('textbox')).toBeNull());
    expect(
      asked.filter(({ method }) => method === 'POST').map(({ body }) => (body as { kind: string }).kind),
    ).toEqual(['mobile', 'email']);
  });

  test('a landline is added as one, and a postal address in its parts', async () => {
    const { user, asked } = reach(record(), {
      'POST supporters/5/contact-points': () => reply(204, null),
      'GET regions': [{ code: 'US-WA', name: 'Washington' }],
    });
    const kind = async (of: string) => {
      await user.click(screen.getByRole('button', { name: 'Add' }));
      await user.selectOptions(screen.getByRole('combobox', { name: 'What kind of address' }), of);
    };
    await kind('Landline');
    await user.type(screen.getByRole('textbox', { name: 'Another landline' }), '206 555 0190{Enter}');
    await waitFor(() => expect(screen.queryByRole('textbox')).toBeNull());
    await kind('Postal address');
    await user.type(screen.getByRole('textbox', { name: 'Street' }), '12 Quay Street');
    await user.type(screen.getByRole('textbox', { name: 'Postcode' }), '98101');
    await user.selectOptions(await screen.findByRole('combobox', { name: 'Region' }), 'Washington');
    await user.type(screen.getByRole('textbox', { name: 'Town' }), 'Seattle{Enter}');
    await waitFor(() => expect(screen.queryByRole('textbox')).toBeNull());
    expect(asked.filter(({ method }) => method === 'POST').map(({ body }) => body)).toEqual([
      { kind: 'mobile', text: '206 555 0190', line: 'landline' },
      {
        kind: 'post',
        post: { street: '12 Quay Street', city: 'Seattle', region: 'WA', postcode: '98101', country: 'US' },
      },
    ]);
  });

  test('one is changed where it stands, and where that is refused what was typed stays', async () => {
    let refuse = true;
    const { user, asked } = reach(record({ contactPoints: [point(1, 'email', 'ada@example.og')] }), {
      'PUT supporters/5/contact-points/1': () =>
        refuse
          ? reply(409, { title: 'Not as things stand', status: 409, detail: 'Somebody changed it.' })
          : reply(204, null),
    });
    await user.click(screen.getByRole('button', { name: 'Change ada@example.og' }));
    const input = screen.getByRole<HTMLInputElement>('textbox', { name: 'In the place of ada@example.og' });
    expect(screen.getByText(/What they agreed to at ada@example.og stays with it/)).toBeTruthy();
    await user.clear(input);
    await user.type(input, 'ada@example.org{Enter}');
    expect((await screen.findByRole('alert')).textContent).toBe('Somebody changed it.');
    expect(input.value).toBe('ada@example.org');
    refuse = false;
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(screen.queryByRole('textbox')).toBeNull());
    expect(asked.filter(({ method }) => method === 'PUT').at(-1)!.body).toEqual({
      kind: 'email',
      text: 'ada@example.org',
      was: 'ada@example.og',
    });
  });

  test('one on hold says why, and is let go again; one that is shared says with whom', async () => {
    const held = point(3, 'email', 'held@example.org', {
      onHold: true,
      holdReason: '5.1.1 No such mailbox',
      sharedWith: [{ id: 9, name: '' }],
    });
    const { user, asked } = reach(record({ contactPoints: [held] }), {
      'POST supporters/5/contact-points/3/release': () => reply(204, null),
    });
    expect(screen.getByText(/On hold: 5.1.1 No such mailbox/)).toBeTruthy();
    expect(
      screen.getByRole<HTMLAnchorElement>('link', { name: 'someone without a name' }).getAttribute('href'),
    ).toBe('/sort/supporters/9');
    await user.click(screen.getByRole('button', { name: 'It is good again' }));
    await waitFor(() => expect(asked.some(({ path }) => path.endsWith('/3/release'))).toBe(true));
  });

  test('a viewer sees them and is offered nothing', () => {
    reach(record({ contactPoints: [] }), {}, 'viewer');
    expect(screen.getByText('No address on file.')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('a gift entered by hand', () => {
  const entering = async (typed: string) => {
    const shown = reach(record(), { 'POST supporters/5/gifts': () => reply(204, null) });
    await shown.user.click(screen.getByRole('button', { name: 'Enter a gift' }));
    await shown.user.type(screen.getByRole('textbox', { name: /^Amount/ }), typed);
    return shown;
  };
  const enter = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Enter the gift' });

  // Common practice with no source: how amounts are typed where a comma parts thousands, and where it parts
  // cents.
  test.each([
    ['25', 2500, '$25'],
    ['1,000', 100_000, '$1,000'],
    ['1.250,50', 125_050, '$1,250.50'],
    ['1,250.50', 125_050, '$1,250.50'],
    ['$40', 4000, '$40'],
    ['12,5', 1250, '$12.50'],
  ])('%s is kept as %d hundredths, said before it is', async (typed, amount, words) => {
    const { user, asked } = await entering(typed);
    expect(screen.getByText(words)).toBeTruthy();
    await user.click(enter());
    await waitFor(() =>
      expect(asked.find(({ method }) => method === 'POST')?.body).toMatchObject({ amount }),
    );
    expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(1);
  });

  test.each([
    ['many', 'An amount such as 25 or 1,250.50'],
    ['-5', 'An amount such as 25 or 1,250.50'],
    ['€25', 'Gifts are kept in USD, not in EUR.'],
  ])('%s is not entered, and said why', async (typed, words) => {
    await entering(typed);
    expect(screen.getByText(words)).toBeTruthy();
    expect(enter().disabled).toBe(true);
  });

  test('the last, the largest and all of them are told', () => {
    const gifts = [
      { id: 2, amount: 2500, on: '2026-11-02', note: '' },
      { id: 1, amount: 100_050, on: '2024-03-01', note: '' },
    ];
    reach(record({ gifts }));
    const known = within(screen.getByRole('region', { name: 'What is known' }));
    expect(known.getByText('$25 on Nov 2, 2026')).toBeTruthy();
    expect(known.getByText('$1,000.50')).toBeTruthy();
    expect(known.getByText(/\$1,025\.50, 2 gifts/)).toBeTruthy();
  });
});
