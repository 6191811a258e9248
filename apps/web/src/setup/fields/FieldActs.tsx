import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { FieldAdminView } from '@goodword/core/contract';
import { type FieldType } from '@goodword/core/fields';
import { FIELD_TYPE_WORDS } from '@goodword/core/words';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { Confirm } from '../../ui/dialogs';
import { reading } from '../../app/reading';
import { useSaved, Options } from './saving';

/** Changing the type: what would convert and what would not, before anything is done. */
export function TypePart({ field, onDone }: { field: FieldAdminView; onDone: () => void }) {
  const format = useFormat();
  const [type, setType] = useState<FieldType | ''>('');
  const { data } = useQuery({
    ...reading('house/fields/{id}/conversion', { id: field.id, type: type || field.type }),
    enabled: type !== '',
    staleTime: 0,
  });
  const change = useSaved(
    () => api.put('house/fields/{id}/type', { id: field.id, body: { type: type || field.type } }),
    onDone,
  );
  return (
    <div className="sheet p-5 flex flex-col gap-3">
      <Labelled label={t`Make it something other than ${FIELD_TYPE_WORDS[field.type]}`}>
        <select className="input" value={type} onChange={(event) => setType(event.target.value as FieldType)}>
          <option value="">{t`Leave it as it is`}</option>
          <Options type={field.type} />
        </select>
      </Labelled>
      {data && type !== '' && (
        <>
          <p className="text-ink2">
            {data.wont === 0
              ? t`All ${format.number(data.values)} ${plural(data.values, { one: 'value', other: 'values' })} convert.`
              : t`${format.number(data.wont)} of ${format.number(data.values)} values would not convert, so it can’t be done yet. Mend these first:`}
          </p>
          {data.examples.map((one) => (
            <p key={one.supporterId} className="text-[13px]">
              <a className="link" href={`/sort/supporters/${one.supporterId}`}>
                {one.name || t`No name on file`}
              </a>
              : {one.reason}
            </p>
          ))}
          {data.preview.map((one, i) => (
            <p key={i} className="text-[13px] text-ink2">
              {one.from} → {one.to}
            </p>
          ))}
          <ProblemNote error={change.error} />
          <Button
            className="self-start"
            disabled={data.wont > 0 || change.isPending}
            onClick={() => change.mutate(undefined)}
          >
            <Trans>Make it {FIELD_TYPE_WORDS[type]}</Trans>
          </Button>
        </>
      )}
    </div>
  );
}

export function Deleting({ field, onDone }: { field: FieldAdminView; onDone: () => void }) {
  const format = useFormat();
  const [asking, setAsking] = useState(false);
  const { data } = useQuery({
    ...reading('house/fields/{id}/deletion', { id: field.id }),
    enabled: asking,
    staleTime: 0,
  });
  const queryClient = useQueryClient();
  return (
    <>
      <Button className="self-start" onClick={() => setAsking(true)}>
        {t`Delete the field…`}
      </Button>
      {data && (
        <Confirm
          open={asking}
          onClose={() => setAsking(false)}
          title={t`Delete ${field.name}?`}
          act={data.blocked ? null : t`Delete ${field.name}`}
          body={
            <p>
              {data.blocked ??
                t`${format.number(data.values)} ${plural(data.values, { one: 'value goes', other: 'values go' })} with it, for good. Nobody is deleted.`}
            </p>
          }
          onAct={async () => (
            await api.delete('house/fields/{id}', { id: field.id }),
            void refresh(queryClient, 'fields', 'house'),
            onDone()
          )}
        />
      )}
    </>
  );
}
