import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { useMarked, useWaitingEnter } from './waitingEnter';

export interface MenuGroup {
  title: string;
  items: { key: string; words: string; note?: string; act: () => void }[];
}

interface Props {
  /** What it is called, for those who can't see it. */
  label: string;
  children: ReactNode;
  className: string;
  groups: readonly MenuGroup[];
  placeholder: string;
  /** What to say where nothing fits. */
  none: string;
  /** Where what is offered is found by whoever shows the menu: told what is typed. */
  onType?: (text: string) => void;
  /** Whether what is offered belongs to what is typed; Enter waits until it does. */
  fresh?: boolean;
}

const fits = (text: string, typed: string) =>
  typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word));

/** A menu that is found in by typing: what is offered narrows, arrows move, Enter chooses. */
export function TypedMenu({
  label,
  children,
  className,
  groups,
  placeholder,
  none,
  onType,
  fresh = true,
}: Props) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const type = (next: string) => (setText(next), onType?.(next.trim()));
  const shown = groups
    .map((group) => ({
      ...group,
      items: onType ? group.items : group.items.filter(({ words }) => fits(`${group.title} ${words}`, text)),
    }))
    .filter(({ items }) => items.length > 0);
  const marked = useMarked(shown.flatMap(({ items }) => items.map(({ key }) => key)));
  const choose = (act: () => void) => (setOpen(false), type(''), act());
  const first = shown[0]?.items[0];
  const enter = useWaitingEnter(fresh, first && (() => choose(first.act)));
  return (
    <Popover.Root open={open} onOpenChange={(next) => (setOpen(next), type(''))}>
      <Popover.Trigger className={className} aria-label={label}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="sheet p-2 z-40 w-[340px] max-w-[92vw]"
          sideOffset={4}
          align="start"
          aria-label={label}
        >
          <Command shouldFilter={false} label={label} {...marked}>
            <Command.Input
              className="input"
              autoFocus
              placeholder={placeholder}
              value={text}
              onValueChange={(next) => (enter.forget(), type(next))}
              onKeyDown={enter.onKeyDown}
              aria-label={placeholder}
            />
            <Command.List className="max-h-[340px] overflow-y-auto pt-1">
              {shown.length === 0 && <p className="px-3 py-2 text-ink2">{none}</p>}
              {shown.map((group) => (
                <Command.Group
                  key={group.title}
                  heading={group.title}
                  className="[&>[cmdk-group-heading]]:px-3 [&>[cmdk-group-heading]]:pt-2 [&>[cmdk-group-heading]]:text-ink2 [&>[cmdk-group-heading]]:text-[12.5px]"
                >
                  {group.items.map((item) => (
                    <Command.Item
                      key={item.key}
                      value={item.key}
                      className="px-3 py-[5px] rounded-[3px] cursor-pointer data-[selected=true]:bg-bench"
                      onSelect={() => choose(item.act)}
                    >
                      {item.words} {item.note && <span className="text-ink2">{item.note}</span>}
                    </Command.Item>
                  ))}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
