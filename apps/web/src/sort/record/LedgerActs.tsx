import type { ObjectionBody } from '@goodword/core/contract';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RecordView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { localDay } from '../../app/day';
import { DayField } from '../../ui/DayField';

/**
 * What can be done with one person's permission: record, object, show it to anyone, let them choose for
 * themselves.
 */
export function LedgerActs({ record, onRecord }: { record: RecordView; onRecord: () => void }) {
  const may = useMay('organizer');
  const [objecting, setObjecting] = useState(false);
  const link = useMutation({
    mutationFn: () => api.post('supporters/{id}/choices-link', { id: record.id }),
  });
  return (
    <div className="flex flex-col gap-2 pb-3 items-start">
      {may && record.contactPoints.length > 0 && (
        <>
          <button className="link" onClick={onRecord}>
            {t`Record what they said`}
          </button>
          <button className="link" onClick={() => setObjecting(true)}>
            {t`They object to all marketing`}
          </button>
        </>
      )}
      <p>
        <Trans>
          All of it to{' '}
          <a
            className="link"
            href={`/api/supporters/${record.id}/permission.html`}
            target="_blank"
            rel="noreferrer"
          >
            read and print
          </a>
          , as{' '}
          <a className="link" href={`/api/supporters/${record.id}/permission.pdf`}>
            PDF
          </a>{' '}
          or{' '}
          <a className="link" href={`/api/supporters/${record.id}/permission.json`}>
            JSON
          </a>
        </Trans>
      </p>
      {may &&
        (link.data ? (
          <p role="status">
            <Trans>
              A link to their preference page is on its way to {link.data.to}. Nobody but them sees it.
            </Trans>
          </p>
        ) : (
          <button className="link" onClick={() => link.mutate()} disabled={link.isPending}>
            {t`Send them a link to their preference page`}
          </button>
        ))}
      <ProblemNote error={link.error} />
      <Drawer
        open={objecting}
        onClose={() => setObjecting(false)}
        title={t`They object to all marketing`}
        note={t`One act: every channel, every address. Receipts still go.`}
      >
        <Objection record={record} onDone={() => setObjecting(false)} />
      </Drawer>
    </div>
  );
}

function Objection({ record, onDone }: { record: RecordView; onDone: () => void }) {
  const queryClient = useQueryClient();
  const [values, setValues] = useState<ObjectionBody>({ how: 'phone', on: localDay(), words: '' });
  const save = useMutation({
    mutationFn: () => api.post('supporters/{id}/objection', { id: record.id, body: values }),
    onSuccess: () => (void refresh(queryClient, 'supporters'), onDone()),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), save.mutate())}
    >
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`How`}>
          <select
            className="input"
            value={values.how}
            onChange={(event) => setValues({ ...values, how: event.target.value as ObjectionBody['how'] })}
          >
            <option value="phone">{t`by phone`}</option>
            <option value="paper">{t`by letter`}</option>
            <option value="in-person">{t`in person`}</option>
            <option value="reply">{t`by a reply`}</option>
          </select>
        </Labelled>
        <Labelled label={t`On`}>
          <DayField
            required
            max={localDay()}
            value={values.on}
            onChange={(on) => setValues({ ...values, on })}
          />
        </Labelled>
      </div>
      <Labelled label={t`In what words`}>
        <textarea
          className="input min-h-[70px]"
          required
          minLength={3}
          value={values.words}
          onChange={(event) => setValues({ ...values, words: event.target.value })}
        />
      </Labelled>
      <ProblemNote error={save.error} />
      <Button type="submit" weight="grave" className="self-start" disabled={save.isPending}>
        {t`Close every channel to marketing`}
      </Button>
    </form>
  );
}
