import { screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { registryOf, STANDARD_NAMES } from '@goodword/core/merge';
import { show } from '../testing';
import { MergeField } from './MergeField';

const registry = registryOf(STANDARD_NAMES);
function Page({ long }: { long?: boolean }) {
  const [text, setText] = useState('Hello ');
  return (
    <MergeField
      aria-label="Subject"
      long={long}
      beside="line"
      registry={registry}
      value={text}
      onChange={setText}
    />
  );
}
const field = () => screen.getByLabelText<HTMLInputElement>('Subject');
const offered = () => screen.queryAllByRole('option').map((one) => one.textContent);

test.each([false, true])(
  'a brace offers the fields by typing, and Enter puts one in (several lines: %s)',
  async (long) => {
    const { user } = show(<Page long={long} />);
    await user.click(field());
    await user.keyboard('{{la');
    expect(offered()[0]).toContain('Last name');
    expect(field().getAttribute('aria-activedescendant')).toBe(screen.getAllByRole('option')[0]!.id);
    await user.keyboard('{Enter}');
    await waitFor(() => expect(field().value).toBe('Hello {Last name}'));
    expect(offered()).toEqual([]);
    await user.keyboard(' and');
    expect(field().value).toBe('Hello {Last name} and');
  },
);

test('arrows move, Tab puts in, Escape puts the list away until the next brace', async () => {
  const { user } = show(<Page />);
  await user.click(field());
  await user.keyboard('{{name{ArrowDown}');
  const second = offered()[1]!.replace(/, or .*/, '');
  await user.keyboard('{Tab}');
  await waitFor(() => expect(field().value).toBe(`Hello {${second}}`));
  await user.keyboard(' {{fi{Escape}');
  expect(offered()).toEqual([]);
  await user.keyboard('r');
  expect(offered()).toEqual([]);
  await user.keyboard('}} {{fi');
  expect(offered()[0]).toContain('First name');
});

test('the button puts no second brace before one that stands there', async () => {
  const { user } = show(<Page />);
  await user.click(field());
  await user.keyboard('{{{Escape}');
  await user.click(screen.getByRole('button', { name: /Merge field/ }));
  await user.click(await screen.findByRole('menuitem', { name: /^First name/ }));
  await waitFor(() => expect(field().value).toBe('Hello {First name}'));
});

test('what may not be changed offers nothing', async () => {
  const { user } = show(
    <MergeField aria-label="Subject" registry={registry} readOnly value="{fi" onChange={() => undefined} />,
  );
  await user.click(field());
  expect(offered()).toEqual([]);
});
