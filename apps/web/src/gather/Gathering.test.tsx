import { act, screen, waitFor } from '@testing-library/react';
import { Route, Routes, useLocation } from 'react-router';
import { EMPTY_PLAN } from '@goodword/core/intake';
import { reply, show, type StubbedAnswers } from '../testing';
import { useDraft } from './draft';
import Gathering from './Gathering';

const BATCH = {
  id: 3,
  name: 'cut, 27 Nov 2026',
  fileName: 'cut.xlsx',
  what: 'people',
  found: null,
  draft: null,
  plan: null,
  problem: null,
};
const PROBLEM = 'The workbook can’t be read. Save it anew as XLSX or CSV.';
const HOUSE: StubbedAnswers = { 'GET fields': [], 'GET layouts': [] };

const gather = (answers: StubbedAnswers, at: string) => {
  act(() => useDraft.getState().reset());
  return show(
    <Routes>
      <Route path="/gather/new" element={<Gathering />} />
      <Route path="/gather/:id" element={<Gathering />} />
      <Route path="/gather" element={<p>all batches</p>} />
    </Routes>,
    { answers: { ...HOUSE, ...answers }, at },
  );
};

const { what: _what, ...PARTS } = EMPTY_PLAN;
const LISTS: StubbedAnswers = {
  'GET lists?counted=false': [],
  'GET tags?counted=false': [],
  'GET campaigns': [],
  'PUT batches/3/draft': { version: 1 },
};

function Where() {
  const { pathname, search } = useLocation();
  return <output aria-label="where">{pathname + search}</output>;
}

// prettier-ignore
beforeAll(() => Object.assign(globalThis, { FormData: class extends Map { append = this.set } }));

describe('a workbook that the server can’t read', () => {
  test('says so where it was dropped, and leaves the way to another', async () => {
    let state = 'reading';
    const { user, asked } = gather(
      {
        'POST batches': { id: 3 },
        'GET batches/3': () => ({ ...BATCH, state, problem: state === 'unreadable' ? PROBLEM : null }),
      },
      '/gather/new',
    );
    await screen.findByText('Drop a file here');
    await act(async () => {
      // A zip file, so that the server is asked what is in it.
      void useDraft
        .getState()
        .take(
          new File(['PK\u0003\u0004 cut off'], 'cut.xlsx'),
          { fields: [], country: 'US', currency: 'USD', today: 20_900, layouts: [] },
          null,
        );
    });
    await waitFor(() => expect(asked.some(({ path }) => path === 'batches/3')).toBe(true));
    state = 'unreadable';
    expect(await screen.findByRole('alert', {}, { timeout: 3000 })).toHaveProperty('textContent', PROBLEM);
    const times = asked.length;
    await new Promise((done) => setTimeout(done, 700));
    // It is not asked for again and again.
    expect(asked.length).toBe(times);
    await user.click(screen.getByRole('button', { name: 'Choose another file' }));
    expect(await screen.findByText('Drop a file here')).toBeTruthy();
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('says so when it is taken up again from the list, and is thrown away', async () => {
    const { user, asked } = gather(
      {
        'GET batches/3': { ...BATCH, state: 'unreadable', problem: PROBLEM },
        'DELETE batches/3': () => reply(204, null),
      },
      '/gather/3',
    );
    expect(await screen.findByRole('alert')).toHaveProperty('textContent', PROBLEM);
    await user.click(screen.getByRole('button', { name: 'Throw this one away' }));
    await user.click(await screen.findByRole('button', { name: 'Throw the batch away' }));
    expect(await screen.findByText('all batches')).toBeTruthy();
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(true);
  });
});

test('a step that is taken in the moment in which the server takes up the file stands in the batch’s address', async () => {
  act(() => {
    useDraft.getState().reset();
    useDraft.setState({
      name: 'Harbor day',
      file: { name: 'harbor.csv' } as never,
      columns: [{ to: 'email' }, { to: 'firstName' }],
      analysis: { found: { header: ['E-mail', 'First'] } } as never,
      parts: { what: 'people', ...PARTS },
      step: 'Where they go',
    });
  });
  show(
    <Routes>
      <Route
        path="/gather/*"
        element={
          <>
            <Where />
            <Routes>
              <Route path="new" element={<Gathering />} />
              <Route path=":id" element={<Gathering />} />
            </Routes>
          </>
        }
      />
    </Routes>,
    { answers: { ...HOUSE, ...LISTS }, at: '/gather/new' },
  );
  await waitFor(() => expect(screen.getByLabelText('where').textContent).toContain('/gather/new?step='));
  act(() => useDraft.setState({ batchId: 3, step: 'Permission' }));
  await waitFor(() => {
    const where = screen.getByLabelText('where').textContent;
    expect(where).toContain('/gather/3?');
    expect(where).toContain('step=Permission');
  });
});
