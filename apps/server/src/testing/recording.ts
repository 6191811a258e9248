import type { FieldView, Page, RecordView, SupporterRow, TimelineItem } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import type { Client, TestHouse } from './harness';

/** What tests of records ask for again and again, in one house. */
export function recording(house: () => TestHouse) {
  const timeline = (id: number, kinds = '', client: Client = house().client) =>
    client.get<TimelineItem[]>(`/api/supporters/${id}/timeline${kinds && `?kinds=${kinds}`}`);
  return {
    timeline,
    idOf: async (search: string) =>
      (await house().client.get<Page<SupporterRow>>(`/api/supporters?search=${encodeURIComponent(search)}`))
        .rows[0]!.id,
    record: (id: number) => house().client.get<RecordView>(`/api/supporters/${id}`),
    lastEdit: async (id: number) => (await timeline(id, 'edit'))[0]!,
    undo: (id: number, auditId: number | null) =>
      house().client.call<{ detail: string }>('POST', `/api/supporters/${id}/history/${auditId}/undo`),
    countOf: async (tree: Rule) =>
      (await house().client.post<{ total: number }>('/api/segments/count', { tree, reach: false })).total,
    /** The field of a name, made where there is none yet. */
    field: async (name: string, type = 'text') =>
      (await house().client.get<FieldView[]>('/api/fields')).find((one) => one.name === name)?.id ??
      (await house().client.post<{ id: number }>('/api/fields', { name, type, fallback: null })).id,
  };
}
