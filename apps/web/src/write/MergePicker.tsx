import { Trans } from '@lingui/react/macro';
import { DropdownMenu, Toolbar } from 'radix-ui';
import type { Registry } from '@goodword/core/merge';

const TRIGGER =
  'font-mono text-[12.5px] whitespace-nowrap px-2 min-h-[34px] rounded-[3px] border border-hair hover:bg-bench';
const ITEM = 'px-3 py-[5px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer';

/** Merge fields by group; the one picked is put in at the cursor, in braces. */
export function MergePicker({
  registry,
  onPick,
  inToolbar,
}: {
  registry: Registry;
  onPick: (name: string) => void;
  inToolbar?: boolean;
}) {
  const groups = [...new Set(registry.names.map((name) => name.group))];
  return (
    <DropdownMenu.Root>
      {inToolbar ? (
        <Toolbar.Button asChild>
          <DropdownMenu.Trigger className={TRIGGER}>
            <Trans>{'{ }'} Merge field</Trans>
          </DropdownMenu.Trigger>
        </Toolbar.Button>
      ) : (
        <DropdownMenu.Trigger className={TRIGGER}>
          <Trans>{'{ }'} Merge field</Trans>
        </DropdownMenu.Trigger>
      )}
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="sheet p-1 max-h-[420px] overflow-y-auto z-20" align="end">
          {groups.map((group) => (
            <DropdownMenu.Group key={group}>
              <DropdownMenu.Label className="px-3 pt-2 text-ink2 text-[12.5px]">{group}</DropdownMenu.Label>
              {registry.names
                .filter((name) => name.group === group)
                .map((name) => (
                  <DropdownMenu.Item key={name.key} className={ITEM} onSelect={() => onPick(name.name)}>
                    {name.name}
                    {name.fallback && (
                      <span className="text-ink2">
                        <Trans>, or “{name.fallback}”</Trans>
                      </span>
                    )}
                  </DropdownMenu.Item>
                ))}
            </DropdownMenu.Group>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
