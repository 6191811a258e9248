import { useQuery } from '@tanstack/react-query';
import type { FieldView, LayoutView } from '@goodword/core/contract';
import { get } from '../app/api';
import { useSession } from '../app/session';

/** What the page needs to know of the organization to read a file; null while it is asked for. */
export function useHouse() {
  const { organization } = useSession();
  const fields = useQuery({ queryKey: ['fields'], queryFn: () => get<FieldView[]>('fields') });
  const layouts = useQuery({ queryKey: ['layouts'], queryFn: () => get<LayoutView[]>('layouts') });
  if (!fields.data || !layouts.data) return null;
  return { fields: fields.data, layouts: layouts.data, country: organization.country };
}
export type House = NonNullable<ReturnType<typeof useHouse>>;
