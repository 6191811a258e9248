import { t } from '@lingui/core/macro';
import type { Language } from '@goodword/core/forms';

export const LANGUAGE_WORDS: Record<Language, string> = {
  en: t`English`,
  es: t`Spanish`,
  fr: t`French`,
  de: t`German`,
};
