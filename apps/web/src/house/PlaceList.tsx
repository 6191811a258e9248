import { plural, t } from '@lingui/core/macro';
import { useState } from 'react';
import type { RulesView } from '@goodword/core/contract';
import {
  PRESET_NAMES,
  type HouseRules as Rules,
  type PlaceKey,
  type PresetName,
} from '@goodword/core/permission';
import { placeWords, PRESET_WORDS } from '@goodword/core/words';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Labelled } from '../ui/basics';
import { addPlace, placeOrder } from './edit';
import { House } from './HouseParts';

/** The places with rules of their own, and how many people count to each. */
export function PlaceList({
  rules,
  chosen,
  setKey,
  view,
  setAdding,
  setRules,
}: {
  rules: Rules;
  chosen: PlaceKey;
  setKey: (next: PlaceKey) => void;
  view: RulesView;
  setAdding: (next: boolean) => void;
  setRules: (value: Rules) => void;
}) {
  const format = useFormat();
  const may = useMay('owner');
  return (
    <nav
      aria-label={t`Places`}
      className="w-[220px] shrink-0 flex flex-col gap-3 overflow-y-auto"
      tabIndex={-1}
    >
      <ul className="sheet">
        {placeOrder(rules, placeWords).map((one) => (
          <li key={one} className="border-b border-hair last:border-0">
            <button
              className={`w-full text-left px-3 py-2 ${one === chosen ? 'bg-[#eef2f0] border-l-[3px] border-ink font-semibold' : 'border-l-[3px] border-transparent'}`}
              aria-current={one === chosen}
              onClick={() => setKey(one)}
            >
              {placeWords(one)}
              <span className="block text-ink2 text-[12.5px] font-normal">
                {format.number(view.people[one] ?? 0)}{' '}
                {plural(view.people[one] ?? 0, { one: 'supporter', other: 'supporters' })}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {may && <Button onClick={() => setAdding(true)}>{t`Add a place`}</Button>}
      <Labelled label={t`Whose place is not known counts to`}>
        <select
          className="input"
          disabled={!may}
          value={rules.home}
          onChange={(event) => setRules({ ...rules, home: event.target.value })}
        >
          {placeOrder(rules, placeWords).map((one) => (
            <option key={one} value={one}>
              {placeWords(one)}
            </option>
          ))}
        </select>
      </Labelled>
      <House rules={rules} disabled={!may} onChange={setRules} />
    </nav>
  );
}

export function AddPlace({ rules, onAdd }: { rules: Rules; onAdd: (rules: Rules, key: PlaceKey) => void }) {
  const [country, setCountry] = useState('');
  const [region, setRegion] = useState('');
  const [preset, setPreset] = useState<PresetName>('strict');
  const [fault, setFault] = useState<string | null>(null);
  const submit = () => {
    const added = addPlace(rules, country, region, preset);
    if (added) onAdd(added.rules, added.key);
    else
      setFault(
        t`Expected two letters such as NZ that are not there yet; a region has at most three, such as FL.`,
      );
  };
  return (
    <form className="sheet p-5 flex flex-col gap-4" onSubmit={(event) => (event.preventDefault(), submit())}>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`Country`} hint={t`Two letters, ISO 3166-1`}>
          <input
            className="input"
            autoFocus
            maxLength={2}
            value={country}
            onChange={(event) => setCountry(event.target.value)}
          />
        </Labelled>
        <Labelled label={t`Region, if only one`} hint={t`The part after the dash, ISO 3166-2`}>
          <input
            className="input"
            maxLength={3}
            value={region}
            onChange={(event) => setRegion(event.target.value)}
          />
        </Labelled>
      </div>
      <Labelled label={t`Begin with`} fault={fault}>
        <select
          className="input"
          value={preset}
          onChange={(event) => setPreset(event.target.value as PresetName)}
        >
          {PRESET_NAMES.map((name) => (
            <option key={name} value={name}>
              {PRESET_WORDS[name]}
            </option>
          ))}
        </select>
      </Labelled>
      <Button type="submit" weight="main" className="self-start">
        {t`Add it`}
      </Button>
    </form>
  );
}
