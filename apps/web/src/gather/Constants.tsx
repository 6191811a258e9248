import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useState } from 'react';
import { PHONE_COUNTRIES, type ColumnChoice } from '@goodword/core/intake';
import { Button } from '../ui/basics';
import { columnWords, offersFor } from './columnWords';
import { useDraft } from './draft';
import type { HouseVocabulary } from './useHouse';

const REGIONS = new Intl.DisplayNames(['en'], { type: 'region' });
const COUNTRIES = PHONE_COUNTRIES.map((code): [string, string] => [code, REGIONS.of(code) ?? code]).sort(
  ([, a], [, b]) => a.localeCompare(b),
);

/** What holds for every row: the country of telephone numbers, and values that the file has no column for. */
export function Constants({ house }: { house: HouseVocabulary }) {
  const { parts, set } = useDraft();
  const [adding, setAdding] = useState(false);
  const offers = offersFor('', house.fields, parts.what).known.flatMap(([, some]) => some);
  const [key, setKey] = useState('');
  const [value, setValue] = useState('');
  const add = () => {
    const offer = offers.find((one) => one.key === key);
    if (offer && value.trim() !== '')
      set({ constants: [...parts.constants, { choice: offer.choice, value: value.trim() }] });
    setValue('');
    setAdding(false);
  };
  const words = (choice: ColumnChoice) => columnWords(choice, house.fields, house.country)[0];
  return (
    <div className="flex items-center gap-3 pt-2 text-ink2 flex-wrap text-[13px]">
      <label className="flex items-center gap-2">
        {t`Numbers without a country code are from`}
        <select
          className="input !w-[170px] !min-h-[28px] !py-[2px]"
          value={parts.phoneCountry ?? house.country}
          onChange={(event) => set({ phoneCountry: event.target.value })}
        >
          {COUNTRIES.map(([code, name]) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {parts.constants.map((constant, at) => (
        <button
          key={at}
          className="rounded-paper border border-[#8b989d] px-2 py-[2px]"
          aria-label={t`No longer give everyone ${words(constant.choice)} ${constant.value}`}
          onClick={() => set({ constants: parts.constants.filter((_one, i) => i !== at) })}
        >
          <Trans>
            Everyone: {words(constant.choice)} “{constant.value}” ✕
          </Trans>
        </button>
      ))}
      {adding ? (
        <form className="flex items-center gap-2" onSubmit={(event) => (event.preventDefault(), add())}>
          <select
            className="input !w-[170px] !min-h-[28px] !py-[2px]"
            aria-label={t`Field for everyone`}
            value={key}
            onChange={(event) => setKey(event.target.value)}
          >
            <option value="">{t`Which field…`}</option>
            {offers.map((offer) => (
              <option key={offer.key} value={offer.key}>
                {offer.words}
              </option>
            ))}
          </select>
          <input
            autoFocus
            className="input !w-[150px] !min-h-[28px] !py-[2px]"
            aria-label={t`Value for everyone`}
            value={value}
            onChange={(event) => setValue(event.target.value)}
          />
          <Button type="submit">{t`Give it to everyone`}</Button>
        </form>
      ) : (
        <button className="link" onClick={() => setAdding(true)}>
          {t`Give everyone a value`}
        </button>
      )}
    </div>
  );
}
