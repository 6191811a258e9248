import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ContactPointView, RecordView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { AddressForm } from './AddressForm';
import { RecordRow, RecordSection } from './parts';
import { PlaceRow } from './PlaceRow';

const kindOf = ({ kind, line }: ContactPointView) =>
  kind === 'email' ? t`Email` : kind === 'post' ? t`Post` : line === 'landline' ? t`Landline` : t`Mobile`;

type Act = (at: { id: number; pointId: number }) => Promise<void>;
const PUT_FIRST: Act = (at) => api.post('supporters/{id}/contact-points/{pointId}/first', at);
const REMOVE: Act = (at) => api.delete('supporters/{id}/contact-points/{pointId}', at);
const RELEASE: Act = (at) => api.post('supporters/{id}/contact-points/{pointId}/release', at);

/** What can be done with one address; shown where the mouse or the focus is. */
function AddressActs({
  first,
  point,
  act,
  onChange,
}: {
  first: boolean;
  point: ContactPointView;
  act: (act: Act) => void;
  onChange: () => void;
}) {
  return (
    <span className="text-[12.5px] flex gap-3 shrink-0 whitespace-nowrap max-w-0 overflow-hidden group-hover:max-w-none focus-within:max-w-none">
      {!first && (
        <button
          className="link text-ink2"
          aria-label={t`Write to ${point.shown} first`}
          onClick={() => act(PUT_FIRST)}
        >
          {t`Put first`}
        </button>
      )}
      <button className="link text-ink2" aria-label={t`Change ${point.shown}`} onClick={onChange}>
        {t`Change`}
      </button>
      <button className="link text-ink2" aria-label={t`Remove ${point.shown}`} onClick={() => act(REMOVE)}>
        {t`Remove`}
      </button>
    </span>
  );
}

/** Where the person is reached, each address with what can be done about it. */
export function Addresses({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [adding, setAdding] = useState(false);
  const [changing, setChanging] = useState<number | null>(null);
  const act = useMutation({
    mutationFn: ({ act, pointId }: { act: Act; pointId: number }) => act({ id: record.id, pointId }),
    onSuccess: () => refresh(queryClient, 'supporters'),
  });
  return (
    <RecordSection
      title={t`Reach them at`}
      side={
        may && (
          <button className="link text-[12.5px] text-ink2" onClick={() => setAdding(!adding)}>
            {t`Add`}
          </button>
        )
      }
    >
      {record.contactPoints.map((point) => (
        <RecordRow key={point.id} label={kindOf(point)}>
          {changing === point.id ? (
            <AddressForm record={record} point={point} onDone={() => setChanging(null)} />
          ) : (
            <div className="flex gap-3 items-baseline group">
              <p
                className={`grow ${point.kind === 'post' ? 'break-words' : 'truncate'} ${point.onHold ? 'text-madder' : ''}`}
                title={point.shown}
              >
                {point.shown}
              </p>
              {may && (
                <AddressActs
                  first={record.contactPoints.find((one) => one.kind === point.kind) === point}
                  point={point}
                  act={(one) => act.mutate({ act: one, pointId: point.id })}
                  onChange={() => setChanging(point.id)}
                />
              )}
            </div>
          )}
          {point.onHold && (
            <p className="text-[12.5px] text-ink2">
              <Trans>On hold: {point.holdReason}.</Trans>{' '}
              {may && (
                <button className="link" onClick={() => act.mutate({ act: RELEASE, pointId: point.id })}>
                  {t`It is good again`}
                </button>
              )}
            </p>
          )}
          {point.sharedWith.map((other) => (
            <p key={other.id} className="text-[12.5px] text-ink2">
              <Trans>
                Shared with{' '}
                <Link className="link" to={`/sort/supporters/${other.id}`}>
                  {other.name || t`someone without a name`}
                </Link>
              </Trans>
            </p>
          ))}
        </RecordRow>
      ))}
      <RecordRow label={t`Place`}>
        <PlaceRow record={record} />
      </RecordRow>
      {act.error && (
        <p role="alert" className="text-madder py-1">
          {act.error.message}
        </p>
      )}
      {record.contactPoints.length === 0 && <p className="text-ink2 py-2">{t`No address on file.`}</p>}
      {adding && <AddressForm record={record} onDone={() => setAdding(false)} />}
    </RecordSection>
  );
}
