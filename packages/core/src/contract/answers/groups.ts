import { flag, number, orNull, shape, text, told } from '../kinds';

/** A tag; how many have it where that was asked for. */
export const tagView = shape('TagView', {
  id: number,
  name: text,
  people: told('How many have it; left out where names alone were asked for.', number).optional(),
  chapter: told(
    'The chapter that made it for itself; null for a tag of the whole organization.',
    orNull(text),
  ),
  handedDown: told('Chapters see it and put it on.', flag),
});

/** A list with its folder and its public name; how many are on it where that was asked for. */
export const listView = shape('ListView', {
  id: number,
  version: number,
  name: text,
  isPublic: flag,
  description: text,
  why: told('"Why we write to you", for supporters.', text),
  onPreferences: flag,
  byForm: flag,
  folder: told('Where it lies among the lists; empty for none.', text),
  people: told('How many are on it; left out where names alone were asked for.', number).optional(),
});
