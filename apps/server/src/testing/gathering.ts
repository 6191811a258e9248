import type { BatchRowView, BatchView, Page, RecordView, SupporterRow } from '@goodword/core/contract';
import type { IntakePlan } from '@goodword/core/intake';
import type { TestHouse } from './harness';
import { batchAt, NOTHING, planFor, takeFile } from './steps';

/** The header line of the files that tests make. */
export const HEAD = 'Email,First,Last,Mobile\n';
export const noPermission = { email: NOTHING, text: NOTHING };

/** What tests of bringing in ask for again and again, in one house. */
export function gathering(house: () => TestHouse) {
  const find = async (search: string) =>
    (await house().client.get<Page<SupporterRow>>(`/api/supporters?search=${encodeURIComponent(search)}`))
      .rows;
  return {
    find,
    record: async (search: string) =>
      house().client.get<RecordView>(`/api/supporters/${(await find(search))[0]!.id}`),
    rowsOf: (id: number, query = '') =>
      house().client.get<Page<BatchRowView>>(`/api/batches/${id}/rows${query}`),
    checked: async (csv: string, plan: Partial<IntakePlan> = {}): Promise<BatchView> => {
      const id = await takeFile(house().client, csv);
      await house().client.put(`/api/batches/${id}/plan`, planFor(plan));
      return batchAt(house().client, id, 'checked');
    },
    allIn: async (id: number) => {
      await house().client.post(`/api/batches/${id}/bring-in`);
      return batchAt(house().client, id, 'done');
    },
  };
}
