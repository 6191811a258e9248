import { act, screen, waitFor, within } from '@testing-library/react';
import { EMPTY_PLAN } from '@goodword/core/intake';
import { useMarginStore } from '../ui/margin';
import { show, type StubbedAnswers } from '../testing';
import { planOfDraft, useDraft, type DraftState } from './draft';
import { GroupsStep } from './GroupsStep';
import { PermissionStep } from './PermissionStep';

const LIST = { isPublic: false, description: '', why: '', onPreferences: false, byForm: false, folder: '' };
const ANSWERS: StubbedAnswers = {
  'GET lists?counted=false': [
    { ...LIST, id: 1, name: 'Ferry news', isPublic: true },
    { ...LIST, id: 2, name: 'Deck crew', folder: 'Working groups' },
  ],
  'GET tags?counted=false': [
    { id: 5, name: 'boat shed key', chapter: null, handedDown: true },
    { id: 6, name: 'oar makers', chapter: null, handedDown: true },
  ],
  'GET campaigns': [
    { id: 9, name: 'Winter hull appeal', stages: ['asked', 'pledged'], isOpen: true },
    { id: 10, name: 'Last year’s appeal', stages: ['asked'], isOpen: false },
  ],
};

const { what: _what, ...PARTS } = EMPTY_PLAN;

/** A batch whose columns are settled. */
function draft(of: Partial<DraftState> = {}): void {
  act(() => {
    useDraft.getState().reset();
    useDraft.setState({
      name: 'Harbor day, 27 Nov 2026',
      columns: [{ to: 'email' }, { to: 'firstName' }],
      analysis: { found: { header: ['E-mail', 'First'] } } as never,
      parts: { what: 'people', ...PARTS },
      ...of,
    });
  });
}
const now = () => useDraft.getState();
const said = (channel: 'emails' | 'texts') =>
  screen.getByRole('radio', { name: `They agreed to ${channel}, and we can show it` });
const notes = () => useMarginStore.getState().notes.map(({ key }) => key);

describe('permission', () => {
  test('there is no way on before both channels are answered; not to know is an answer', async () => {
    draft();
    const { user } = show(<PermissionStep />, { answers: ANSWERS });
    const next = screen.getByRole<HTMLButtonElement>('button', { name: 'Next: matches' });
    expect(next.disabled).toBe(true);
    expect(notes()).toContain('open');
    await user.click(screen.getAllByRole('radio', { name: 'I don’t know, or they did not' })[0]!);
    expect(next.disabled).toBe(true);
    await user.click(screen.getAllByRole('radio', { name: 'I don’t know, or they did not' })[1]!);
    expect(next.disabled).toBe(false);
    expect(notes()).not.toContain('open');
    expect(screen.getByText(/No email goes to them until they say yes themselves/)).toBeTruthy();
    await user.click(next);
    expect(now().step).toBe('Matches');
  });

  test('bought people do not come in, with the reason', async () => {
    draft();
    const { user } = show(<PermissionStep />, { answers: ANSWERS });
    await user.click(screen.getAllByRole('radio', { name: /bought, rented or collected/ })[0]!);
    await user.click(screen.getAllByRole('radio', { name: 'I don’t know, or they did not' })[1]!);
    expect(screen.getByText(/one complaint costs the delivery of a thousand others/)).toBeTruthy();
    expect(planOfDraft(now())).toBeNull();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Next: matches' }).disabled).toBe(true);
  });

  test('a yes is a sentence: about what, how, when, in what words, vouched for by whom', async () => {
    draft();
    const { user } = show(<PermissionStep />, { answers: ANSWERS });
    await user.click(said('emails'));
    await user.click(screen.getByRole('checkbox', { name: 'appeals' }));
    await user.click(await screen.findByRole('checkbox', { name: 'Ferry news' }));
    // Internal: nobody agreed to get it by name.
    expect(screen.queryByRole('checkbox', { name: 'Deck crew' })).toBeNull();
    await user.selectOptions(screen.getByLabelText('How'), 'said in person');
    await user.type(screen.getByLabelText('In what words'), 'Yes, write to me.');
    await user.clear(screen.getByLabelText('Who vouches for it'));
    await user.type(screen.getByLabelText('Who vouches for it'), 'Idris Vale');
    expect(now().permission.email).toMatchObject({
      ...{
        said: 'yes',
        from: 'everyone',
        scopes: ['appeals', 'list:1'],
        how: 'in-person',
        words: 'Yes, write to me.',
        voucher: 'Idris Vale',
      },
    });
    await user.click(screen.getByRole('checkbox', { name: 'appeals' }));
    expect(now().permission.email).toMatchObject({ scopes: ['list:1'] });
  });

  test('what an agreement still wants is asked here, and there is no way on before', async () => {
    draft();
    const { user } = show(<PermissionStep />, { answers: ANSWERS });
    const next = screen.getByRole<HTMLButtonElement>('button', { name: 'Next: matches' });
    await user.click(said('emails'));
    await user.click(screen.getAllByRole('radio', { name: 'I don’t know, or they did not' })[1]!);
    const asked = () =>
      useMarginStore
        .getState()
        .notes.filter(({ key }) => key.startsWith('open-'))
        .map(({ title }) => title);
    await waitFor(() => expect(asked()).toContain('Email: choose what they agreed to.'));
    expect(asked()).toContain('Email: say on which day they agreed.');
    expect(next.disabled).toBe(true);
    await user.click(screen.getByRole('checkbox', { name: 'appeals' }));
    act(() =>
      now().setPermission('email', { ...(now().permission.email as object), on: '2026-05-01' } as never),
    );
    await user.type(screen.getByLabelText('In what words'), 'Yes, write to me.');
    await waitFor(() => expect(asked()).toEqual([]));
    expect(next.disabled).toBe(false);
  });

  test('what stands in columns is taken from there', () => {
    draft({
      columns: [
        { to: 'email' },
        { to: 'consent', channel: 'email' },
        { to: 'signedOn' },
        { to: 'signedWords' },
      ] as never,
      analysis: { found: { header: ['E-mail', 'OK?', 'Signed', 'Said'] } } as never,
      permission: {
        email: { said: 'yes', from: 'column', scopes: [], how: 'paper', on: '', words: '', voucher: '' },
        text: { said: 'unanswered' },
      },
    });
    show(<PermissionStep />, { answers: ANSWERS });
    expect(screen.getByLabelText('Who of them').textContent).toContain('Those whose column “OK?” says yes');
    expect(document.body.textContent).toContain('on the day in column “Signed”, or where it is empty on');
    expect(document.body.textContent).toContain('with the words of column “Said”, or else');
  });

  test('a public list that was chosen needs their agreement to it, or goes', async () => {
    draft({ parts: { what: 'people', ...PARTS, listIds: [1, 2] } });
    const { user } = show(<PermissionStep />, { answers: ANSWERS });
    await waitFor(() => expect(notes()).toContain('list-1'));
    expect(notes()).not.toContain('list-2');
    await user.click(said('emails'));
    await user.click(screen.getByRole('checkbox', { name: 'Ferry news' }));
    await waitFor(() => expect(notes()).not.toContain('list-1'));
    await user.click(screen.getByRole('checkbox', { name: 'Ferry news' }));
    await waitFor(() => expect(notes()).toContain('list-1'));
    act(() =>
      useMarginStore
        .getState()
        .notes.find(({ key }) => key === 'list-1')!
        .remedy!.act(),
    );
    expect(now().parts.listIds).toEqual([2]);
  });

  test('a request to confirm begins with words that can be changed, and goes again', async () => {
    draft();
    const { user } = show(<PermissionStep />, { answers: ANSWERS });
    expect(screen.queryByText('Ask them to confirm by email')).toBeNull();
    await user.click(said('emails'));
    await user.click(screen.getByRole('checkbox', { name: /Ask them to confirm by email/ }));
    expect(now().parts.confirm?.subject).toBe('Please confirm: Lantern Ferry Trust');
    await user.type(screen.getByLabelText('Subject'), '!');
    expect(now().parts.confirm?.subject).toBe('Please confirm: Lantern Ferry Trust!');
    await user.click(screen.getByRole('checkbox', { name: /Ask them to confirm by email/ }));
    expect(now().parts.confirm).toBeNull();
  });
});

describe('where they go', () => {
  test('a tag that is there is put on and not made again, whatever its case; a new one can be taken back', async () => {
    draft();
    const { user } = show(<GroupsStep />, { answers: ANSWERS });
    await screen.findByText('oar makers');
    const typed = screen.getByPlaceholderText('A new tag');
    await user.type(typed, ' OAR makers {Enter}');
    expect(now().parts).toMatchObject({ tagIds: [6], newTags: [] });
    await user.type(typed, 'harbor hands{Enter}');
    await user.type(typed, 'harbor hands{Enter}');
    expect(now().parts.newTags).toEqual(['harbor hands']);
    await user.click(screen.getByRole('button', { name: 'Do not make the tag harbor hands' }));
    expect(now().parts.newTags).toEqual([]);
  });

  test('a tag of where they come from is offered by the name of the batch, once', async () => {
    draft();
    const { user } = show(<GroupsStep />, { answers: ANSWERS });
    await screen.findByText('oar makers');
    await user.click(screen.getByRole('button', { name: /tag them “harbor day”/ }));
    expect(now().parts.newTags).toEqual(['harbor day']);
    expect(screen.queryByRole('button', { name: /tag them/ })).toBeNull();
  });

  test('lists lie in their folders', async () => {
    draft();
    const { user } = show(<GroupsStep />, { answers: ANSWERS });
    const crew = await screen.findByRole('checkbox', { name: /Deck crew/ });
    expect(screen.getByText('Working groups')).toBeTruthy();
    await user.click(crew);
    expect(now().parts.listIds).toEqual([2]);
    await user.click(crew);
    expect(now().parts.listIds).toEqual([]);
  });

  test('a roster comes with its first stage, which can be another', async () => {
    draft();
    const { user } = show(<GroupsStep />, { answers: ANSWERS });
    await screen.findByRole('option', { name: 'Winter hull appeal' });
    expect(screen.queryByRole('option', { name: 'Last year’s appeal' })).toBeNull(); // It is closed.
    await user.selectOptions(screen.getByLabelText('Campaign'), 'Winter hull appeal');
    expect(now().parts.roster).toEqual({ campaignId: 9, stage: 'asked' });
    await user.selectOptions(screen.getByLabelText('Stage'), 'pledged');
    expect(now().parts.roster).toEqual({ campaignId: 9, stage: 'pledged' });
    await user.selectOptions(screen.getByLabelText('Campaign'), 'No roster');
    expect(now().parts.roster).toBeNull();
  });

  test('a campaign is made on the spot, and is the one that they go to', async () => {
    draft();
    const campaigns = [...(ANSWERS['GET campaigns'] as object[])];
    const made = ({ body }: { body: unknown }) => {
      campaigns.push({ ...(body as object), id: 11, isOpen: true });
      return { id: 11 };
    };
    const { user } = show(<GroupsStep />, {
      answers: { ...ANSWERS, 'GET campaigns': () => campaigns, 'POST campaigns': made },
    });
    await user.click(await screen.findByRole('button', { name: 'Make a campaign' }));
    await user.type(screen.getByLabelText('Name of the campaign'), ' Slip days {Enter}');
    await waitFor(() => expect(now().parts.roster).toMatchObject({ campaignId: 11 }));
    expect(await screen.findByRole('option', { name: 'Slip days' })).toBeTruthy();
  });

  test('of people already here no permission is asked: the next step is another', async () => {
    draft({ parts: { what: 'here', ...PARTS } });
    const { user } = show(<GroupsStep />, { answers: ANSWERS });
    await user.click(screen.getByRole('button', { name: 'Next: matches' }));
    expect(now().step).toBe('Matches');
    expect(within(document.body).queryByText('Next: permission')).toBeNull();
  });
});
