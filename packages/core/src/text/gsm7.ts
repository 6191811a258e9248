/**
 * The GSM 7 bit default alphabet, 3GPP TS 23.038 §6.2.1, in code order 0x00 to 0x7F; 0x1B is the escape to
 * the extension table and stands here as a space that no text can match.
 */
export const BASIC =
  '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞ\u001bÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?' +
  '¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà';

/** The extension table, 3GPP TS 23.038 §6.2.1.1: each costs the escape and one more septet. */
export const EXTENSION = '\f^{}\\[~]|€';

const COST = new Map<string, 1 | 2>();
for (const char of BASIC) if (char !== '\u001b') COST.set(char, 1);
for (const char of EXTENSION) COST.set(char, 2);

/**
 * Septets that a character takes in the default alphabet: 1, 2 (extension), or null where it is not in it.
 */
export function septets(char: string): 1 | 2 | null {
  return COST.get(char) ?? null;
}
