import { screen, waitFor } from '@testing-library/react';
import type { RecordView } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers } from '../../testing';
import { ProblemError } from '../../app/api';
import { EditableValue } from './EditableValue';
import { GroupChips } from './GroupChips';

describe('a value is edited where it stands', () => {
  const shown = (
    save: (text: string, was: string) => Promise<unknown>,
    of: object = {},
    role: 'organizer' | 'viewer' = 'organizer',
  ) =>
    show(<EditableValue label="Boat skill" value="steering" shown="steering" save={save} {...of} />, {
      role,
    });
  const open = () => screen.getByRole('button', { name: 'Boat skill: steering. Edit' });

  test('Enter keeps it once, though leaving the editor would keep it too', async () => {
    const kept: string[] = [];
    const { user } = shown(async (text) => kept.push(text));
    await user.click(open());
    await user.type(screen.getByRole('textbox', { name: 'Boat skill' }), ', rowing{Enter}');
    await waitFor(() => expect(screen.queryByRole('textbox')).toBeNull());
    expect(kept).toEqual(['steering, rowing']);
  });

  test('somebody else’s value is written over only by whoever has seen it', async () => {
    const saves: [string, string][] = [];
    const { user } = shown(async (text, was) => {
      saves.push([text, was]);
      if (was === 'steering')
        throw new ProblemError({
          type: '',
          title: '',
          status: 409,
          detail: 'Changed to “rowing”.',
          newer: true,
          now: 'rowing',
        });
    });
    await user.click(open());
    await user.type(screen.getByRole('textbox'), '!{Enter}');
    expect(await screen.findByRole('alert')).toHaveProperty('textContent', 'Changed to “rowing”.');
    await user.type(screen.getByRole('textbox'), '!{Enter}');
    await waitFor(() => expect(screen.queryByRole('textbox')).toBeNull());
    expect(saves).toEqual([
      ['steering!', 'steering'],
      ['steering!!', 'rowing'],
    ]);
  });

  test('Escape leaves it, and so does leaving it as it was', async () => {
    const kept: string[] = [];
    const { user } = shown(async (text) => kept.push(text));
    await user.click(open());
    await user.type(screen.getByRole('textbox'), 'x{Escape}');
    expect(screen.queryByRole('textbox')).toBeNull();
    await user.click(open());
    await user.tab();
    expect(screen.queryByRole('textbox')).toBeNull();
    expect(kept).toEqual([]);
  });

  test('what is refused is told beside it, and what was typed is still there', async () => {
    const { user } = shown(async () => Promise.reject(new Error('expected a number, got "many"')));
    await user.click(open());
    const input = screen.getByRole<HTMLInputElement>('textbox');
    await user.clear(input);
    await user.type(input, 'many{Enter}');
    expect(await screen.findByRole('alert')).toHaveProperty('textContent', 'expected a number, got "many"');
    expect([input.value, input.getAttribute('aria-invalid')]).toEqual(['many', 'true']);
  });

  test('a choice is kept at once by mouse, and by keys when Enter says so', async () => {
    const kept: string[] = [];
    // prettier-ignore
    const editor = { as: 'choose', options: [['S', 'S'], ['M', 'M'], ['L', 'L']] } as const;
    const { user } = shown(async (text) => kept.push(text), { editor });
    await user.click(open());
    await user.selectOptions(screen.getByRole('combobox'), 'M');
    await waitFor(() => expect(kept).toEqual(['M']));
  });

  test('a viewer reads it, and where it leads is offered beside it', () => {
    const { unmount } = shown(async () => undefined, { link: 'https://example.org/' }, 'viewer');
    expect(screen.queryByRole('button')).toBeNull();
    expect(screen.getByRole<HTMLAnchorElement>('link', { name: 'Open' }).rel).toBe('noreferrer noopener');
    unmount();
    shown(async () => undefined, { shown: '', placeholder: 'Nothing yet' }, 'viewer');
    expect(screen.getByText('Nothing yet')).toBeTruthy();
  });
});

describe('the groups of a person', () => {
  const RECORD = {
    id: 101,
    tags: [{ id: 5, name: 'boat shed key', since: '2026-11-01T10:00:00Z', how: 'by Rosa Oduya' }],
    lists: [
      { id: 1, name: 'Ferry news', since: '2026-11-01T10:00:00Z', how: 'by themselves', isPublic: true },
    ],
    rosters: [{ id: 9, name: 'Winter hull appeal', stage: 'asked', stages: ['asked', 'pledged'] }],
    segments: [{ id: 3, name: 'Menders' }],
  } as unknown as RecordView;
  const ANSWERS: StubbedAnswers = {
    'GET tags?counted=false': [
      { id: 5, name: 'boat shed key' },
      { id: 6, name: 'oar makers' },
    ],
    'GET lists?counted=false': [{ id: 1, name: 'Ferry news' }],
    'GET campaigns': [
      { id: 9, name: 'Winter hull appeal', stages: ['asked', 'pledged'] },
      { id: 10, name: 'Slip days', stages: ['asked'] },
    ],
    'PUT supporters/101/tags/6': () => reply(204, null),
    'DELETE supporters/101/lists/1': () => reply(204, null),
    'PUT campaigns/9/roster': () => reply(204, null),
    'PUT campaigns/10/roster': () => reply(204, null),
    'POST campaigns/9/roster/off': () => reply(204, null),
  };
  const chips = (role: 'organizer' | 'viewer' = 'organizer') =>
    show(<GroupChips record={RECORD} />, { role, answers: ANSWERS });
  const changes = (asked: ReturnType<typeof chips>['asked']) =>
    asked.filter(({ method }) => method !== 'GET');

  test('what they are not in yet is offered, and put on', async () => {
    const { user, asked } = chips();
    await user.click(await screen.findByRole('button', { name: 'Add to' }));
    await screen.findByRole('menuitem', { name: 'oar makers' });
    expect(screen.queryByRole('menuitem', { name: 'boat shed key' })).toBeNull();
    expect(screen.queryByRole('menuitem', { name: 'Ferry news' })).toBeNull();
    await user.click(screen.getByRole('menuitem', { name: 'oar makers' }));
    await waitFor(() =>
      expect(changes(asked)).toEqual([{ method: 'PUT', path: 'supporters/101/tags/6', body: null }]),
    );
  });

  test('a list is left, a roster moved on and left', async () => {
    const { user, asked } = chips();
    await user.click(await screen.findByRole('button', { name: 'Remove Ferry news' }));
    const roster = screen.getByRole('button', { name: 'Roster: Winter hull appeal, asked. Move or remove' });
    await user.click(roster);
    await user.click(await screen.findByRole('menuitem', { name: 'Move to “pledged”' }));
    await user.click(roster);
    await user.click(await screen.findByRole('menuitem', { name: 'Remove from the roster' }));
    await waitFor(() =>
      expect(changes(asked)).toEqual([
        { method: 'DELETE', path: 'supporters/101/lists/1', body: null },
        { method: 'PUT', path: 'campaigns/9/roster', body: { group: { ids: [101] }, stage: 'pledged' } },
        { method: 'POST', path: 'campaigns/9/roster/off', body: { group: { ids: [101] } } },
      ]),
    );
  });

  test('how and when somebody was put on is told, and where a segment leads', () => {
    chips();
    expect(screen.getByTitle(/^Added by Rosa Oduya, /).textContent).toContain('boat shed key');
    expect(screen.getByRole('link', { name: 'Segment: Menders' }).getAttribute('href')).toBe(
      '/sort/segments/3',
    );
  });

  test('a viewer sees them and changes nothing', () => {
    chips('viewer');
    expect(screen.queryAllByRole('button')).toEqual([]);
    expect(screen.getByText('Roster: Winter hull appeal, asked')).toBeTruthy();
  });
});
