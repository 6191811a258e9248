import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { CAUSE_LIMITS } from '@goodword/core/automations';
import type { AutomationWhole } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { Button, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';

/** The look before it is switched on: what it lacks, to how many it happens, and who of before gets it. */
export function SwitchOn({ automation, onClose }: { automation: AutomationWhole; onClose: () => void }) {
  const { id, version } = automation;
  const format = useFormat();
  const queryClient = useQueryClient();
  const [typed, setTyped] = useState('0');
  const days = /^\d{1,3}$/.test(typed.trim()) && Number(typed) <= CAUSE_LIMITS.days ? Number(typed) : null;
  const look = useQuery({
    ...reading('automations/{id}/look', { id, days: days ?? 0 }),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const on = useMutation({
    mutationFn: () =>
      api.post('automations/{id}/on', {
        id,
        body: { basedOn: version, days: days ?? 0, people: look.data!.people },
      }),
    onSuccess: onClose,
    onSettled: () => refresh(queryClient, 'automations'),
  });
  const isRead = look.data !== undefined && !look.isPlaceholderData && !look.isFetching;
  const isReady = isRead && days !== null && look.data.lacks.length === 0;
  return (
    <Drawer open onClose={onClose} title={t`Switch it on`} note={automation.name}>
      {!look.data && !look.error && <Loading what={t`to whom it happened lately`} />}
      <ProblemNote error={look.error ?? on.error} />
      {look.data && (
        <div className="flex flex-col gap-4 overflow-y-auto">
          {look.data.lacks.map((lack) => (
            <p key={lack} className="text-madder">
              {lack}
            </p>
          ))}
          <p className="text-[15px]">
            <Trans>
              In the last 30 days it happened to <b>{format.number(look.data.month)}</b>{' '}
              {plural(look.data.month, { one: 'person', other: 'people' })}. From now on whoever it happens to
              gets it, if they may be written to then.
            </Trans>
          </p>
          <label className="flex flex-wrap items-center gap-2">
            {t`Take up also what happened in the last`}
            <input
              className="input !w-[70px]"
              inputMode="numeric"
              aria-label={t`Days before today`}
              aria-invalid={days === null || undefined}
              value={typed}
              onChange={({ target }) => setTyped(target.value)}
            />
            {t`days`}
          </label>
          <p role="status" className={days === null ? 'text-madder' : 'text-ink2'}>
            {days === null
              ? t`A whole number of days, at most ${CAUSE_LIMITS.days}.`
              : days === 0
                ? t`Nobody of before gets it.`
                : plural(look.data.people, {
                    one: '# person of before gets it too.',
                    other: '# people of before get it too.',
                  })}
          </p>
          <Button
            weight="main"
            className="self-start"
            disabled={!isReady || on.isPending}
            onClick={() => on.mutate()}
          >
            {days !== null && days > 0 && look.data.people > 0
              ? t`Switch it on, for ${format.number(look.data.people)} at once`
              : t`Switch it on`}
          </Button>
        </div>
      )}
    </Drawer>
  );
}
