import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { asksForAmounts, USUAL_ASK, type AskRule, type WrittenWords } from '@goodword/core/letter';
import { useSession } from '../app/session';
import { Drawer } from '../ui/dialogs';
import { AskForm } from './AskForm';

/** Languages with a country in which dates and amounts can be written, beside the organization's own. */
const LOCALES = [
  'en-US',
  'en-GB',
  'en-CA',
  'es-ES',
  'es-MX',
  'es-US',
  'fr-FR',
  'fr-CA',
  'de-DE',
  'de-AT',
  'de-CH',
  'it-IT',
  'pt-BR',
  'pt-PT',
  'nl-NL',
  'pl-PL',
  'tr-TR',
  'uk-UA',
  'ru-RU',
  'ar-EG',
  'he-IL',
  'hi-IN',
  'vi-VN',
  'ko-KR',
  'ja-JP',
  'zh-CN',
];

interface MannerWords {
  locale: string | null;
  ask: AskRule | null;
  plainly: boolean;
}

/** In which language the words are, and by what rule they ask for amounts. */
export function MannerLine({
  words,
  isText = false,
  editable,
  set,
}: {
  words: WrittenWords & MannerWords;
  /** A text, of which each letter counts. */
  isText?: boolean;
  editable: boolean;
  set: (part: Partial<MannerWords>) => void;
}) {
  const { organization } = useSession();
  const [changing, setChanging] = useState(false);
  const named = new Intl.DisplayNames('en', { type: 'language' });
  const nameOf = (locale: string) => named.of(locale) ?? locale;
  const known = LOCALES.filter((one) => one !== organization.locale);
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 text-[13px] text-ink2">
      <label>
        {t`Dates and amounts in`}{' '}
        <select
          className="bg-transparent underline underline-offset-2 text-ink"
          disabled={!editable}
          value={words.locale ?? ''}
          onChange={({ target }) => set({ locale: target.value === '' ? null : target.value })}
        >
          <option value="">{nameOf(organization.locale)}</option>
          {known.map((locale) => (
            <option key={locale} value={locale}>
              {nameOf(locale)}
            </option>
          ))}
        </select>
      </label>
      {isText && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            disabled={!editable}
            checked={words.plainly}
            onChange={({ target }) => set({ plainly: target.checked })}
          />
          {t`names and other values written plainly (' for ’)`}
        </label>
      )}
      {asksForAmounts(words) && (
        <button type="button" className="link text-ink" onClick={() => setChanging(true)}>
          {t`Amounts asked for…`}
        </button>
      )}
      <Drawer open={changing} onClose={() => setChanging(false)} title={t`What is asked for`} wide>
        <AskForm
          start={words.ask ?? USUAL_ASK}
          editable={editable}
          onDone={(ask) => (set({ ask }), setChanging(false))}
        />
      </Drawer>
    </div>
  );
}
