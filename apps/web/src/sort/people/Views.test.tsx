import { screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import type { FieldView } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers, type RecordedCall } from '../../testing';
import type { TableState } from './tableState';
import { ColumnsMenu, Views } from './Views';

const FIELDS = Array.from({ length: 8 }, (_none, i) => ({
  id: i + 1,
  name: `Field ${i + 1}`,
})) as unknown as FieldView[];

function Chosen({ start, told }: { start: number[]; told: number[][] }) {
  const [chosen, setChosen] = useState(start);
  return <ColumnsMenu all={FIELDS} chosen={chosen} onChange={(next) => (told.push(next), setChosen(next))} />;
}

describe('columns', () => {
  const open = async (start: number[]) => {
    const told: number[][] = [];
    const shown = show(<Chosen start={start} told={told} />);
    await shown.user.click(screen.getByRole('button', { name: 'Columns' }));
    return { ...shown, told };
  };

  test('are chosen and taken away again; a new one stands behind the others', async () => {
    const { user, told } = await open([3]);
    await user.click(await screen.findByRole('checkbox', { name: 'Field 1' }));
    await user.click(screen.getByRole('checkbox', { name: 'Field 3' }));
    expect(told).toEqual([[3, 1], [1]]);
  });

  test('are six at most', async () => {
    await open([1, 2, 3, 4, 5, 6]);
    expect((await screen.findByRole<HTMLInputElement>('checkbox', { name: 'Field 7' })).disabled).toBe(true);
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Field 6' }).disabled).toBe(false);
  });

  test('have handles where there is an order to change, and a field that is gone has none', async () => {
    const { user } = await open([2, 99]);
    expect(screen.queryByRole('button', { name: /^Move the column/ })).toBeNull();
    await user.click(await screen.findByRole('checkbox', { name: 'Field 4' }));
    expect(
      screen
        .getAllByRole('button', { name: /^Move the column/ })
        .map((one) => one.getAttribute('aria-label')),
    ).toEqual(['Move the column Field 2', 'Move the column Field 4']);
  });
});

describe('tables under names', () => {
  const NOW = {
    tree: { kind: 'all', rules: [] },
    by: 'name',
    descending: false,
    fields: [3],
  } as unknown as TableState;

  function server(): { answers: StubbedAnswers; views: { id: number; name: string }[] } {
    const views = [{ id: 1, name: 'Newest first' }];
    return {
      views,
      answers: {
        'GET people-views': () => views.map((view) => ({ ...view })),
        'PUT people-views': ({ body }: RecordedCall) => (
          views.push({ id: 2, name: (body as { name: string }).name }),
          reply(204, null)
        ),
        'DELETE people-views/1': () => (views.shift(), reply(204, null)),
      },
    };
  }
  const open = async (role: 'organizer' | 'viewer' = 'organizer', now = NOW) => {
    const { answers, views } = server();
    const opened: string[] = [];
    const shown = show(<Views now={now} onOpen={({ name }) => opened.push(name)} />, { answers, role });
    await shown.user.click(await screen.findByRole('button', { name: 'Views (1)' }));
    return { ...shown, views, opened };
  };

  test('one is kept with all that makes it, and its field is empty again', async () => {
    const { user, asked } = await open();
    const name = screen.getByLabelText<HTMLInputElement>('Name of this table');
    await user.type(name, 'Menders{Enter}');
    await waitFor(() => expect(name.value).toBe(''));
    expect(asked.find(({ method }) => method === 'PUT')!.body).toEqual({
      name: 'Menders',
      tree: NOW.tree,
      basedOn: null,
      by: 'name',
      descending: false,
      fields: [3],
    });
    expect(await screen.findByRole('button', { name: 'Menders' })).toBeTruthy();
  });

  test('one is opened, and one is forgotten', async () => {
    const { user, opened, views } = await open();
    await user.click(screen.getByRole('button', { name: 'Forget Newest first' }));
    await waitFor(() => expect(views).toEqual([]));
    expect(opened).toEqual([]);
  });

  test('a viewer opens them and keeps none; what can’t be said as a rule can’t be kept', async () => {
    const { user, opened, unmount } = await open('viewer');
    expect(screen.queryByLabelText('Name of this table')).toBeNull();
    expect(screen.queryByRole('button', { name: /^Forget/ })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Newest first' }));
    expect(opened).toEqual(['Newest first']);
    unmount();
    await open('organizer', { ...NOW, tree: null });
    expect(screen.queryByLabelText('Name of this table')).toBeNull();
  });
});
