import { createPublicKey } from 'node:crypto';
import { dkimVerify } from 'mailauth/lib/dkim/verify';
import { MailInService } from '../inbound/mail-in.service';
import { dkimKeys, eventually, freePort, openTestHouse, type TestHouse } from '../testing/harness';
import { Postfix } from '../testing/postfix';
import { Sink } from '../testing/sink';
import { bringIn, draftEmail, messageAt, resultsOf, send } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * Debian's Postfix between the program and the mailboxes: its queue, its TLS, its own bounces. It runs as
 * root alone; whoever is not leaves it out.
 */
const asRoot = process.getuid?.() === 0 ? describe : describe.skip;

/** What the mailboxes behind Postfix answer, by the name before the @. */
const ANSWERS: Record<string, [code: number, words: string]> = {
  gone: [550, '5.1.1 No such mailbox here'],
  spam: [554, '5.7.1 Message rejected as spam'],
  full: [552, '5.2.2 Mailbox full'],
};

/** The number under which the server between took a mail. */
function queueNumberOf(raw: string): string {
  const found = /^Received: [^]*?\(Postfix\)[^]*?\sid ([0-9A-Za-z]+)/m.exec(raw);
  if (!found) throw new Error(`expected a line of the server between, got ${raw.slice(0, 400)}`);
  return found[1]!;
}

asRoot('with a real mail server between', () => {
  let house: TestHouse;
  let mailboxes: Sink;
  let postfix: Postfix;
  const late = new Set<string>();
  beforeAll(async () => {
    mailboxes = await new Sink({
      answer: (to) => {
        const name = to.split('@')[0]!;
        if (name === 'late' && !late.has(to)) return late.add(to) && [450, '4.7.1 Greylisted, try again'];
        return ANSWERS[name] ?? null;
      },
    }).listen();
    const inbound = await freePort();
    postfix = await new Postfix({
      ...{ sink: mailboxes.port, inbound, listDomain: 'lists.lanternferry.test' },
    }).start();
    house = await openTestHouse({ env: { SMTP_URL: postfix.url, INBOUND_SMTP_PORT: String(inbound) } });
    house.app.get(MailInService).listen(inbound, '127.0.0.1');
    house.startWorker();
  });
  afterAll(async () => {
    postfix.close();
    await Promise.all([house.close(), mailboxes.close()]);
  });

  /** A message to these, by the names before the @; it has left us when it is here. */
  async function sentTo(domain: string, names: readonly string[]): Promise<number> {
    const rows = names.map((name) => `${name}@${domain},${name},Lee,`);
    const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
    const id = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] });
    await send(house.client, id);
    return id;
  }
  const arrived = (domain: string) => mailboxes.mails.filter(({ to }) => to.endsWith(`@${domain}`));

  test('over TLS, by its queue, and both read and verified at the other end', async () => {
    await messageAt(house.client, await sentTo('one.example.org', ['ann', 'late', 'zoë']), 'done');
    const mails = await eventually(
      'all three, the one that was put off as well',
      () => arrived('one.example.org'),
      (found) => found.length === 3,
    );
    expect(late.size).toBe(1);
    const der = createPublicKey(dkimKeys.publicKey)
      .export({ type: 'spki', format: 'der' })
      .toString('base64');
    for (const { raw } of mails) {
      expect(raw).toMatch(/^Received: from[^;]*\(using TLSv1\.[23] /m);
      const { results } = await dkimVerify(Buffer.from(raw), {
        resolver: () => Promise.resolve([[`v=DKIM1; k=rsa; p=${der}`]]),
      } as never);
      expect(results.map((one) => (one as { status: { result: string } }).status.result)).toEqual(['pass']);
    }
  });

  test('its own bounces come back, each for what it is about', async () => {
    const id = await sentTo('two.example.org', ['gone', 'spam', 'full', 'fine']);
    await eventually(
      'three to come back',
      async () => (await resultsOf(house.client, id)).counts.bounced ?? 0,
      (bounced) => bounced === 3,
    );
    const held = async (name: string) =>
      (await personBy(house.client, `${name}@two.example.org`)).contactPoints[0]!.onHold;
    expect([await held('gone'), await held('spam'), await held('full'), await held('fine')]).toEqual([
      ...[true, false, false, false],
    ]);
    const point = (await personBy(house.client, 'gone@two.example.org')).contactPoints[0]!;
    expect(point.holdReason).toContain('5.1.1');
  });

  test('2,000 through it, stopped and started in the middle: each exactly once', async () => {
    const names = Array.from({ length: 2000 }, (_none, i) => `p${i}`);
    const id = await sentTo('three.example.org', names);
    await eventually(
      'some to have left',
      () => arrived('three.example.org').length,
      (count) => count >= 200,
    );
    postfix.stop();
    expect((await resultsOf(house.client, id)).counts.sent).toBeLessThan(2000);
    await new Promise((done) => setTimeout(done, 2500));
    postfix.again();
    await messageAt(house.client, id, 'done');
    const rows = (await house.database
      .unscoped()('delivery')
      .where({ message_id: id })
      .select('state', 'provider_key')) as { state: string; provider_key: string }[];
    const those = (state: string) => rows.filter((row) => row.state === state).map((row) => row.provider_key);
    const reached = () =>
      new Set(arrived('three.example.org').map(({ messageId }) => messageId.slice(1, 37)));
    const sent = those('sent');
    await eventually('everything that it took to be in its mailbox', reached, (keys) =>
      sent.every((key) => keys.has(key)),
    );
    // A mail that it was taking when it stopped is told as unsure and never sent twice by itself: there are
    // as many at most as lines to it. Whether it was taken nobody knows but its queue.
    const unsure = those('unsure');
    expect(sent.length + unsure.length).toBe(2000);
    expect(unsure.length).toBeLessThanOrEqual(house.config.SMTP_CONNECTIONS);
    // By their numbers in its queue: a server that is stopped between the answer to a mail and the note of it
    // sends that one again by itself (RFC 1047), and under the number that it had.
    const mails = arrived('three.example.org');
    expect(new Set(mails.map(({ raw }) => queueNumberOf(raw))).size).toBe(reached().size);
  });
});
