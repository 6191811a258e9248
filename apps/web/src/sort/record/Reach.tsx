import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { RecordView } from '@goodword/core/contract';
import { readMoney } from '@goodword/core/fields';
import { call } from '../../app/api';
import { localDay } from '../../app/day';
import { useFormat } from '../../app/format';
import { useMay, useSession } from '../../app/session';
import { NewFieldSheet } from '../../house/fields/FieldSheet';
import { Button, Labelled, Problem } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { FieldValueRow } from './FieldValueRow';
import { PlaceRow } from './PlaceRow';
import { useTyped } from '../../app/drafting';
import { refreshAll } from '../../app/refresh';
import { DayField } from '../../ui/DayField';

function Section({ title, side, children }: { title: string; side?: React.ReactNode; children: React.ReactNode }) {
  return (
    <section className="pb-4">
      <div className="flex justify-between items-baseline border-b border-ink pb-1">
        <h2 className="subtitle">{title}</h2>
        {side}
      </div>
      {children}
    </section>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="grid grid-cols-[136px_1fr] gap-2 border-b border-hair py-[7px] items-center">
      <span className="text-ink2 truncate">{label}</span>
      <div className="min-w-0">{children}</div>
    </div>
  );
}

function AddAddress({ record }: { record: RecordView }) {
  const queryClient = useQueryClient();
  const draft = useTyped(`address:${record.id}`, '');
  const text = draft.value;
  const add = useMutation({
    mutationFn: (typed: string) =>
      call('POST', `supporters/${record.id}/contact-points`, { kind: typed.includes('@') ? 'email' : 'mobile', text: typed }),
    onSuccess: (_none, typed) => (draft.saved(typed), void refreshAll(queryClient)),
  });
  return (
    <form className="pt-2" onSubmit={(event) => (event.preventDefault(), add.mutate(text))}>
      <div className="flex gap-2">
        <input
          className="input"
          aria-label="Another email or mobile"
          placeholder="Another email or mobile"
          value={text}
          onChange={(event) => draft.set(event.target.value)}
        />
        <Button type="submit" disabled={text.trim() === '' || add.isPending}>
          Add
        </Button>
      </div>
      {add.error && (
        <p role="alert" className="text-madder pt-1">
          {add.error.message}
        </p>
      )}
    </form>
  );
}

type Act = { method: 'POST' | 'DELETE'; path: string };

/** What can be done with one address; shown where the mouse or the focus is. */
function AddressActs({ record, point, act }: { record: RecordView; point: RecordView['contactPoints'][number]; act: (act: Act) => void }) {
  const first = record.contactPoints.find((one) => one.kind === point.kind) === point;
  return (
    <span className="text-[12.5px] flex gap-3 shrink-0 whitespace-nowrap max-w-0 overflow-hidden group-hover:max-w-none focus-within:max-w-none">
      {!first && (
        <button
          className="link text-ink2"
          aria-label={`Write to ${point.shown} first`}
          onClick={() => act({ method: 'POST', path: `${point.id}/first` })}
        >
          Put first
        </button>
      )}
      <button className="link text-ink2" aria-label={`Take ${point.shown} off`} onClick={() => act({ method: 'DELETE', path: String(point.id) })}>
        Take off
      </button>
    </span>
  );
}

function Addresses({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [adding, setAdding] = useState(false);
  const act = useMutation({
    mutationFn: ({ method, path }: Act) => call(method, `supporters/${record.id}/contact-points/${path}`),
    onSuccess: () => refreshAll(queryClient),
  });
  const words = { email: 'Email', mobile: 'Mobile', post: 'Post' } as const;
  return (
    <Section
      title="Reach them at"
      side={
        may && (
          <button className="link text-[12.5px] text-ink2" onClick={() => setAdding(!adding)}>
            Add
          </button>
        )
      }
    >
      {record.contactPoints.map((point) => (
        <Row key={point.id} label={words[point.kind]}>
          <div className="flex gap-3 items-baseline group">
            <p className={`truncate grow ${point.onHold ? 'text-madder' : ''}`}>{point.shown}</p>
            {may && <AddressActs record={record} point={point} act={act.mutate} />}
          </div>
          {point.onHold && (
            <p className="text-[12.5px] text-ink2">
              On hold: {point.holdReason}.{' '}
              {may && (
                <button className="link" onClick={() => act.mutate({ method: 'POST', path: `${point.id}/release` })}>
                  It is good again
                </button>
              )}
            </p>
          )}
          {point.sharedWith.map((other) => (
            <p key={other.id} className="text-[12.5px] text-ink2">
              Shared with{' '}
              <Link className="link" to={`/sort/supporters/${other.id}`}>
                {other.name || 'someone without a name'}
              </Link>
            </p>
          ))}
        </Row>
      ))}
      <Row label="Place">
        <PlaceRow record={record} />
      </Row>
      {act.error && (
        <p role="alert" className="text-madder py-1">
          {act.error.message}
        </p>
      )}
      {record.contactPoints.length === 0 && <p className="text-ink2 py-2">No address on file.</p>}
      {adding && <AddAddress record={record} />}
    </Section>
  );
}

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
    ? `Gifts are kept in ${organization.currency}, not in ${foreign}.`
    : minor > 0
      ? format.money(minor)
      : amount.trim() !== '' && 'An amount such as 25 or 1,250.50';
  const add = useMutation({
    mutationFn: () => call('POST', `supporters/${record.id}/gifts`, { amount: minor, on, note: '' }),
    onSuccess: () => (draft.discard(), void refreshAll(queryClient), onDone()),
  });
  return (
    <form className="py-2 flex flex-col gap-2" onSubmit={(event) => (event.preventDefault(), add.mutate())}>
      <div className="grid grid-cols-2 gap-2">
        <Labelled label="Amount" {...(hint ? { hint } : {})}>
          <input className="input" inputMode="decimal" autoFocus value={amount} onChange={(event) => draft.set({ amount: event.target.value, on })} />
        </Labelled>
        <Labelled label="On">
          <DayField value={on} onChange={(day) => draft.set({ amount, on: day })} />
        </Labelled>
      </div>
      <Problem error={add.error} />
      <Button type="submit" weight="main" className="self-start" disabled={!(minor > 0) || add.isPending}>
        Enter the gift
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
    <Section
      title="Giving"
      side={
        may && (
          <button className="link text-[12.5px] text-ink2" onClick={() => setAdding(!adding)}>
            Enter a gift
          </button>
        )
      }
    >
      {adding && <AddGift record={record} onDone={() => setAdding(false)} />}
      {last ? (
        <>
          <Row label="Last gift">
            {format.money(last.amount)} on {format.day(last.on)}
          </Row>
          <Row label="Largest">{format.money(largest)}</Row>
          <Row label="In all">
            {format.money(record.gifts.reduce((sum, gift) => sum + gift.amount, 0))}, {record.gifts.length}{' '}
            {record.gifts.length === 1 ? 'gift' : 'gifts'}
          </Row>
        </>
      ) : (
        <p className="text-ink2 py-2">No gift on file.</p>
      )}
    </Section>
  );
}

/** Addresses, fields in their sections, and giving; everything editable where it stands. */
export function Reach({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const [making, setMaking] = useState(false);
  const sections = [...new Set(record.fields.map((field) => field.section))];
  return (
    <div className="sheet p-4 overflow-y-auto min-h-0" tabIndex={0} role="region" aria-label="What is known">
      <Addresses record={record} />
      {sections.map((section) => (
        <Section key={section} title={section}>
          {record.fields
            .filter((field) => field.section === section)
            .map((field) => (
              <Row key={field.id} label={field.name}>
                <FieldValueRow record={record} field={field} />
              </Row>
            ))}
        </Section>
      ))}
      {may && (
        <p className="pb-4">
          <button className="link text-[12.5px] text-ink2" onClick={() => setMaking(true)}>
            Make a field
          </button>
        </p>
      )}
      <Giving record={record} />
      <Drawer open={making} onClose={() => setMaking(false)} title="Make a field" note="For everybody’s record">
        <NewFieldSheet onDone={() => setMaking(false)} />
      </Drawer>
    </div>
  );
}
