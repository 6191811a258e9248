import type { Rule } from '@goodword/core/segment';
import { BulkJobs } from '@goodword/server/bulk/bulk.jobs';
import { BulkService } from '@goodword/server/bulk/bulk.service';
import { seconds, type BenchHouse } from './house';

export interface BulkFigures {
  people: number;
  /**
   * Seconds from asking for it to its end: the group frozen, marked, tagged, told to whoever keeps columns.
   */
  ours: number;
  /** Seconds of one INSERT … SELECT of the same people into a tag of the same table. */
  yardstick: number;
  undo: number;
}

/**
 * A tag put on so many people as an act on a group, beside one statement that puts another on the same. The
 * house has people of ids from 1 on.
 */
export async function benchBulk(house: BenchHouse, people: number): Promise<BulkFigures> {
  const { context, database, scope } = house;
  const [service, jobs] = [context.get(BulkService), context.get(BulkJobs)];
  const db = database.read(scope);
  const make = (what: 'tag' | 'list', name: string) =>
    database.write(scope, (tx) => (tx.unchanged(), tx.insert(what, { name })));
  const [ours, plain] = [await make('tag', 'Ours'), await make('tag', 'Plain')];
  const list = await make('list', 'Everybody meant');
  await database.write(scope, async (tx) => {
    tx.changed('list', list, 'everybody');
    await tx.execute(
      `INSERT INTO supporter_list (organization_id, supporter_id, list_id)
        SELECT :org, id, :list
        FROM supporter
        WHERE organization_id = :org AND id <= :people`,
      { list, people },
    );
  });
  const tree: Rule = { kind: 'list', listId: list, on: true };
  const running = (refId: number) => ({
    scope,
    refId,
    stopped: () => Promise.resolve(false),
    progress: () => Promise.resolve(),
  });
  // The group's column is read before: counting is measured apart.
  const first = await service.begin(scope, { tree, without: [] }, { do: 'list', listId: list, on: true });
  await jobs.act(running(first.id));
  let id = 0;
  const took = await seconds(async () => {
    ({ id } = await service.begin(scope, { tree, without: [] }, { do: 'tag', tagId: ours, on: true }));
    await jobs.act(running(id));
  });
  const yardstick = await seconds(() =>
    database.write(scope, async (tx) => {
      tx.changed('tag', plain, 'everybody');
      await tx.execute(
        `INSERT INTO supporter_tag (organization_id, supporter_id, tag_id)
          SELECT :org, id, :plain
          FROM supporter
          WHERE organization_id = :org AND id <= :people`,
        { plain, people },
      );
    }),
  );
  const [count] = await db.sql<{ n: number }>(
    'SELECT COUNT(*) AS n FROM supporter_tag WHERE organization_id = :org AND tag_id = :ours',
    { ours },
  );
  if (count!.n !== people) throw new Error(`expected ${people} people tagged, got ${count!.n}`);
  const undo = await seconds(async () => {
    await service.undo(scope, id);
    await jobs.undo(running(id));
  });
  return { people, ours: took, yardstick, undo };
}
