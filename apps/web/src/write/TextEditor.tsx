import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import type { Registry } from '@goodword/core/merge';
import {
  aroundText,
  countParts,
  markLinks,
  partsOfMarked,
  shiftThatSaves,
  straighten,
  type ShiftLanguage,
} from '@goodword/core/text';
import { useSession } from '../app/session';
import { Button } from '../ui/basics';
import { MergeField } from './MergeField';

const LANGUAGE_OF_TABLE: Record<ShiftLanguage, string> = {
  tr: t`Turkish`,
  es: t`Spanish`,
  pt: t`Portuguese`,
};

/**
 * A text message with its parts counted as the network will (3GPP TS 23.038). Merge fields count as typed.
 */
export function TextEditor({
  value,
  registry,
  editable,
  onChange,
}: {
  value: string;
  registry: Registry;
  editable: boolean;
  onChange: (text: string) => void;
}) {
  const { organization } = useSession();
  const { lead, end } = aroundText(value, organization.name, organization.locale);
  // Links go out short: they count as such.
  const { marked } = markLinks(value);
  const counted = partsOfMarked(marked).map((part) =>
    typeof part === 'number' ? organization.shortLink : part,
  );
  const whole = `${lead}${counted.join('')}${end}`;
  const parts = countParts(whole, organization.shiftTables);
  const saving = parts.alphabet === 'ucs2' ? shiftThatSaves(whole) : null;
  const straight = straighten(value);
  return (
    <div className="sheet p-5 flex flex-col gap-3 grow">
      <h2 className="subtitle -mb-[44px]" id="text-title">
        {t`The text`}
      </h2>
      <MergeField
        long
        beside="above"
        registry={registry}
        aria-labelledby="text-title"
        className="input grow min-h-[180px] text-[16px]"
        readOnly={!editable}
        maxLength={2000}
        value={value}
        onChange={onChange}
      />
      <p role="status">
        <Trans>
          <b>{parts.parts}</b> text <Plural value={parts.parts} one="segment" other="segments" />,{' '}
          {parts.left} {parts.alphabet === 'gsm7' ? t`characters` : t`costly characters`} left in{' '}
          <Plural value={parts.parts} one="it" other="the last" />, before merge fields are filled.
        </Trans>
      </p>
      {value.trim() !== '' && (lead || end) && (
        <p className="text-ink2">
          {lead && (
            <Trans>
              It goes out beginning with <b>{lead.trim()}</b>
            </Trans>
          )}
          <Trans>
            {lead && end ? t` and ` : ''}
            {end && (
              <Trans>
                {lead ? t`ending` : t`It goes out ending`} with <b>{end.trim()}</b>
              </Trans>
            )}
            , since a text must say who sends it and how to end texts. Say it yourself, and this is left out.
          </Trans>
        </p>
      )}
      {saving && (
        <p className="text-ink2">
          {t`With the ${LANGUAGE_OF_TABLE[saving.language]} table of letters it would be ${saving.parts}; the text gateway is not said to take it.`}
        </p>
      )}
      {parts.costly.length > 0 && (
        <p className="text-ochre">
          <Trans>
            {parts.costly.slice(0, 8).join(' ')}{' '}
            <Plural value={parts.costly.length} one="forces" other="force" /> the alphabet that holds 70
            instead of 160.
          </Trans>{' '}
          {straight !== value && editable && (
            <Button className="!min-h-[26px] !px-2" onClick={() => onChange(straight)}>
              {t`Write them plainly`}
            </Button>
          )}
        </p>
      )}
    </div>
  );
}
