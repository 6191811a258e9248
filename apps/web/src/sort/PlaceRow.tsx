import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RecordView } from '@goodword/core/contract';
import { placeWords } from '@goodword/core/permission';
import { call } from '../app/api';
import { refreshAll } from '../app/refresh';
import { useMay } from '../app/session';
import { Button } from '../ui/basics';

/** Where the person is, which decides whose rules hold for them. */
export function PlaceRow({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const { country, region, rulesOf } = record.place;
  const [editing, setEditing] = useState(false);
  const [text, setText] = useState('');
  const save = useMutation({
    mutationFn: () => {
      const [land = '', part = ''] = text.trim().toUpperCase().split('-');
      return call('PUT', `supporters/${record.id}/place`, { country: land || null, region: part || null });
    },
    onSuccess: () => (setEditing(false), void refreshAll(queryClient)),
  });
  if (editing)
    return (
      <form onSubmit={(event) => (event.preventDefault(), save.mutate())}>
        <div className="flex gap-2">
          <input
            className="input"
            autoFocus
            aria-label="Country and region"
            placeholder="US, or US-WA"
            maxLength={6}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <Button type="submit" disabled={save.isPending}>
            Keep
          </Button>
        </div>
        {save.error && (
          <p role="alert" className="text-madder text-[12.5px] pt-1">
            Expected two letters for the country, such as CA, and for a region its letters after a dash, such as CA-QC.
          </p>
        )}
      </form>
    );
  const words = country ? placeWords(region ? `${country}-${region}` : country) : 'not known';
  return (
    <p>
      {may ? (
        <button className="link font-normal" onClick={() => (setText([country, region].filter(Boolean).join('-')), setEditing(true))}>
          {words}
        </button>
      ) : (
        words
      )}
      <span className="text-ink2">; rules of {rulesOf}</span>
    </p>
  );
}
