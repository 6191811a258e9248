import type { Registry } from '@goodword/core/merge';
import { aroundText, countParts, straighten } from '@goodword/core/text';
import { useSession } from '../app/session';
import { Button } from '../ui/basics';
import { MergeField } from './MergeField';

/** A text message with its parts counted as the network will (3GPP TS 23.038). Merge fields count as typed. */
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
  const parts = countParts(`${lead}${value}${end}`);
  const straight = straighten(value);
  return (
    <div className="sheet p-5 flex flex-col gap-3 grow">
      <h2 className="subtitle -mb-[44px]" id="text-title">
        The text
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
        <b>{parts.parts}</b> text {parts.parts === 1 ? 'segment' : 'segments'}, {parts.left}{' '}
        {parts.alphabet === 'gsm7' ? 'characters' : 'costly characters'} left in {parts.parts === 1 ? 'it' : 'the last'}, before merge fields are
        filled.
      </p>
      {value.trim() !== '' && (lead || end) && (
        <p className="text-ink2">
          {lead && (
            <>
              It goes out beginning with <b>{lead.trim()}</b>
            </>
          )}
          {lead && end ? ' and ' : ''}
          {end && (
            <>
              {lead ? 'ending' : 'It goes out ending'} with <b>{end.trim()}</b>
            </>
          )}
          , since a text must say who sends it and how to end texts. Say it yourself, and this is left out.
        </p>
      )}
      {parts.costly.length > 0 && (
        <p className="text-ochre">
          {parts.costly.slice(0, 8).join(' ')} {parts.costly.length === 1 ? 'forces' : 'force'} the alphabet that holds 70 instead of 160.{' '}
          {straight !== value && editable && (
            <Button className="!min-h-[26px] !px-2" onClick={() => onChange(straight)}>
              Write them plainly
            </Button>
          )}
        </p>
      )}
    </div>
  );
}
