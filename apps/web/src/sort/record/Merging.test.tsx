import { screen, waitFor } from '@testing-library/react';
import type { MergePreview, RecordView } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers } from '../../testing';
import { Merging } from './Merging';

const KEPT = { id: 5, firstName: 'Nunzia', lastName: 'Berg' } as unknown as RecordView;
const OTHER = { id: 9, firstName: 'Nunzia', lastName: '', email: 'nunzia@example.net', mobile: null };
const PREVIEW: MergePreview = {
  kept: { id: 5, name: 'Nunzia Berg', since: '2024-02-01T10:00:00Z' },
  gone: { id: 9, name: 'Nunzia', since: '2025-03-01T10:00:00Z' },
  lines: [
    { key: 'name', label: 'Name', kept: 'Nunzia Berg', gone: 'Nunzia', usual: 'kept' },
    { key: 'field:3', label: 'Favourite crossing', kept: '', gone: 'Dawn', usual: 'gone' },
  ],
  comesOver: ['2 addresses', '1 gift'],
};

const bring = (answers: StubbedAnswers = {}) => {
  const done: string[] = [];
  const shown = show(<Merging record={KEPT} open onClose={() => done.push('closed')} />, {
    answers: {
      'GET supporters': { rows: [OTHER], total: 1, next: null },
      'GET find': [{ kind: 'supporter', id: 9, name: 'Nunzia', note: 'nunzia@example.net' }],
      'GET supporters/5/merging': PREVIEW,
      'POST supporters/5/merging': () => reply(204, null),
      ...answers,
    },
  });
  return {
    ...shown,
    done,
    posted: () => shown.asked.filter(({ method }) => method === 'POST').map(({ body }) => body),
  };
};
/** Chooses the other record by keys alone. */
async function choose({ user }: ReturnType<typeof bring>): Promise<void> {
  await user.type(screen.getByRole('combobox', { name: 'The other record of this person' }), 'nunzia');
  await screen.findByRole('option');
  await user.keyboard('{Enter}');
  await screen.findByRole('button', { name: /^Bring the record of/ });
}

test('the two stand side by side, with what comes over and what would usually stay', async () => {
  const shown = bring();
  await choose(shown);
  expect(screen.getByText(/What comes over: 2 addresses, 1 gift/)).toBeTruthy();
  const checked = screen.getAllByRole<HTMLInputElement>('radio').filter((radio) => radio.checked);
  expect(checked.map((radio) => radio.getAttribute('aria-label'))).toEqual([
    'Name: Nunzia Berg',
    'Favourite crossing: Dawn',
  ]);
  expect(shown.posted()).toEqual([]);
});

test('only what was chosen otherwise is said, and a double click brings them together once', async () => {
  const shown = bring();
  await choose(shown);
  await shown.user.click(screen.getByRole('radio', { name: 'Name: Nunzia' }));
  await shown.user.dblClick(screen.getByRole('button', { name: 'Bring the record of Nunzia into this one' }));
  await waitFor(() => expect(shown.done).toEqual(['closed']));
  expect(shown.posted()).toEqual([{ goneId: 9, keep: { name: 'gone' } }]);
});

test('what is refused is told, and the choices are still there', async () => {
  const shown = bring({
    'POST supporters/5/merging': () =>
      reply(404, {
        title: 'Brought into another record',
        status: 404,
        detail: 'This record was brought into that of Ada.',
      }),
  });
  await choose(shown);
  await shown.user.click(screen.getByRole('radio', { name: 'Favourite crossing: nothing' }));
  await shown.user.click(screen.getByRole('button', { name: /^Bring the record of/ }));
  expect((await screen.findByRole('alert')).textContent).toContain('brought into that of Ada');
  expect(screen.getByRole<HTMLInputElement>('radio', { name: 'Favourite crossing: nothing' }).checked).toBe(
    true,
  );
  expect(shown.done).toEqual([]);
});
