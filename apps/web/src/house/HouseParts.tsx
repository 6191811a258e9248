import { USUAL_BRAKE } from '@goodword/core/delivery';
import { t } from '@lingui/core/macro';
import { UNDO_SECONDS, USUAL_PILE, type HouseRules as Rules } from '@goodword/core/permission';
import { ASKING_WORDS } from '@goodword/core/text';
import { Labelled } from '../ui/basics';
import { countriesIn, ruleLines } from './edit';

interface PartProps {
  disabled: boolean;
  rules: Rules;
  onChange: (rules: Rules) => void;
}

/** Something that holds in the house, or does not. */
function CheckRule({
  label,
  disabled,
  value,
  onChange,
}: {
  label: string;
  disabled: boolean;
  value: boolean;
  onChange: (value: boolean) => void;
}) {
  return (
    <label className="flex gap-3 items-start">
      <input
        type="checkbox"
        className="mt-1 accent-[#0F766B]"
        disabled={disabled}
        checked={value}
        onChange={({ target }) => onChange(target.checked)}
      />
      <span>{label}</span>
    </label>
  );
}

/** A whole number of the house. */
function NumberRule({
  label,
  hint,
  most,
  disabled,
  value,
  onChange,
}: {
  label: string;
  hint: string;
  most?: number;
  disabled: boolean;
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <Labelled label={label} hint={hint}>
      <input
        type="number"
        className="input"
        min={0}
        max={most}
        disabled={disabled}
        value={value}
        onChange={({ target }) =>
          onChange(Math.min(most ?? Infinity, Math.max(0, Math.round(Number(target.value) || 0))))
        }
      />
    </Labelled>
  );
}

/** Shares at which a sending pauses itself. */
function Brake({ disabled, rules, onChange }: PartProps) {
  const brake = rules.brake ?? USUAL_BRAKE;
  const field = (part: keyof typeof brake, label: string, hint: string) => (
    <Labelled label={label} hint={hint}>
      <input
        type="number"
        className="input"
        min={0}
        max={100}
        step="any"
        disabled={disabled}
        value={brake[part]}
        onChange={({ target }) =>
          onChange({
            ...rules,
            brake: { ...brake, [part]: Math.min(100, Math.max(0, Number(target.value) || 0)) },
          })
        }
      />
    </Labelled>
  );
  return (
    <>
      {field(
        'unknown',
        t`A sending pauses itself at unknown addresses`,
        t`Percent of those tried; 0 is never`,
      )}
      {field('complaints', t`And at complaints`, t`Percent of those tried; 0 is never`)}
    </>
  );
}

function AskingWords({ disabled, rules, onChange }: PartProps) {
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
export function House({ rules, disabled, onChange }: PartProps) {
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
      <NumberRule
        label={t`A message sent now can be taken back`}
        hint={t`Seconds before the first one leaves; 0 is not at all`}
        most={600}
        disabled={disabled}
        value={rules.undoSeconds ?? UNDO_SECONDS}
        onChange={(undoSeconds) => onChange({ ...rules, undoSeconds })}
      />
      <Brake disabled={disabled} rules={rules} onChange={onChange} />
      <NumberRule
        label={t`Another has to agree to a message to more than`}
        hint={t`People; 0 is never. Nobody agrees to their own.`}
        disabled={disabled}
        value={rules.secondAbove ?? 0}
        onChange={(secondAbove) => onChange({ ...rules, secondAbove })}
      />
      <NumberRule
        label={t`Automatic messages wait for a look at more than`}
        hint={t`People within an hour, such as those of a file that came in`}
        disabled={disabled}
        value={rules.pile ?? USUAL_PILE}
        onChange={(pile) => onChange({ ...rules, pile })}
      />
      <AskingWords disabled={disabled} rules={rules} onChange={onChange} />
      <CheckRule
        label={t`Whom one appeal is asking no other asks, until it is over for them`}
        disabled={disabled}
        value={rules.oneAppeal ?? false}
        onChange={(oneAppeal) => onChange({ ...rules, oneAppeal })}
      />
      <CheckRule
        label={t`A change that loosens anything needs a second owner`}
        disabled={disabled}
        value={rules.secondPair ?? false}
        onChange={(secondPair) => onChange({ ...rules, secondPair })}
      />
    </>
  );
}
