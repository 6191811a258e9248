import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RecordView } from '@goodword/core/contract';
import { placeWords } from '@goodword/core/words';
import { ProblemError, api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Button } from '../../ui/basics';
import { countryChoices } from '../../app/choices';
import { useRegions } from './regions';

/** A country, and one of its regions where it has any. */
function PlaceEditor({ record, onDone }: { record: RecordView; onDone: () => void }) {
  const queryClient = useQueryClient();
  const [country, setCountry] = useState(record.place.country ?? '');
  const [region, setRegion] = useState(record.place.region ?? '');
  // As it stood when the change was begun, until somebody was quicker and that was told.
  const [begun] = useState(record.place);
  const regions = useRegions(country);
  const save = useMutation({
    mutationFn: ({ country: wasCountry, region: wasRegion }: RecordView['place']) =>
      api.put('supporters/{id}/place', {
        id: record.id,
        body: {
          country: country || null,
          region: region || null,
          was: { country: wasCountry, region: wasRegion },
        },
      }),
    onSuccess: () => (onDone(), void refresh(queryClient, 'supporters')),
    // Somebody was quicker: what stands there now is told, and pressing once more puts this in its place.
    onError: () => refresh(queryClient, 'supporters'),
  });
  const told = save.error instanceof ProblemError && save.error.problem.newer === true;
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => (event.preventDefault(), save.mutate(told ? record.place : begun))}
      onKeyDown={(event) => event.key === 'Escape' && onDone()}
    >
      <select
        className="input"
        autoFocus
        aria-label={t`Country`}
        value={country}
        onChange={(event) => (setCountry(event.target.value), setRegion(''))}
      >
        <option value="">{t`Country not known`}</option>
        {countryChoices().map(([code, name]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </select>
      {regions.length > 0 && (
        <select
          className="input"
          aria-label={t`Region`}
          value={region}
          onChange={(event) => setRegion(event.target.value)}
        >
          <option value="">{t`Region not known`}</option>
          {regions.map(({ code, name }) => (
            <option key={code} value={code.slice(3)}>
              {name}
            </option>
          ))}
        </select>
      )}
      <div className="flex gap-3 items-center">
        <Button type="submit" disabled={save.isPending}>
          {t`Save`}
        </Button>
        <button type="button" className="link text-ink2" onClick={onDone}>
          {t`Leave it as it was`}
        </button>
      </div>
      {save.error && (
        <p role="alert" className="text-madder text-[12.5px]">
          {save.error.message}
        </p>
      )}
    </form>
  );
}

/** Where the person is, which decides whose rules hold for them. */
export function PlaceRow({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const { country, region, rulesOf } = record.place;
  const [editing, setEditing] = useState(false);
  if (editing) return <PlaceEditor record={record} onDone={() => setEditing(false)} />;
  const words = country ? placeWords(region ? `${country}-${region}` : country) : t`not known`;
  return (
    <p>
      {may ? (
        <button
          className="link font-normal"
          aria-label={t`Place: ${words}. Edit`}
          onClick={() => setEditing(true)}
        >
          {words}
        </button>
      ) : (
        words
      )}
      <span className="text-ink2">
        <Trans>; rules of {rulesOf}</Trans>
      </span>
    </p>
  );
}
