import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState, type ChangeEvent, type KeyboardEvent, type ReactNode } from 'react';
import { ProblemError, api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import type { Editor } from './editors';
import { countryChoices } from '../../app/choices';
import { useRegions } from './regions';
import { DayField } from '../../ui/DayField';

interface EditorProps {
  label: string;
  text: string;
  invalid: boolean;
  disabled: boolean;
  set: (text: string) => void;
  keep: (text: string) => void;
  leave: () => void;
}

/**
 * What is chosen with the mouse is kept at once. With the arrow keys one passes by others on the way, so that
 * it is kept by Enter, or when the editor is left.
 */
function useChosen({ text, set, keep, leave }: EditorProps) {
  const byKeys = useRef(false);
  return {
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === 'Escape') return leave();
      byKeys.current = event.key !== 'Enter';
      if (event.key !== 'Enter') return;
      event.preventDefault();
      keep(text);
    },
    onChange: (event: ChangeEvent<HTMLSelectElement>) => {
      set(event.target.value);
      if (!byKeys.current) keep(event.target.value);
    },
    onBlur: () => keep(text),
  };
}

/** A country, then one of its regions: the second list follows the first. */
function RegionEditor(props: EditorProps) {
  const { label, text, disabled, leave } = props;
  const chosen = useChosen(props);
  const [country, setCountry] = useState(text.slice(0, 2));
  const regions = useRegions(country);
  const escape = (event: KeyboardEvent) => event.key === 'Escape' && leave();
  return (
    <div className="flex flex-col gap-1">
      <select
        className="input"
        autoFocus
        aria-label={t`${label}: country`}
        value={country}
        onKeyDown={escape}
        onChange={(event) => setCountry(event.target.value)}
      >
        <option value="">{t`Choose the country`}</option>
        {countryChoices().map(([code, name]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </select>
      <select
        className="input"
        aria-label={label}
        disabled={disabled || country === ''}
        value={regions.some(({ code }) => code === text) ? text : ''}
        {...chosen}
      >
        <option value="">{t`None`}</option>
        {regions.map(({ code, name }) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </select>
    </div>
  );
}

function ValueEditor({ editor, ...props }: EditorProps & { editor: Editor }) {
  const { label, text, invalid, disabled, set, keep, leave } = props;
  const chosen = useChosen(props);
  const common = {
    className: 'input !min-h-[28px] !py-0',
    autoFocus: true,
    'aria-label': label,
    'aria-invalid': invalid,
    value: text,
    disabled,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === 'Escape') leave();
      // A date with a time submits no form by itself.
      if (event.key !== 'Enter' || editor.as !== 'line') return;
      event.preventDefault();
      keep(text);
    },
  };
  switch (editor.as) {
    case 'region':
      return <RegionEditor {...props} />;
    case 'choose':
      return (
        <select {...common} {...chosen}>
          <option value="">{t`None`}</option>
          {editor.options.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      );
    case 'lines':
      return (
        <textarea
          {...common}
          className="input"
          rows={5}
          maxLength={4000}
          onChange={(event) => set(event.target.value)}
          onBlur={() => keep(text)}
        />
      );
    case 'line':
      if (editor.type === 'date')
        return (
          <DayField
            {...common}
            onChange={(day) => (day === '' ? set('') : keep(day))}
            onBlur={() => text === '' && keep('')}
          />
        );
      return (
        <input
          {...common}
          type={editor.type}
          inputMode={editor.inputMode}
          onChange={(event) => set(event.target.value)}
          onBlur={() => keep(text)}
        />
      );
  }
}

const OpenLink = ({ to }: { to: string }) => (
  <a className="link text-[12.5px] text-ink2" href={to} target="_blank" rel="noreferrer noopener">
    {t`Open`}
  </a>
);

const PlainValue = ({ shown, placeholder }: { shown: string; placeholder: string }) =>
  shown ? (
    <span className="whitespace-pre-wrap break-words">{shown}</span>
  ) : (
    <span className="text-ink3">{placeholder}</span>
  );

/** A value that opens its editor where it is pressed. */
function OpensToEdit({
  label,
  onOpen,
  children,
}: {
  label: string;
  onOpen: () => void;
  children: ReactNode;
}) {
  return (
    <button
      className="text-left w-full hover:bg-bench rounded-[3px] px-1 -mx-1 min-h-[22px]"
      onClick={onOpen}
      aria-label={label}
    >
      {children}
    </button>
  );
}

/** A value that can be edited where it stands: Enter keeps, Escape leaves it as it was. */
export function EditableValue({
  label,
  value,
  shown,
  save,
  hint,
  link,
  editor = { as: 'line', type: 'text' },
  placeholder = t`None`,
}: {
  label: string;
  value: string;
  shown: string;
  /** Saves, in the place of what was seen there. */
  save: (text: string, was: string) => Promise<unknown>;
  /** What is told beside it while it is filled in. */
  hint?: string;
  /** Where the value leads. */
  link?: string | undefined;
  editor?: Editor;
  placeholder?: string;
}) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [text, setText] = useState<string | null>(null);
  const sent = useRef<string | null>(null);
  /** What was seen when this was begun, or is known of since: nothing else is written over. */
  const seen = useRef(shown);
  const keep = useMutation({
    mutationFn: (next: string) => save(next, seen.current),
    onError: (error) => {
      if (error instanceof ProblemError && error.problem.now !== undefined) seen.current = error.problem.now;
    },
    onSettled: () => (sent.current = null),
    onSuccess: () => (setText(null), void refresh(queryClient, 'supporters')),
  });
  const begin = () => {
    seen.current = shown;
    setText(value);
  };
  const open = link && <OpenLink to={link} />;
  const plain = <PlainValue shown={shown} placeholder={placeholder} />;
  if (!may)
    return (
      <>
        {plain} {open}
      </>
    );
  if (text === null) {
    return (
      <>
        <OpensToEdit label={t`${label}: ${shown || placeholder}. Edit`} onOpen={begin}>
          {plain}
        </OpensToEdit>
        {open}
      </>
    );
  }
  const leave = () => {
    keep.reset();
    setText(null);
  };
  // Enter keeps, and then the editor loses the focus, which keeps as well: once is enough.
  const keepOnce = (next: string) => {
    if (next === value) return leave();
    if (sent.current === next) return;
    sent.current = next;
    keep.mutate(next);
  };
  return (
    <form onSubmit={(event) => (event.preventDefault(), keepOnce(text))}>
      <ValueEditor
        editor={editor}
        label={label}
        text={text}
        invalid={keep.isError}
        disabled={keep.isPending}
        set={setText}
        keep={keepOnce}
        leave={leave}
      />
      {hint && <p className="text-ink2 text-[12.5px]">{hint}</p>}
      {keep.error && (
        <p role="alert" className="text-madder text-[12.5px]">
          {keep.error.message}
        </p>
      )}
    </form>
  );
}

export const saveField = (supporterId: number, fieldId: number) => (text: string, was: string) =>
  api.put('supporters/{id}/fields/{fieldId}', { id: supporterId, fieldId, body: { text, was } });
