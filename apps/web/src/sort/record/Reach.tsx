import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RecordView } from '@goodword/core/contract';
import { readMoney } from '@goodword/core/fields';
import { api } from '../../app/api';
import { localDay } from '../../app/day';
import { useFormat } from '../../app/format';
import { useMay, useSession } from '../../app/session';
import { NewFieldSheet } from '../../setup/fields/FieldSheet';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { Addresses } from './Addresses';
import { FieldValueRow } from './FieldValueRow';
import { RecordRow, RecordSection } from './parts';
import { useTyped } from '../../app/drafting';
import { refresh } from '../../app/refresh';
import { DayField } from '../../ui/DayField';

function AddGift({ record, onDone }: { record: RecordView; onDone: () => void }) {
  const queryClient = useQueryClient();
  const draft = useTyped(`gift:${record.id}`, { amount: '', on: localDay() });
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

function Giving({ record }: { record: RecordView }) {
  const format = useFormat();
  const may = useMay('organizer');
  const [adding, setAdding] = useState(false);
  const [last] = record.gifts;
  const largest = record.gifts.reduce((max, gift) => Math.max(max, gift.amount), 0);
  return (
    <RecordSection
      title={t`Giving`}
      side={
        may && (
          <button className="link text-[12.5px] text-ink2" onClick={() => setAdding(!adding)}>
            {t`Enter a gift`}
          </button>
        )
      }
    >
      {adding && <AddGift record={record} onDone={() => setAdding(false)} />}
      {last ? (
        <>
          <RecordRow label={t`Last gift`}>
            <Trans>
              {format.money(last.amount)} on {format.day(last.on)}
            </Trans>
          </RecordRow>
          <RecordRow label={t`Largest`}>{format.money(largest)}</RecordRow>
          <RecordRow label={t`In all`}>
            {format.money(record.gifts.reduce((sum, gift) => sum + gift.amount, 0))},{' '}
            {plural(record.gifts.length, { one: '# gift', other: '# gifts' })}
          </RecordRow>
        </>
      ) : (
        <p className="text-ink2 py-2">{t`No gift on file.`}</p>
      )}
    </RecordSection>
  );
}

/** Addresses, fields in their sections, and giving; everything editable where it stands. */
export function Reach({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const [making, setMaking] = useState(false);
  const sections = [...new Set(record.fields.map((field) => field.section))];
  return (
    <div
      className="sheet p-4 overflow-y-auto min-h-0"
      tabIndex={0}
      role="region"
      aria-label={t`What is known`}
    >
      <Addresses record={record} />
      {sections.map((section) => (
        <RecordSection key={section} title={section}>
          {record.fields
            .filter((field) => field.section === section)
            .map((field) => (
              <RecordRow key={field.id} label={field.name}>
                <FieldValueRow record={record} field={field} />
              </RecordRow>
            ))}
        </RecordSection>
      ))}
      {may && (
        <p className="pb-4">
          <button className="link text-[12.5px] text-ink2" onClick={() => setMaking(true)}>
            {t`Make a field`}
          </button>
        </p>
      )}
      <Giving record={record} />
      <Drawer
        open={making}
        onClose={() => setMaking(false)}
        title={t`Make a field`}
        note={t`For everybody’s record`}
      >
        <NewFieldSheet onDone={() => setMaking(false)} />
      </Drawer>
    </div>
  );
}
