import type { Language } from '@goodword/core/forms';

export const LANGUAGE_WORDS: Record<Language, string> = { en: 'English', es: 'Spanish', fr: 'French', de: 'German' };
