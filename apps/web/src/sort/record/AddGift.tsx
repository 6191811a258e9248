import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { RecordView } from '@goodword/core/contract';
import { readMoney } from '@goodword/core/fields';
import { api } from '../../app/api';
import { localDay } from '../../app/day';
import { useTyped } from '../../app/drafting';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { useSession } from '../../app/session';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { DayField } from '../../ui/DayField';

/** A gift that somebody tells of; `start` is the amount as they wrote it. */
export function AddGift({
  record,
  start = '',
  onDone,
}: {
  record: RecordView;
  start?: string;
  onDone: () => void;
}) {
  const queryClient = useQueryClient();
  const draft = useTyped(`gift:${record.id}`, { amount: start, on: localDay() });
  const { amount, on } = draft.value;
  const format = useFormat();
  const { organization } = useSession();
  // As amounts are read in files: with the separators of any common locale.
  const read = readMoney(amount);
  const foreign = read?.currency && read.currency !== organization.currency ? read.currency : null;
  const minor = foreign ? 0 : (read?.minor ?? 0);
  const hint = foreign
    ? t`Gifts are kept in ${organization.currency}, not in ${foreign}.`
    : minor > 0
      ? format.money(minor)
      : amount.trim() !== '' && t`An amount such as 25 or 1,250.50`;
  const add = useMutation({
    mutationFn: () =>
      api.post('supporters/{id}/gifts', { id: record.id, body: { amount: minor, on, note: '' } }),
    onSuccess: () => (draft.discard(), void refresh(queryClient, 'supporters'), onDone()),
  });
  return (
    <form className="py-2 flex flex-col gap-2" onSubmit={(event) => (event.preventDefault(), add.mutate())}>
      <div className="grid grid-cols-2 gap-2">
        <Labelled label={t`Amount`} {...(hint ? { hint } : {})}>
          <input
            className="input"
            inputMode="decimal"
            autoFocus
            value={amount}
            onChange={(event) => draft.set({ amount: event.target.value, on })}
          />
        </Labelled>
        <Labelled label={t`On`}>
          <DayField value={on} onChange={(day) => draft.set({ amount, on: day })} />
        </Labelled>
      </div>
      <ProblemNote error={add.error} />
      <Button type="submit" weight="main" className="self-start" disabled={!(minor > 0) || add.isPending}>
        {t`Enter the gift`}
      </Button>
    </form>
  );
}
