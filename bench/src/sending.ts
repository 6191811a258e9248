import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { createTransport, type SMTPPoolOptions } from 'nodemailer';
import { HouseRulesRepository } from '@goodword/server/permission/house-rules.repository';
import { FoldingRepository } from '@goodword/server/permission/ledger/folding.repository';
import { LedgerRepository } from '@goodword/server/permission/ledger/ledger.repository';
import { ComposingService } from '@goodword/server/messages/composing.service';
import { MessageValuesService, wantedFor } from '@goodword/server/messages/message-values.service';
import { FactsRepository } from '@goodword/server/permission/ledger/facts.repository';
import { MessagesRepository } from '@goodword/server/messages/messages.repository';
import { SEALED_HEADERS } from '@goodword/core/mail';
import { filledText } from '@goodword/server/messages/composer';
import type { OutgoingMail } from '@goodword/server/platform/mail-out';
import { EnvelopeService } from '@goodword/server/sending/envelope.service';
import { HandOverLoop } from '@goodword/server/sending/hand-over';
import { LeasesRepository } from '@goodword/server/sending/leases.repository';
import { OutboxRepository } from '@goodword/server/sending/outbox.repository';
import { PrepareJob } from '@goodword/server/sending/prepare.job';
import { SegmentsService } from '@goodword/server/segments/segments.service';
import { TeamRepository } from '@goodword/server/team/team.repository';
import { jobOf, openBenchHouse, seconds, type BenchHouse } from './house';

/** Handed over in slices, ours and the bare loop's in turns. */
const SLICE = 400;
const PAIRS = 15;
const MAILS = SLICE * PAIRS;

/** A mail as the bare loop sends it: its words, and all that is put around them. */
type BareMail = OutgoingMail & { html: string; text: string };
const CONNECTIONS = 5;

export function startSink(): Promise<{ process: ChildProcess; url: string }> {
  const child = spawn(process.execPath, [join(__dirname, 'sink.js')], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((done) =>
    child.stdout.once('data', (port) =>
      done({ process: child, url: `smtp://127.0.0.1:${String(port).trim()}` }),
    ),
  );
}

/**
 * People who said yes, and a letter with merge fields and a link. Returns the message, ready to be prepared.
 */
export async function writeMessage(house: BenchHouse, people = MAILS): Promise<number> {
  return house.database.write(house.scope, async (db) => {
    const ids = Array.from({ length: people }, (_v, i) => i + 1);
    await db.insertAll(
      'supporter',
      ['id', 'chapter_id', 'first_name', 'last_name'],
      ids.map((i) => [i, house.chapterId, `Person${i}`, 'Lin']),
    );
    await db.insertAll(
      'contact_point',
      ['id', 'kind', 'normal', 'shown'],
      ids.map((i) => [i, 'email', `p${i}@example.org`, `p${i}@example.org`]),
    );
    await db.insertAll(
      'supporter_contact',
      ['supporter_id', 'contact_point_id', 'kind'],
      ids.map((i) => [i, i, 'email']),
    );
    const yes = {
      channel: 'email',
      scope: 'appeals',
      state: 'yes',
      saidAt: new Date('2026-01-15'),
      byPerson: false,
      how: 'paper',
    } as const;
    await new LedgerRepository(new FoldingRepository()).recordAll(
      db,
      ids.map((i) => ({ ...yes, contactPointId: i, supporterId: i })),
    );
    const tag = await db.insert('tag', { name: 'bench' });
    await db.insertAll(
      'supporter_tag',
      ['supporter_id', 'tag_id'],
      ids.map((i) => [i, tag]),
    );
    const text = (words: string) => ({ type: 'paragraph', content: [{ type: 'text', text: words }] });
    const letter = {
      type: 'doc',
      content: [
        text('Dear {First name, or "neighbour"},'),
        text(
          'Last winter your gift of {Last gift: amount, or "any size"} paid for two oak planks. '.repeat(4),
        ),
        { type: 'button', attrs: { href: 'https://give.lanternferry.test/hull', label: 'Put in a plank' } },
      ],
    };
    return db.insert('message', {
      name: 'Bench',
      channel: 'email',
      purpose: 'appeals',
      subject: 'Hello {First name}',
      letter: JSON.stringify(letter),
      state: 'preparing',
      // Sent now it goes to the group of its last look; at a time, to whoever is in the group then.
      scheduled_at: new Date(),
      recipients: JSON.stringify({ from: [{ kind: 'tag', id: tag }], minus: [], without: [] }),
    });
  });
}

/** Every mail as it would be handed over, rendered before the clock starts. */
async function rendered(house: BenchHouse, messageId: number): Promise<BareMail[]> {
  const db = house.database.read(house.scope);
  const message = (await house.context.get(MessagesRepository).find(db, messageId))!;
  const { composed, organization, listName, whyOf } = await house.context
    .get(ComposingService)
    .compose(house.scope, message);
  const deliveries = await db.sql<{ id: number; supporter_id: number; provider_key: string }>(
    `SELECT id, supporter_id, provider_key
      FROM delivery
      WHERE organization_id = :org AND message_id = :messageId`,
    { messageId },
  );
  const values = await house.context.get(MessageValuesService).of(
    house.scope,
    deliveries.map((one) => one.supporter_id),
    wantedFor(message, { composed, organization, sender: undefined }),
  );
  const rules = await house.context.get(HouseRulesRepository).rules(db);
  const context = {
    message,
    composed,
    organization,
    sender: undefined,
    listName,
    whyOf,
    rules,
    campaign: null,
    automation: null,
  };
  const envelopes = house.context.get(EnvelopeService);
  return deliveries.map((one) => {
    const own = values.get(one.supporter_id) ?? {};
    const mail = envelopes.mail(context, {
      deliveryId: one.id,
      key: one.provider_key,
      to: `p${one.supporter_id}@example.org`,
      place: { country: null, region: null },
      basis: null,
      values: own,
    });
    const { html, text } = filledText(composed, own);
    return { ...mail, html, text };
  });
}

/**
 * The yardstick: a loop over nodemailer's pool with the same mails, filled before, the same signature and
 * connections.
 */
function barePool(url: string, key: string): { send(mails: BareMail[]): Promise<void>; close(): void } {
  const options: SMTPPoolOptions & { pool: true } = {
    pool: true,
    url,
    maxConnections: CONNECTIONS,
    maxMessages: Infinity,
  };
  const transport = createTransport({
    ...options,
    dkim: {
      domainName: 'lanternferry.test',
      keySelector: 'gw',
      privateKey: key,
      headerFieldNames: SEALED_HEADERS.join(':'),
    },
  });
  const one = (mail: BareMail) =>
    transport.sendMail({
      envelope: { from: mail.returnPath, to: [mail.to] },
      from: mail.from,
      to: mail.to,
      replyTo: mail.replyTo,
      messageId: mail.messageId,
      subject: mail.subject,
      html: mail.html,
      text: mail.text,
      headers: mail.headers,
      encoding: 'quoted-printable',
    });
  return {
    send: async (mails) => void (await Promise.all(mails.map(one))),
    close: () => transport.close(),
  };
}

/**
 * Hands over personal mails with every decision and record, beside a bare loop that only sends them: a slice
 * of one, a slice of the other, and the middle of the pairs.
 */
export async function benchSending(
  server: string,
): Promise<{ ours: number; yardstick: number; ratio: number; pairs: number }> {
  const sink = await startSink();
  const house = await openBenchHouse(server, 'bench_sending', sink.url);
  const messageId = await writeMessage(house);
  await house.context.get(PrepareJob).run(jobOf(house.scope, messageId));
  const mails = await rendered(house, messageId);
  if (mails.length !== MAILS)
    throw new Error(`expected ${MAILS} deliveries to be prepared, got ${mails.length}`);
  const silent = { info: () => undefined, error: (o: object, m: string) => console.error(m, o) };
  const get = <T>(token: new (...args: never[]) => T) => house.context.get<T>(token);
  const parts = {
    database: house.database,
    outbox: get(OutboxRepository),
    leases: get(LeasesRepository),
    envelopes: get(EnvelopeService),
    messages: get(MessagesRepository),
    composing: get(ComposingService),
    facts: get(FactsRepository),
    values: get(MessageValuesService),
    houseRules: get(HouseRulesRepository),
    team: get(TeamRepository),
    segments: get(SegmentsService),
  };
  const loop = new HandOverLoop(parts, { leaseSeconds: 60, atOnce: CONNECTIONS, faultMs: 1000 }, silent);
  const bare = barePool(sink.url, house.dkimKey);
  // Both have their connections, and are compiled.
  await bare.send(mails.slice(0, SLICE));
  await loop.round();
  const pairs: { ours: number; bare: number }[] = [];
  for (let at = SLICE; at < MAILS; at += SLICE) {
    const ours = await seconds(async () => void (await loop.round()));
    pairs.push({ ours, bare: await seconds(() => bare.send(mails.slice(at, at + SLICE))) });
  }
  while (await loop.round());
  const [left] = await house.database
    .read(house.scope)
    .sql<{ n: number }>(
      "SELECT COUNT(*) AS n FROM delivery WHERE organization_id = :org AND state <> 'sent'",
    );
  if (left!.n !== 0) throw new Error(`expected every delivery to be sent, got ${left!.n} that are not`);
  bare.close();
  await house.context.close();
  sink.process.kill();
  const middle = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
  return {
    ours: SLICE / middle(pairs.map((pair) => pair.ours)),
    yardstick: SLICE / middle(pairs.map((pair) => pair.bare)),
    ratio: middle(pairs.map((pair) => pair.bare / pair.ours)),
    pairs: pairs.length,
  };
}
