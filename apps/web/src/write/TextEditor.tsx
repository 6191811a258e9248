import { useRef } from 'react';
import type { Registry } from '@goodword/core/merge';
import { aroundText, countParts, straighten } from '@goodword/core/text';
import { useSession } from '../app/session';
import { Button } from '../ui/basics';
import { MergePicker } from './MergePicker';

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
  const area = useRef<HTMLTextAreaElement>(null);
  const { organization } = useSession();
  const { lead, end } = aroundText(value, organization.name, organization.locale);
  const parts = countParts(`${lead}${value}${end}`);
  const straight = straighten(value);
  const insert = (words: string) => {
    const at = area.current?.selectionStart ?? value.length;
    onChange(value.slice(0, at) + words + value.slice(area.current?.selectionEnd ?? at));
  };
  return (
    <div className="sheet p-5 flex flex-col gap-3 grow">
      <div className="flex justify-between items-center">
        <h2 className="subtitle" id="text-title">
          The text
        </h2>
        {editable && <MergePicker registry={registry} onPick={insert} />}
      </div>
      <textarea
        ref={area}
        aria-labelledby="text-title"
        className="input grow min-h-[180px] text-[16px]"
        readOnly={!editable}
        maxLength={2000}
        value={value}
        onChange={(event) => onChange(event.target.value)}
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
