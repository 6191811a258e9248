import { screen } from '@testing-library/react';
import { show } from '../testing';
import { PictureForm } from './PictureForm';
import { droppedFrom, droppedWords } from './pasted';

describe('pasted words', () => {
  test('that all come along are not spoken of', () => {
    expect(
      droppedFrom(
        '<h2>Hull</h2><p>A <b>plank</b> and <i>tar</i>, <a href="https://x.test">more</a></p><ul><li>one</li></ul>',
      ),
    ).toEqual([]);
    expect(droppedFrom('plain')).toEqual([]);
    expect(droppedFrom('<p style="margin:0">near</p><img src="/media/ab.jpg">')).toEqual([]);
    expect(droppedWords([])).toBe('');
  });

  test.each([
    [
      '<img src="https://x.test/a.png"><img src="data:image/png;base64,AA"><p>x</p>',
      ['2 pictures from elsewhere'],
    ],
    ['<table><tr><td>a</td><td>b</td></tr></table>', ['the columns of a table']],
    ['<p><u>under</u> <s>gone</s></p><blockquote>said</blockquote><hr>', ['underlines and the like']],
    // Common practice with no source: how word processors write what they put on the clipboard.
    ['<p class=MsoNormal style="color:red;font-family:Calibri">Dear all</p>', ['colours and fonts']],
    ['<font color=red>old</font>', ['colours and fonts']],
    ['<iframe src="https://x.test"></iframe><form><input></form>', ['films, forms and the like']],
  ])('%s', (html, dropped) => {
    expect(droppedFrom(html)).toEqual(dropped);
  });

  test('say it in one sentence', () => {
    expect(droppedWords(['a picture from elsewhere', 'the columns of a table', 'colours and fonts'])).toBe(
      'Pasted without a picture from elsewhere, the columns of a table, and colours and fonts. The words are all here.',
    );
  });
});

test('a picture is put in with what is on it, or as one that says nothing', async () => {
  const done: unknown[] = [];
  const start = { alt: '', width: null, side: null, href: null };
  const { user } = show(<PictureForm src="/media/a.jpg" start={start} onDone={(one) => done.push(one)} />);
  const put = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Put it in' });
  expect(put().disabled).toBe(true);
  await user.type(screen.getByRole('textbox', { name: /^What is on the picture/ }), ' The ferry at dusk ');
  await user.click(put());
  await user.selectOptions(screen.getByLabelText(/Where it stands/), 'end');
  await user.type(screen.getByLabelText(/Width in pixels/), '240');
  await user.type(screen.getByLabelText(/Where a press/), 'https://ferry.test/dusk');
  await user.click(screen.getByRole('checkbox', { name: /only decorates/ }));
  await user.click(put());
  expect(done).toEqual([
    { ...start, alt: 'The ferry at dusk' },
    { alt: '', width: 240, side: 'end', href: 'https://ferry.test/dusk' },
  ]);
});
