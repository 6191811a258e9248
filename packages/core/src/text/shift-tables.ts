import { BASIC } from './gsm7';

/** Languages with tables of their own that put more letters into 7 bits (ISO 639-1). */
export const SHIFT_LANGUAGES = ['tr', 'es', 'pt'] as const;
export type ShiftLanguage = (typeof SHIFT_LANGUAGES)[number];

/** The tables of a language: one in the place of the default alphabet, one in that of the extension. */
interface ShiftTable {
  /** The number of the language in the header of a message (3GPP TS 23.038 §6.2.1.2.4). */
  identifier: number;
  /** The 128 letters that cost one septet each, in code order; null where the language has no such table. */
  locking: string | null;
  /** The letters that cost the escape and one more septet. */
  single: string;
}

/** What all extension tables hold (3GPP TS 23.038 §6.2.1.1). */
const COMMON = '\f^{}\\[~]|€';

/** 3GPP TS 23.038, annex A.2 and A.3; 0x1B, the escape, stands as a letter that no text can match. */
export const SHIFT_TABLES: Record<ShiftLanguage, ShiftTable> = {
  tr: {
    identifier: 1,
    locking:
      '@£$¥€éùıòÇ\nĞğ\rÅåΔ_ΦΓΛΩΠΨΣΘΞ\u001bŞşßÉ !"#¤%&\'()*+,-./0123456789:;<=>?' +
      'İABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§çabcdefghijklmnopqrstuvwxyzäöñüà',
    single: `${COMMON}ĞİŞçğış`,
  },
  es: { identifier: 2, locking: null, single: `${COMMON}çÁÍÓÚáíóú` },
  pt: {
    identifier: 3,
    locking:
      '@£$¥êéúíóç\nÔô\rÁáΔ_ªÇÀ∞^\\€Ó|\u001bÂâÊÉ !"#º%&\'()*+,-./0123456789:;<=>?' +
      'ÍABCDEFGHIJKLMNOPQRSTUVWXYZÃÕÚÜ§~abcdefghijklmnopqrstuvwxyzãõ`üà',
    single: `${COMMON}êçÔôÁáΦΓΩΠΨΣΘÊÀÍÓÚÃÕÂíóúãõâ`,
  },
};

/** A way to put a text into septets: what each letter costs, and which tables its header has to name. */
export interface SeptetCoding {
  language: ShiftLanguage | null;
  /** Tables named in the header: none, one or two. */
  named: 0 | 1 | 2;
  costs: ReadonlyMap<string, 1 | 2>;
}

function coding(
  language: ShiftLanguage | null,
  named: 0 | 1 | 2,
  basic: string,
  extension: string,
): SeptetCoding {
  const costs = new Map<string, 1 | 2>();
  for (const char of extension) costs.set(char, 2);
  for (const char of basic) if (char !== '\u001b') costs.set(char, 1);
  return { language, named, costs };
}

/** The default alphabet with its extension. */
export const DEFAULT_CODING = coding(null, 0, BASIC, COMMON);

/** The ways of a language, the cheaper header first. */
function codingsOf(language: ShiftLanguage): SeptetCoding[] {
  const { locking, single } = SHIFT_TABLES[language];
  const simple = coding(language, 1, BASIC, single);
  if (locking === null) return [simple];
  return [simple, coding(language, 1, locking, COMMON), coding(language, 2, locking, single)];
}

/** All ways with the tables of a language. */
export const SHIFT_CODINGS: Record<ShiftLanguage, readonly SeptetCoding[]> = {
  tr: codingsOf('tr'),
  es: codingsOf('es'),
  pt: codingsOf('pt'),
};
