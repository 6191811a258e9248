import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { ReactNode } from 'react';
import type { RulesView } from '@goodword/core/contract';
import {
  RULE_PURPOSES,
  CHANNELS,
  REQUIRED_CONSENTS,
  PRESETS,
  RELATIONSHIPS,
  withOption,
  type Cap,
  type Channel,
  type RequiredConsent,
  type PlaceKey,
  type PlaceRules,
} from '@goodword/core/permission';
import {
  rulePurposeWords,
  CHANNEL_WORDS,
  REQUIRED_CONSENT_WORDS,
  placeWords,
  PRESET_WORDS,
  RELATIONSHIP_WORDS,
  speak,
} from '@goodword/core/words';
import { localDay } from '../app/day';
import { useFormat } from '../app/format';
import { HoursLine } from './HoursLine';
import { RuleCount, RuleLine, YesNoChoice } from './parts';
import { DayField } from '../ui/DayField';

type Change = (change: (place: PlaceRules) => PlaceRules) => void;

interface Props {
  placeKey: PlaceKey;
  place: PlaceRules;
  disabled: boolean;
  onChange: Change;
  onRemove: (() => void) | null;
  history: RulesView['history'];
}

const SHORT: Record<RequiredConsent, string> = { yes: t`a yes`, implied: 'implied', nothing: 'nothing' };

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="pb-5">
      <h3 className="subtitle pb-2">{title}</h3>
      {children}
    </section>
  );
}

function FormsPart({ place, onChange }: { place: PlaceRules; onChange: Change }) {
  return (
    <Part title={t`Forms, evidence and tracking`}>
      <RuleLine>
        <Trans>
          A form asks to confirm by email{' '}
          <YesNoChoice
            label={t`Confirm by email`}
            yes={t`always`}
            no={t`where the form says so`}
            value={place.confirm.email}
            onPick={(email) => onChange((old) => ({ ...old, confirm: { ...old.confirm, email } }))}
          />
          , by text{' '}
          <YesNoChoice
            label={t`Confirm by text`}
            yes={t`always`}
            no={t`never`}
            value={place.confirm.text}
            onPick={(text) => onChange((old) => ({ ...old, confirm: { ...old.confirm, text } }))}
          />
          , for calls{' '}
          <YesNoChoice
            label={t`Confirm for calls`}
            yes={t`always`}
            no={t`never`}
            value={place.confirm.call}
            onPick={(forCalls) =>
              onChange((old) => ({ ...old, confirm: { ...old.confirm, call: forCalls } }))
            }
          />
          , within{' '}
          <RuleCount
            label={t`Days to confirm`}
            value={place.confirm.withinDays}
            most={365}
            onPick={(withinDays) => onChange((old) => ({ ...old, confirm: { ...old.confirm, withinDays } }))}
          />{' '}
          days of the act.
        </Trans>
      </RuleLine>
      {!(place.confirm.email && place.confirm.text && place.confirm.call) && (
        <p className="pb-2 text-ochre">
          <Trans>
            Whoever types somebody else’s address or number into a form is believed where it does not ask.
            After a no it always asks.
          </Trans>
        </p>
      )}
      <RuleLine>
        <Trans>
          Evidence older than{' '}
          <RuleCount
            label={t`Months of evidence`}
            value={place.oldAfterMonths}
            most={240}
            onPick={(oldAfterMonths) => onChange((old) => ({ ...old, oldAfterMonths }))}
          />{' '}
          months is pointed out.
        </Trans>
      </RuleLine>
      <RuleLine>
        <Trans>
          Opens{' '}
          <YesNoChoice
            label={t`Opens`}
            yes={t`are`}
            no={t`are not`}
            value={place.track.opens}
            onPick={(opens) => onChange((old) => ({ ...old, track: { ...old.track, opens } }))}
          />{' '}
          tracked, links{' '}
          <YesNoChoice
            label={t`Links`}
            yes={t`are`}
            no={t`are not`}
            value={place.track.links}
            onPick={(links) => onChange((old) => ({ ...old, track: { ...old.track, links } }))}
          />
          .
        </Trans>
      </RuleLine>
    </Part>
  );
}

/** One place's rules, as a table of what must be on record and sentences for the rest. */
export function PlaceSheet({ placeKey, place, disabled, onChange, onRemove, history }: Props) {
  const format = useFormat();
  return (
    <div
      className="sheet p-5 grow min-w-0 overflow-y-auto"
      tabIndex={0}
      role="region"
      aria-label={t`Rules for ${placeWords(placeKey)}`}
    >
      <div className="flex items-baseline gap-4 pb-3">
        <h2 className="title !text-[22px] grow">{placeWords(placeKey)}</h2>
        <span className="text-ink2">
          <Trans>from the preset “{PRESET_WORDS[place.preset]}”</Trans>
        </span>
        {onRemove && !disabled && (
          <button className="link text-ink2" onClick={onRemove}>
            {t`Take it out`}
          </button>
        )}
      </div>
      <fieldset disabled={disabled} className="contents">
        <Part title={t`What must be on record before we write`}>
          <Needs place={place} onChange={onChange} />
          <Options place={place} onChange={onChange} />
        </Part>
        <Part title={t`How long a relationship implies permission`}>
          <Lasts place={place} onChange={onChange} />
        </Part>
        <Part title={t`When, and how often`}>
          <HoursLine
            words={t`Texts leave`}
            hours={place.hours.text}
            onChange={(text) => onChange((old) => ({ ...old, hours: { ...old.hours, text } }))}
          />
          <HoursLine
            words={t`Emails leave`}
            hours={place.hours.email ?? null}
            onChange={(email) => onChange((old) => ({ ...old, hours: { ...old.hours, email } }))}
          />
          <HoursLine
            words={t`Calls are made`}
            hours={place.hours.call}
            onChange={(callHours) =>
              onChange((old) => ({ ...old, hours: { ...old.hours, call: callHours } }))
            }
          />
          {(['email', 'text'] as const).map((channel) => (
            <CapLine
              key={channel}
              channel={channel}
              cap={place.caps[channel]}
              onChange={(cap) => onChange((old) => ({ ...old, caps: { ...old.caps, [channel]: cap } }))}
            />
          ))}
        </Part>
        <FormsPart place={place} onChange={onChange} />
      </fieldset>
      <Part title={t`Changes so far`}>
        {history.length === 0 && (
          <p className="text-ink2">{t`These are the rules that a house starts with.`}</p>
        )}
        <ul>
          {history.map((one) => (
            <li key={one.id} className="border-t border-hair py-2">
              <p>{one.words}</p>
              <p className="text-ink2 text-[12.5px]">
                {format.moment(one.at)}, {one.by ?? t`the program`}
                {one.effects
                  .map(
                    (effect) =>
                      t`, ${CHANNEL_WORDS[effect.channel].toLowerCase()} for ${rulePurposeWords(effect.askedFor)}: ${effect.opens} opened, ${effect.closes} closed`,
                  )
                  .join('')}
              </p>
            </li>
          ))}
        </ul>
      </Part>
    </div>
  );
}

function Needs({ place, onChange }: { place: PlaceRules; onChange: Change }) {
  const set = (channel: Channel, purpose: (typeof RULE_PURPOSES)[number], need: RequiredConsent) =>
    onChange((old) => ({
      ...old,
      needs: { ...old.needs, [channel]: { ...old.needs[channel], [purpose]: need } },
    }));
  return (
    <table className="w-full table-fixed">
      <thead>
        <tr className="text-left text-ink2 text-[13px] border-b border-ink">
          <th className="font-normal py-1 w-[130px]">{t`For`}</th>
          {CHANNELS.map((channel) => (
            <th key={channel} className="font-normal">
              {CHANNEL_WORDS[channel]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {RULE_PURPOSES.map((purpose) => (
          <tr key={purpose} className="border-b border-hair">
            <th scope="row" className="text-left py-[6px]">
              {rulePurposeWords(purpose)}
            </th>
            {CHANNELS.map((channel) => (
              <td key={channel} className="pr-3">
                {channel === 'text' ? (
                  <span className="text-ink2">{t`a yes, everywhere`}</span>
                ) : (
                  <select
                    className="input !min-h-[30px] !py-[3px]"
                    aria-label={t`${CHANNEL_WORDS[channel]} for ${rulePurposeWords(purpose)} needs`}
                    title={REQUIRED_CONSENT_WORDS[place.needs[channel][purpose]]}
                    value={place.needs[channel][purpose]}
                    onChange={(event) => set(channel, purpose, event.target.value as RequiredConsent)}
                  >
                    {REQUIRED_CONSENTS.map((need) => (
                      <option key={need} value={need}>
                        {SHORT[need]}
                      </option>
                    ))}
                  </select>
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Options({ place, onChange }: { place: PlaceRules; onChange: Change }) {
  return (
    <>
      {PRESETS[place.preset].options.map((option) => (
        <label key={option.id} className="flex gap-3 items-start pt-3">
          <input
            type="checkbox"
            className="mt-1 accent-[#0F766B]"
            checked={place.options.includes(option.id)}
            onChange={(event) => onChange((old) => withOption(old, option.id, event.target.checked))}
          />
          <span>
            {speak(option.words)}
            <span className="block text-ink2 text-[12.5px]">{option.source}</span>
          </span>
        </label>
      ))}
    </>
  );
}

function Lasts({ place, onChange }: { place: PlaceRules; onChange: Change }) {
  return (
    <>
      <ul className="grid grid-cols-2 gap-x-6">
        {RELATIONSHIPS.map((relationship) => {
          const months = place.lasts[relationship];
          const set = (value: number | null) =>
            onChange((old) => ({ ...old, lasts: { ...old.lasts, [relationship]: value } }));
          return (
            <li key={relationship} className="py-[5px] leading-[34px]">
              <Trans>After {RELATIONSHIP_WORDS[relationship]}</Trans>{' '}
              <YesNoChoice
                label={t`After ${RELATIONSHIP_WORDS[relationship]}`}
                yes={t`for`}
                no={t`never`}
                value={months !== null}
                onPick={(on) => set(on ? 12 : null)}
              />{' '}
              {months !== null && (
                <>
                  <RuleCount
                    label={t`Months after ${RELATIONSHIP_WORDS[relationship]}`}
                    value={months}
                    most={120}
                    onPick={set}
                  />{' '}
                  {t`months`}
                </>
              )}
            </li>
          );
        })}
      </ul>
      <RuleLine>
        {t`Counting relationships that began`}{' '}
        <YesNoChoice
          label={t`Relationships that began`}
          yes={t`on or after`}
          no={t`at any time`}
          value={place.impliedFrom !== null}
          onPick={(on) => onChange((old) => ({ ...old, impliedFrom: on ? localDay() : null }))}
        />{' '}
        {place.impliedFrom !== null && (
          <DayField
            className="input !w-[150px] !min-h-[30px] !py-[3px] leading-normal"
            aria-label={t`Began on or after`}
            value={place.impliedFrom}
            onChange={(day) => day && onChange((old) => ({ ...old, impliedFrom: day }))}
          />
        )}
      </RuleLine>
    </>
  );
}

function CapLine({
  channel,
  cap,
  onChange,
}: {
  channel: Channel;
  cap: Cap | null;
  onChange: (cap: Cap | null) => void;
}) {
  const many = channel === 'email' ? 'emails' : 'texts';
  return (
    <RuleLine>
      {t`One person gets`}{' '}
      <YesNoChoice
        label={t`Cap of ${many}`}
        yes={t`at most`}
        no={t`any number of`}
        value={cap !== null}
        onPick={(on) => onChange(on ? { messages: 3, days: 7 } : null)}
      />{' '}
      {cap ? (
        <>
          <RuleCount
            label={t`Most ${many}`}
            value={cap.messages}
            most={1000}
            onPick={(messages) => onChange({ ...cap, messages })}
          />{' '}
          <Trans>
            {many} in{' '}
            <RuleCount
              label={t`Days of ${many}`}
              value={cap.days}
              most={366}
              onPick={(days) => onChange({ ...cap, days })}
            />{' '}
            days.
          </Trans>
        </>
      ) : (
        <>{many}.</>
      )}
    </RuleLine>
  );
}
