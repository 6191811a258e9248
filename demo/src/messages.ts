import type { LetterDoc } from '@goodword/core/letter';

const text = (words: string, ...marks: object[]) => ({
  type: 'text',
  text: words,
  ...(marks.length > 0 ? { marks } : {}),
});
const paragraph = (...content: object[]) => ({ type: 'paragraph', content });
const letter = (...content: object[]) => ({ type: 'doc', content }) as LetterDoc;
const link = (href: string) => ({ type: 'link', attrs: { href } });
const button = (label: string, href: string) => ({ type: 'button', attrs: { label, href } });

export const PLANKS = letter(
  { type: 'heading', attrs: { level: 2 }, content: [text('The planks are in')] },
  paragraph(text('Dear {First name, or "neighbour"},')),
  paragraph(
    text(
      'Forty oak planks came down the river on Tuesday and are drying in the boat shed. The first of them goes into the port side next week.',
    ),
  ),
  paragraph(
    text('You can '),
    text('see the pictures', link('https://lanternferry.test/planks')),
    text(', or come by on Saturday morning and smell them.'),
  ),
  paragraph(text('{Sender: signature}')),
);

export const HULL = letter(
  paragraph(text('Dear {First name, or "friend of the ferry"},')),
  paragraph(
    text(
      'Last winter your gift of {Last gift: amount, or "any size"} helped to pay for two oak planks on the port side. The surveyor was back on Friday, and the starboard side is next.',
    ),
  ),
  button('Put in a plank', 'https://give.lanternferry.test/hull'),
  paragraph(text('Your favourite crossing, {Favourite crossing}, starts again the day she floats.')),
  paragraph(text('{Sender: name}')),
  paragraph(text('{Sender: mobile}')),
);

export const THANKS = letter(
  paragraph(text('Dear {First name, or "friend"},')),
  paragraph(text('Thank you for your gift of {Last gift: amount, or "last month"}. It is oak by now.')),
  paragraph(text('{Sender: signature}')),
);

export const LAUNCH_TEXT =
  'Lantern Ferry: she floats Saturday at 10, East Landing. Bring boots, {First name, or "neighbour"}! Reply STOP to leave.';
