import { useQuery } from '@tanstack/react-query';
import { dayInZone } from '@goodword/core/common';
import { useSession } from '../app/session';
import { reading } from '../app/reading';

/**
 * What the page needs to know of the organization to read a file; null while it is asked for, or where
 * `error` says why not.
 */
export function useHouse() {
  const { organization } = useSession();
  const fields = useQuery(reading('fields'));
  const layouts = useQuery(reading('layouts'));
  const error = fields.error ?? layouts.error;
  if (!fields.data || !layouts.data) return { house: null, error };
  const { country, currency, timeZone } = organization;
  return {
    house: {
      fields: fields.data,
      layouts: layouts.data,
      country,
      currency,
      today: dayInZone(Date.now(), timeZone),
    },
    error,
  };
}
export type HouseVocabulary = NonNullable<ReturnType<typeof useHouse>['house']>;
