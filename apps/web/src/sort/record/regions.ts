import { useQuery } from '@tanstack/react-query';
import { countryCodes, countryName } from '@goodword/core/fields';
import { get, query } from '../../app/api';

/** All countries by name, in the reader's order. */
export function countryChoices(): [code: string, name: string][] {
  return countryCodes()
    .map((code): [string, string] => [code, countryName(code, 'en')])
    .sort((a, b) => a[1].localeCompare(b[1]));
}

/** Regions of a country (ISO 3166-2); none while no country is chosen. */
export function useRegions(country: string): readonly { code: string; name: string }[] {
  const { data = [] } = useQuery({
    queryKey: ['regions', country],
    queryFn: () => get<{ code: string; name: string }[]>(`regions${query({ country })}`),
    enabled: country !== '',
    staleTime: Infinity,
  });
  return data;
}
