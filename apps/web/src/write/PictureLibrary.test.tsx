import { screen, waitFor } from '@testing-library/react';
import type { ImageView } from '@goodword/core/contract';
import { show } from '../testing';
import { PictureLibrary } from './PictureLibrary';

const picture = (id: number, part: Partial<ImageView>): ImageView => ({
  id,
  name: `p${id}.jpg`,
  alt: '',
  folder: '',
  width: 800,
  height: 400,
  bytes: 51_200,
  src: `/media/${id}`,
  usedBy: [],
  ...part,
});
const PICTURES = [
  picture(1, { alt: 'The ferry at dusk', folder: 'Boats', usedBy: ['Winter appeal'] }),
  picture(2, { alt: 'Oak planks', folder: 'Hull' }),
];

test('pictures are found by what is on them or where they lie, and one is put in', async () => {
  const picked: string[] = [];
  const { user } = show(<PictureLibrary onPick={(src, alt) => picked.push(src, alt)} />, {
    answers: { 'GET images': PICTURES },
  });
  await user.type(await screen.findByLabelText('Find a picture'), 'hull');
  expect(screen.queryByAltText('The ferry at dusk')).toBeNull();
  await user.click(screen.getByAltText('Oak planks'));
  expect(picked).toEqual(['/media/2', 'Oak planks']);
  await user.type(screen.getByLabelText('Find a picture'), 'x');
  expect(screen.getByText('No picture like that.')).toBeDefined();
});

test('what is on one is changed, with what it was; one that is needed can’t be deleted', async () => {
  const { user, asked } = show(<PictureLibrary onPick={() => undefined} />, {
    answers: { 'GET images': PICTURES, 'PUT images/1': {} },
  });
  await user.click(await screen.findByRole('button', { name: 'Change The ferry at dusk' }));
  expect(screen.getByText(/shown by “Winter appeal”/)).toBeDefined();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Delete' }).disabled).toBe(true);
  await user.type(screen.getByLabelText('What is on the picture'), ', at last');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(asked.some(({ method }) => method === 'PUT')).toBe(true));
  expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({
    name: 'p1.jpg',
    alt: 'The ferry at dusk, at last',
    folder: 'Boats',
    was: { name: 'p1.jpg', alt: 'The ferry at dusk', folder: 'Boats' },
  });
});
