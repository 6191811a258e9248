import { t } from '@lingui/core/macro';
import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { DayField } from '../../ui/DayField';

/** An underlined word of a sentence that opens what it can be. */
export function Word({
  words,
  label,
  children,
  tone,
}: {
  words: string;
  label: string;
  children: (close: () => void) => ReactNode;
  tone?: 'no';
}) {
  const [isOpen, setOpen] = useState(false);
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger
        className={`word ${tone === 'no' ? 'text-madder !border-madder' : ''}`}
        aria-label={`${label}: ${words}`}
      >
        {words || '…'}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="sheet p-3 min-w-[240px] max-h-[380px] overflow-y-auto flex flex-col gap-1 z-20 font-sans text-[14px]"
          sideOffset={6}
          align="start"
        >
          {children(() => setOpen(false))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A word that is one of a few. */
export function PickWord<V extends string | number>({
  label,
  value,
  options,
  onPick,
  tone,
}: {
  label: string;
  value: V;
  options: readonly (readonly [V, string])[];
  onPick: (value: V) => void;
  tone?: 'no';
}) {
  const words = options.find(([one]) => one === value)?.[1] ?? '…';
  return (
    <Word words={words} label={label} tone={tone}>
      {(close) =>
        options.map(([one, text]) => (
          <button
            key={one}
            className={`text-left px-2 py-1 rounded-[3px] hover:bg-bench ${one === value ? 'font-bold' : ''}`}
            onClick={() => (onPick(one), close())}
          >
            {text}
          </button>
        ))
      }
    </Word>
  );
}

/** A word that is typed. */
export function TypeWord({
  label,
  value,
  shown,
  type = 'text',
  onType,
}: {
  label: string;
  value: string;
  shown?: string;
  type?: 'text' | 'number' | 'date';
  onType: (value: string) => void;
}) {
  return (
    <Word words={shown ?? value} label={label}>
      {(close) => (
        <label className="flex flex-col gap-1">
          <span className="font-semibold text-[13px]">{label}</span>
          {type === 'date' ? (
            <DayField
              value={value}
              autoFocus
              onChange={onType}
              onKeyDown={(event) => event.key === 'Enter' && close()}
            />
          ) : (
            <input
              className="input"
              type={type}
              defaultValue={value}
              autoFocus
              min={type === 'number' ? 0 : undefined}
              onChange={(event) => onType(event.target.value)}
              onKeyDown={(event) => event.key === 'Enter' && close()}
            />
          )}
        </label>
      )}
    </Word>
  );
}

/** A word that says with or without. */
export function YesNoWord({
  value,
  yes,
  no,
  onPick,
}: {
  value: boolean;
  yes: string;
  no: string;
  onPick: (value: boolean) => void;
}) {
  return (
    <PickWord
      label={t`With or without`}
      value={value ? 'y' : 'n'}
      tone={value ? undefined : 'no'}
      options={[
        ['y', yes],
        ['n', no],
      ]}
      onPick={(picked) => onPick(picked === 'y')}
    />
  );
}
