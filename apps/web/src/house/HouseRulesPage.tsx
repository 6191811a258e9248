import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RulesView } from '@goodword/core/contract';
import {
  PRESET_NAMES,
  PRESETS,
  UNDO_SECONDS,
  type HouseRules as Rules,
  type PlaceKey,
  type PresetName,
} from '@goodword/core/permission';
import { ASKING_WORDS } from '@goodword/core/text';
import { rulePurposeWords, CHANNEL_WORDS, placeWords, PRESET_WORDS, speak } from '@goodword/core/words';
import { api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { Unsaved } from '../ui/Unsaved';
import { addPlace, countriesIn, ruleLines, placeOrder, withoutPlace, withPlace } from './edit';
import { HouseNav } from './HouseNav';
import { PlaceSheet } from './PlaceSheet';
import { reading, readingByPost } from '../app/reading';

/** Rules of the house, place by place: drafted here, weighed against everybody on file, then made. */
export default function HouseRulesPage() {
  const { data, error } = useQuery(reading('house-rules'));
  // The place that is looked at stays, also when a change was made and the rules come anew.
  const [chosen, setChosen] = useState<PlaceKey | null>(null);
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the house rules`} />;
  const key = chosen !== null && chosen in data.rules.places ? chosen : data.rules.home;
  return <Editor view={data} start={key} onChoose={setChosen} />;
}

/** The places with rules of their own, and how many people count to each. */
function PlaceList({
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

function Editor({
  view,
  start,
  onChoose,
}: {
  view: RulesView;
  start: PlaceKey;
  onChoose: (key: PlaceKey) => void;
}) {
  const may = useMay('owner');
  const draft = useDrafting<Rules>('house-rules', { value: view.rules, version: view.version });
  const { value: rules, set: setRules } = draft;
  const [key, setPlace] = useState(start);
  const setKey = (next: PlaceKey) => {
    setPlace(next);
    onChoose(next);
  };
  const [adding, setAdding] = useState(false);
  const [weighing, setWeighing] = useState(false);
  const changed = draft.isChanged;
  const place = rules.places[key] ?? rules.places['*']!;
  useMargin(notesOf(key, place.preset, changed, () => setWeighing(true), draft.discard));
  return (
    <>
      <Heading title={t`House rules`} note={t`Set once, obeyed everywhere`}>
        {changed && <Button onClick={draft.discard}>{t`Put back`}</Button>}
        {may && (
          <Button
            weight="main"
            disabled={!changed || draft.theirs !== null}
            onClick={() => setWeighing(true)}
          >
            {t`See whom it changes`}
          </Button>
        )}
      </Heading>
      <HouseNav />
      <Unsaved draft={draft} what={t`the rules`} />
      {view.waiting && <Waiting waiting={view.waiting} may={may} />}
      <div className="flex gap-4 grow min-h-0">
        <PlaceList
          rules={rules}
          chosen={key}
          setKey={setKey}
          view={view}
          setAdding={setAdding}
          setRules={setRules}
        />
        <PlaceSheet
          placeKey={key}
          place={place}
          disabled={!may}
          onChange={(change) => setRules(withPlace(rules, key, change))}
          onRemove={
            key === '*' || key === rules.home
              ? null
              : () => (setRules(withoutPlace(rules, key)), setKey(rules.home))
          }
          history={view.history}
        />
      </div>
      <Drawer
        open={adding}
        onClose={() => setAdding(false)}
        title={t`Add a place`}
        note={t`A country, or a region of one that is stricter`}
      >
        <AddPlace rules={rules} onAdd={(next, made) => (setRules(next), setKey(made), setAdding(false))} />
      </Drawer>
      <Drawer
        open={weighing}
        onClose={() => setWeighing(false)}
        title={t`Whom it changes`}
        note={t`Counted over everybody on file, before anything is changed`}
        wide
      >
        <Weighing
          rules={rules}
          version={draft.basedOn}
          onDone={(sent) => (setWeighing(false), draft.saved(sent))}
        />
      </Drawer>
    </>
  );
}

function notesOf(
  key: PlaceKey,
  preset: PresetName,
  changed: boolean,
  weigh: () => void,
  undo: () => void,
): Note[] {
  const sources = PRESETS[preset].sources.map((source, i): Note => ({
    key: `${key}-${i}`,
    tone: 'plain',
    title: speak(source.rule),
    body: source.source,
  }));
  return [
    ...(changed
      ? [
          {
            key: 'changed',
            tone: 'doubt' as const,
            title: t`Not made yet`,
            body: t`What you changed holds for nobody until you have seen whom it changes.`,
            remedy: { words: t`See whom it changes`, act: weigh },
          },
        ]
      : []),
    {
      key: 'counsel',
      tone: 'doubt',
      title: t`Verify with your counsel`,
      body: t`These are a starting point and our reading of the sources below, not legal advice.`,
      ...(changed ? { remedy: { words: t`Put the rules back`, act: undo } } : {}),
    },
    ...sources,
  ];
}

function AddPlace({ rules, onAdd }: { rules: Rules; onAdd: (rules: Rules, key: PlaceKey) => void }) {
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

function UndoSeconds({
  disabled,
  rules,
  onChange,
}: {
  disabled: boolean;
  rules: Rules;
  onChange: (rules: Rules) => void;
}) {
  return (
    <Labelled
      label={t`A message sent now can be taken back`}
      hint={t`Seconds before the first one leaves; 0 is not at all`}
    >
      <input
        type="number"
        className="input"
        min={0}
        max={600}
        disabled={disabled}
        value={rules.undoSeconds ?? UNDO_SECONDS}
        onChange={(event) =>
          onChange({
            ...rules,
            undoSeconds: Math.min(600, Math.max(0, Math.round(Number(event.target.value)))),
          })
        }
      />
    </Labelled>
  );
}

function AskingWords({
  disabled,
  rules,
  onChange,
}: {
  disabled: boolean;
  rules: Rules;
  onChange: (rules: Rules) => void;
}) {
  return (
    <Labelled
      label={t`Words that ask`}
      hint={t`One a line; a service message with one needs a second reader`}
    >
      <textarea
        className="input min-h-[90px]"
        disabled={disabled}
        key={rules.askingWords?.join() ?? 'ours'}
        defaultValue={(rules.askingWords ?? ASKING_WORDS).join('\n')}
        onBlur={(event) => {
          const askingWords = ruleLines(event.target.value);
          if (askingWords.join() !== (rules.askingWords ?? ASKING_WORDS).join())
            onChange({ ...rules, askingWords });
        }}
      />
    </Labelled>
  );
}

/** What the house says of itself, whatever the place. */
function House({
  rules,
  disabled,
  onChange,
}: {
  rules: Rules;
  disabled: boolean;
  onChange: (rules: Rules) => void;
}) {
  return (
    <>
      <Labelled label={t`Registered as a charity in`} hint={t`Countries, two letters each, such as CA`}>
        <input
          className="input"
          disabled={disabled}
          key={rules.charityIn?.join() ?? ''}
          defaultValue={rules.charityIn?.join(', ') ?? ''}
          onBlur={(event) => {
            const charityIn = countriesIn(event.target.value);
            if (charityIn.join() !== (rules.charityIn ?? []).join()) onChange({ ...rules, charityIn });
          }}
        />
      </Labelled>
      <Labelled
        label={t`A way to refuse is offered since`}
        hint={t`Day since which all our forms and gift pages do, as 2026-02-05; empty: not all`}
      >
        <input
          className="input"
          disabled={disabled}
          key={rules.refusalOfferedSince ?? ''}
          defaultValue={rules.refusalOfferedSince ?? ''}
          pattern="\\d{4}-\\d\\d-\\d\\d"
          onBlur={(event) => {
            const since = event.target.value.trim() || null;
            if (since !== (rules.refusalOfferedSince ?? null))
              onChange({ ...rules, refusalOfferedSince: since });
          }}
        />
      </Labelled>
      <Labelled label={t`A text says how to end texts`} hint={t`Days; 0 is every text`}>
        <input
          type="number"
          className="input"
          min={0}
          max={90}
          disabled={disabled}
          value={rules.textEndDays ?? 0}
          onChange={(event) =>
            onChange({
              ...rules,
              textEndDays: Math.min(90, Math.max(0, Math.round(Number(event.target.value)))),
            })
          }
        />
      </Labelled>
      <UndoSeconds disabled={disabled} rules={rules} onChange={onChange} />
      <AskingWords disabled={disabled} rules={rules} onChange={onChange} />
      <label className="flex gap-3 items-start">
        <input
          type="checkbox"
          className="mt-1 accent-[#0F766B]"
          disabled={disabled}
          checked={rules.secondPair ?? false}
          onChange={(event) => onChange({ ...rules, secondPair: event.target.checked })}
        />
        <span>{t`A change that loosens anything needs a second owner`}</span>
      </label>
    </>
  );
}

/** A change that another owner asked for, to be agreed to or turned down. */
function Waiting({ waiting, may }: { waiting: NonNullable<RulesView['waiting']>; may: boolean }) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const settle = useMutation({
    mutationFn: (agrees: boolean) => api.post('house-rules/waiting', { body: { agrees } }),
    onSuccess: () => void refresh(queryClient, 'house-rules'),
  });
  return (
    <section
      className="sheet p-4 border-l-[3px] !border-l-ochremark shrink-0"
      aria-label={t`A change that waits`}
    >
      <p>
        <b>{t`Waits for a second owner.`}</b> {waiting.words}
      </p>
      <p className="text-ink2 text-[12.5px]">
        {waiting.by}, {format.moment(waiting.at)}. {waiting.loosens.join(' ')}
      </p>
      <ProblemNote error={settle.error} />
      {may && (
        <div className="flex gap-3 pt-2">
          {!waiting.mine && (
            <Button weight="main" disabled={settle.isPending} onClick={() => settle.mutate(true)}>
              {t`I agree, make the change`}
            </Button>
          )}
          <Button disabled={settle.isPending} onClick={() => settle.mutate(false)}>
            {waiting.mine ? t`Take it back` : t`Turn it down`}
          </Button>
        </div>
      )}
    </section>
  );
}

function Weighing({
  rules,
  version,
  onDone,
}: {
  rules: Rules;
  version: number;
  onDone: (sent: Rules) => void;
}) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const weighed = useQuery({
    ...readingByPost('house-rules/weigh', { body: { rules } }),
    staleTime: 0,
    gcTime: 0,
  });
  const save = useMutation({
    mutationFn: (sent: Rules) => api.put('house-rules', { body: { rules: sent, basedOn: version } }),
    // Done when the new rules are here: what is clicked before would be lost with the old ones.
    onSuccess: (_none, sent) => refresh(queryClient, 'house-rules').then(() => onDone(sent)),
  });
  if (weighed.error) return <ProblemNote error={weighed.error} />;
  if (!weighed.data) return <Loading what={t`everybody on file`} />;
  const { words, effects, loosens, waits } = weighed.data;
  return (
    <div className="sheet p-5 flex flex-col gap-4 overflow-y-auto">
      <ul className="list-disc pl-5">
        {words.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      {loosens.length > 0 && (
        <section className="border-l-[3px] border-ochremark pl-3" aria-label={t`What it loosens`}>
          <h3 className="subtitle text-ochre">{t`It loosens what the house promises`}</h3>
          <ul className="list-disc pl-5">
            {loosens.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </section>
      )}
      {effects.length === 0 ? (
        <p className="text-ink2">{t`Nobody on file is opened or closed by it today.`}</p>
      ) : (
        <table className="w-full">
          <thead>
            <tr className="text-left text-ink2 text-[13px] border-b border-ink">
              <th className="font-normal py-1">{t`Channel and purpose`}</th>
              <th className="font-normal text-right">{t`May be written to then`}</th>
              <th className="font-normal text-right">{t`May no longer`}</th>
            </tr>
          </thead>
          <tbody>
            {effects.map((effect) => (
              <tr key={`${effect.channel}${effect.askedFor}`} className="border-b border-hair">
                <td className="py-2">
                  {CHANNEL_WORDS[effect.channel]}, {rulePurposeWords(effect.askedFor)}
                </td>
                <td
                  className={`text-right ${effect.opens > 0 ? 'font-semibold text-verdigris' : 'text-ink2'}`}
                >
                  {format.number(effect.opens)}
                </td>
                <td className={`text-right ${effect.closes > 0 ? 'font-semibold text-madder' : 'text-ink2'}`}>
                  {format.number(effect.closes)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <ProblemNote error={save.error} />
      <Button
        weight="main"
        className="self-start"
        disabled={save.isPending}
        onClick={() => save.mutate(rules)}
      >
        {waits ? t`Ask a second owner` : t`Make the change`}
      </Button>
      {waits && (
        <p className="text-ink2">
          <Trans>
            The house wants two owners for a change that loosens. Until another agrees, nothing changes.
          </Trans>
        </p>
      )}
    </div>
  );
}
