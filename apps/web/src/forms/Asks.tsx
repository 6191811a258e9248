import type { Said } from '@goodword/core/common';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { ListName } from '../app/groups';
import type { FormAsk, FormDefinition } from '@goodword/core/forms';
import { PURPOSES, type Channel, type Scope } from '@goodword/core/permission';
import { textAskFaults } from '@goodword/core/text';
import { CHANNEL_WORDS, speak } from '@goodword/core/words';
import { withAsk } from './draft';

const ASKED_BY: readonly Channel[] = ['email', 'text', 'call'];

interface Props {
  form: FormDefinition;
  lists: readonly ListName[];
  organization: string;
  disabled: boolean;
  onChange: (form: FormDefinition) => void;
}

/** One box of permission: for what, by which channel, in what words. */
function AskRow({
  at,
  ask,
  disabled,
  change,
  lists,
  missing,
}: {
  at: number;
  ask: FormAsk;
  disabled: boolean;
  change: (at: number, next: Partial<FormAsk> | null) => void;
  lists: readonly ListName[];
  missing: Said[];
}) {
  return (
    <div className="border-b border-hair py-3 flex flex-col gap-2" id={`ask-${at}`}>
      <div className="flex items-center gap-2">
        <span>{t`Agree to`}</span>
        <select
          className="input !w-auto"
          aria-label={t`What box ${at + 1} is for`}
          value={ask.scope}
          disabled={disabled}
          onChange={(event) => change(at, { scope: event.target.value as Scope })}
        >
          {PURPOSES.filter((purpose) => purpose !== 'service').map((purpose) => (
            <option key={purpose} value={purpose}>
              {purpose}
            </option>
          ))}
          {lists
            .filter((list) => list.byForm || ask.scope === `list:${list.id}`)
            .map((list) => (
              <option key={list.id} value={`list:${list.id}`}>
                {list.name}
              </option>
            ))}
        </select>
        <span>{t`by`}</span>
        <select
          className="input !w-auto"
          aria-label={t`Channel of box ${at + 1}`}
          value={ask.channel}
          disabled={disabled}
          onChange={(event) => change(at, { channel: event.target.value as Channel })}
        >
          {ASKED_BY.map((channel) => (
            <option key={channel} value={channel}>
              {CHANNEL_WORDS[channel].toLowerCase()}
            </option>
          ))}
        </select>
        <span className="grow">{t`with the words`}</span>
        {!disabled && (
          <button className="link" aria-label={t`Remove box ${at + 1}`} onClick={() => change(at, null)}>
            {t`Remove`}
          </button>
        )}
      </div>
      <textarea
        className="input min-h-[64px]"
        aria-label={t`Words of box ${at + 1}`}
        maxLength={1000}
        value={ask.words}
        disabled={disabled}
        onChange={(event) => change(at, { words: event.target.value })}
      />
      {missing.length > 0 && (
        <p className="text-madder text-[12.5px]">
          <Trans>The words must still say {missing.map(speak).join(', ')}.</Trans>
        </p>
      )}
    </div>
  );
}

/**
 * Each permission asked: its own box, never ticked beforehand, in its own words, which are kept as the
 * evidence.
 */
export function Asks({ form, lists, organization, disabled, onChange }: Props) {
  const change = (at: number, next: Partial<FormAsk> | null) =>
    onChange({
      ...form,
      asks: form.asks.flatMap((ask, i) => (i === at ? (next === null ? [] : [{ ...ask, ...next }]) : [ask])),
    });
  return (
    <>
      {form.asks.map((ask, at) => {
        const missing = ask.channel === 'text' ? textAskFaults(ask.words, organization) : [];
        return (
          // Boxes have no name of their own and are never reordered, so their place is who they are.
          <AskRow
            key={at}
            at={at}
            ask={ask}
            disabled={disabled}
            change={change}
            lists={lists}
            missing={missing}
          />
        );
      })}
      {!disabled && (
        <select
          className="input !w-auto mt-2 self-start"
          aria-label={t`Ask for another permission`}
          value=""
          onChange={(event) =>
            event.target.value && onChange(withAsk(form, event.target.value as Channel, organization))
          }
        >
          <option value="">{t`Another box…`}</option>
          {ASKED_BY.map((channel) => (
            <option key={channel} value={channel}>
              {t`by ${CHANNEL_WORDS[channel].toLowerCase()}`}
            </option>
          ))}
        </select>
      )}
    </>
  );
}
