import { shape, number, told, text, orNull, flag } from '../kinds';

/** Whose file an address leads to. */
export const addressHolder = shape('AddressHolder', {
  id: number,
  name: told('Empty for somebody erased.', text),
  erasedAt: orNull(text),
  current: told('Whether it is an address of theirs today.', flag),
});
