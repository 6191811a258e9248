import { t } from '@lingui/core/macro';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { useFormat } from '../app/format';
import { useSession } from '../app/session';
import { Button } from '../ui/basics';
import { MomentField } from '../ui/DayField';
import { Drawer } from '../ui/dialogs';
import { asideTimes } from './asideTimes';

const ITEM = 'px-3 py-[6px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer block';
const WORDS = { tomorrow: t`Tomorrow morning`, monday: t`On Monday morning`, week: t`In a week` } as const;

/** Puts a thread aside until a morning that comes, or a time that is said. */
export function AsideMenu({
  open,
  onOpen,
  onAside,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  onAside: (until: string) => void;
}) {
  const format = useFormat();
  const { organization } = useSession();
  const [saying, setSaying] = useState(false);
  const [until, setUntil] = useState('');
  const [unread, setUnread] = useState(false);
  return (
    <>
      <DropdownMenu.Root open={open} onOpenChange={onOpen}>
        <DropdownMenu.Trigger asChild>
          <Button>{t`Put aside…`}</Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="sheet p-1 z-20 min-w-[240px]" align="start">
            {asideTimes(Date.now(), organization.timeZone).map(({ words, at }) => (
              <DropdownMenu.Item key={words} className={ITEM} onSelect={() => onAside(at)}>
                {WORDS[words]} <span className="text-ink2 text-[12.5px]">{format.moment(at)}</span>
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item className={ITEM} onSelect={() => setTimeout(() => setSaying(true))}>
              {t`Until another time…`}
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <Drawer
        open={saying}
        onClose={() => setSaying(false)}
        title={t`Put aside`}
        note={t`It comes back then, or when they write again`}
      >
        <form
          className="sheet p-4 flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            setSaying(false);
            onAside(until);
          }}
        >
          <MomentField label={t`Until`} value={until} onChange={setUntil} onUnread={setUnread} />
          <Button
            type="submit"
            weight="main"
            className="self-start"
            disabled={until === '' || unread || Date.parse(until) <= Date.now()}
          >
            {t`Put aside`}
          </Button>
        </form>
      </Drawer>
    </>
  );
}
