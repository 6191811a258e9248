import { BulkService } from '@goodword/server/bulk/bulk.service';
import { createWorker } from '@goodword/server/create-worker';
import { IntakeService } from '@goodword/server/intake/intake.service';
import { FoldingRepository } from '@goodword/server/permission/ledger/folding.repository';
import { LedgerRepository } from '@goodword/server/permission/ledger/ledger.repository';
import { PersonalService } from '@goodword/server/sending/personal.service';
import { broughtIn } from './gather';
import { openBenchHouse, seconds, type BenchHouse } from './house';
import { startSink } from './sending';

const ROWS = 200_000;
const PEOPLE = 1_000_000;
const ASKED_ALONE = 5;
const MOST_ASKED = 60;
const PAUSE_MS = 1500;

export interface AnswerFigures {
  /**
   * Seconds from the press to the mail handed over: with nothing else to do, and while both kinds of work
   * were under way.
   */
  alone: number[];
  beside: number[];
  /** Seconds that the work took meanwhile. */
  takingOut: number;
  tagging: number;
}

/**
 * Words to one person after the other, each to somebody else, while 200,000 people of a batch are taken out
 * and a million are tagged: how long each takes until the mail server has it.
 */
export async function benchAnswers(server: string): Promise<AnswerFigures> {
  const sink = await startSink();
  const house = await openBenchHouse(server, 'bench_answers', sink.url);
  const batchId = await broughtIn(house, ROWS);
  const people = await more(house);
  const worker = createWorker(house.context, house.config);
  const running = worker.run();
  try {
    const next = people.values();
    const answer = () => seconds(() => handOver(house, next.next().value!));
    const alone: number[] = [];
    for (let i = 0; i < ASKED_ALONE; i++) alone.push(await answer());
    const { scope, context } = house;
    const tag = await house.database.write(
      scope,
      (tx) => (tx.unchanged(), tx.insert('tag', { name: 'Everybody' })),
    );
    await context.get(IntakeService).takeOut(scope, batchId);
    await context
      .get(BulkService)
      .begin(scope, { tree: { kind: 'all', rules: [] }, without: [] }, { do: 'tag', tagId: tag, on: true });
    const beside: number[] = [];
    while (beside.length < MOST_ASKED && (await underWay(house)) > 0) {
      beside.push(await answer());
      await pause(PAUSE_MS);
    }
    while ((await underWay(house)) > 0) await pause(500);
    await noneOrphaned(house);
    return {
      alone,
      beside,
      takingOut: await took(house, 'batch-take-out'),
      tagging: await took(house, 'bulk-act'),
    };
  } finally {
    await worker.stop();
    await running;
    await house.context.close();
    sink.process.kill();
  }
}

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** People beside those of the batch, up to a million; some of them said yes to news, and are returned. */
async function more(house: BenchHouse): Promise<number[]> {
  const { database, scope, chapterId } = house;
  const asked = ASKED_ALONE + MOST_ASKED;
  return database.write(scope, async (tx) => {
    await tx.execute(
      `INSERT INTO supporter (organization_id, chapter_id, first_name, last_name)
        SELECT :org, :chapter_, CONCAT('Bystander', seq), CONCAT('Lin', seq % 5000)
        FROM seq_1_to_${PEOPLE - ROWS}`,
      { chapter_: chapterId },
    );
    const rows = await tx.sql<{ id: number }>(
      "SELECT id FROM supporter WHERE organization_id = :org AND first_name LIKE 'Bystander%' LIMIT :asked",
      {
        asked,
      },
    );
    const ids = rows.map(({ id }) => id);
    const yes = {
      channel: 'email',
      scope: 'news',
      state: 'yes',
      saidAt: new Date('2026-01-15'),
      byPerson: false,
      how: 'paper',
    } as const;
    for (const id of ids) {
      const point = await tx.insert('contact_point', {
        kind: 'email',
        normal: `bystander${id}@example.org`,
        shown: `bystander${id}@example.org`,
      });
      await tx.insert('supporter_contact', { supporter_id: id, contact_point_id: point, kind: 'email' });
      await new LedgerRepository(new FoldingRepository()).recordAll(tx, [
        { ...yes, contactPointId: point, supporterId: id },
      ]);
    }
    tx.changed('all', 0, 'everybody');
    return ids;
  });
}

async function handOver(house: BenchHouse, personId: number): Promise<void> {
  const letter = {
    type: 'doc',
    content: [
      {
        type: 'paragraph',
        content: [{ type: 'text', text: 'Thank you, {First name}. We will be there at six.' }],
      },
    ],
  };
  const message = { channel: 'email', purpose: 'news', subject: 'About Thursday', letter, text: '' } as const;
  const { id } = await house.context.get(PersonalService).send(house.scope, personId, message as never);
  for (;;) {
    const [row] = await house.database
      .read(house.scope)
      .sql<{ state: string }>(
        'SELECT state FROM delivery WHERE organization_id = :org AND message_id = :id',
        { id },
      );
    if (row?.state === 'sent') return;
    if (row && ['suppressed', 'door', 'failed', 'unsure'].includes(row.state))
      throw new Error(`expected a mail that is sent, got ${row.state}`);
    await pause(20);
  }
}

async function underWay(house: BenchHouse): Promise<number> {
  const [row] = await house.database.read(house.scope).sql<{ n: number }>(
    `SELECT COUNT(*) AS n
        FROM job
        WHERE organization_id = :org AND kind IN ('batch-take-out', 'bulk-act')
          AND state IN ('waiting', 'running')`,
  );
  return row!.n;
}

/** Nothing hangs on whoever was taken out while everybody was tagged. */
async function noneOrphaned(house: BenchHouse): Promise<void> {
  const [row] = await house.database.read(house.scope).sql<{ n: number }>(
    `SELECT COUNT(*) AS n
        FROM supporter_tag t
        LEFT JOIN supporter s ON s.id = t.supporter_id
        WHERE t.organization_id = :org AND s.id IS NULL`,
  );
  if (row!.n > 0) throw new Error(`expected no tag of anybody who is gone, got ${row!.n}`);
}

async function took(house: BenchHouse, kind: string): Promise<number> {
  const [row] = await house.database
    .read(house.scope)
    .sql<{ s: number; state: string; error: string | null }>(
      `SELECT TIMESTAMPDIFF(MICROSECOND, began_at, ended_at) / 1000000 AS s, state, error
        FROM job
        WHERE organization_id = :org AND kind = :kind
        ORDER BY id DESC
        LIMIT 1`,
      { kind },
    );
  if (row?.state !== 'done')
    throw new Error(`expected a ${kind} that is done, got ${row?.state}: ${row?.error}`);
  return Number(row.s);
}
