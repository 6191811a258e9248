import { useQuery } from '@tanstack/react-query';
import { reading } from '../../app/reading';

/** Regions of a country (ISO 3166-2); none while no country is chosen. */
export function useRegions(country: string): readonly { code: string; name: string }[] {
  const { data = [] } = useQuery({
    ...reading('regions', { country }),
    enabled: country !== '',
    staleTime: Infinity,
  });
  return data;
}
