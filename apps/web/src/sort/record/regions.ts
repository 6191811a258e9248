import { useQuery } from '@tanstack/react-query';
import { get, query } from '../../app/api';

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
