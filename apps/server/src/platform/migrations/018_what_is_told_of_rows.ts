import type { Knex } from 'knex';

/** JSON of a batch in which rows, columns, lines and sheets of its file are counted. */
const COUNTED = ['plan', 'draft', 'reading', 'found'] as const;
type Counting = Record<string, unknown> & { mends?: Record<string, unknown>[] };

/**
 * By what a row of a file met somebody who is here, to be told of it; and what an act on many people has to
 * say of those whom it left out, such as who is not on a sheet of labels, and why. What is counted of a file
 * is counted from 1 everywhere.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE batch_row ADD met_by VARCHAR(20) NULL');
  await knex.raw("ALTER TABLE bulk ADD told VARCHAR(500) NOT NULL DEFAULT ''");
  await countFrom(knex, 1);
}

export async function down(knex: Knex): Promise<void> {
  await countFrom(knex, -1);
  await knex.raw('ALTER TABLE bulk DROP COLUMN told');
  await knex.raw('ALTER TABLE batch_row DROP COLUMN met_by');
}

async function countFrom(knex: Knex, by: 1 | -1): Promise<void> {
  const batches = (await knex('batch').select('id', ...COUNTED)) as ({ id: number } & Record<
    (typeof COUNTED)[number],
    unknown
  >)[];
  for (const { id, ...batch } of batches) {
    const moved = COUNTED.flatMap((column) => {
      const value = (
        typeof batch[column] === 'string' ? JSON.parse(batch[column]) : batch[column]
      ) as Counting | null;
      if (value === null) return [];
      const plan = column === 'draft' ? (value.plan as Counting | undefined) : value;
      if (plan) moveAll(plan, by);
      return [[column, JSON.stringify(value)] as const];
    });
    if (moved.length > 0) await knex('batch').where({ id }).update(Object.fromEntries(moved));
  }
}

function moveAll(plan: Counting, by: 1 | -1): void {
  const move = (at: Record<string, unknown> | undefined, ...keys: string[]) => {
    for (const key of keys) if (typeof at?.[key] === 'number') at[key] += by;
  };
  move(plan, 'headerLine', 'sheet');
  move(plan.reading as Counting | undefined, 'headerLine', 'sheet');
  const workbook = plan.workbook as { hiddenColumns?: number[] } | undefined;
  move(workbook as Counting | undefined, 'sheet');
  if (workbook?.hiddenColumns) workbook.hiddenColumns = workbook.hiddenColumns.map((column) => column + by);
  for (const mend of plan.mends ?? []) move(mend, 'row', 'column', 'a', 'b');
}
