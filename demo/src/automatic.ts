import type { Cause, Wait } from '@goodword/core/automations';
import { letterOfText } from '@goodword/core/letter';
import { DAY, type Made } from './house';
import { THANKS } from './messages';

const MINUTE = 60_000;

const WELCOME = letterOfText(`Dear {First name, or "friend of the ferry"},

you asked for Ferry news, and here we are. About once a month you hear from the boat shed: what is mended, what is not, and who was there.

If it is ever too much, one click at the end of this letter is enough.

{Sender: signature}`);

const SHED = letterOfText(`Dear {First name, or "friend of the ferry"},

a few days ago you joined us. The shed is open on Saturdays from ten, there is coffee, and nobody has to know how to hold a plane.

Come and see her.

{Sender: signature}`);

interface DemoMessage {
  name: string;
  purpose: 'service' | null;
  subject: string;
  letter: object;
  wait: Wait;
}

/** A thank-you that is on, with some who wait for theirs, and a welcome in two that is being written. */
export async function writeAutomatic(made: Made): Promise<void> {
  const { db, ids } = made;
  const thanks = await write(made, {
    name: 'Thank you for a gift',
    cause: { kind: 'gift', which: 'any', atLeast: 100 },
    on: true,
    again: true,
    messages: [
      {
        ...{ name: 'Thank you', purpose: 'service', letter: THANKS },
        ...{ subject: 'Thank you, {First name, or "friend"}' },
        wait: { n: 2, unit: 'hours', at: null },
      },
    ],
  });
  await write(made, {
    name: 'Welcome to Ferry news',
    cause: { kind: 'list', listId: ids.lists[0]! },
    on: false,
    again: false,
    messages: [
      {
        ...{ name: 'Welcome aboard', purpose: null, letter: WELCOME },
        ...{ subject: 'Welcome aboard, {First name, or "friend"}' },
        wait: { n: 0, unit: 'minutes', at: null },
      },
      {
        ...{ name: 'Come to the shed', purpose: null, letter: SHED },
        ...{ subject: 'The shed is open on Saturday' },
        wait: { n: 3, unit: 'days', at: 600 },
      },
    ],
  });
  const gifts = await db.sql<{ id: number; supporterId: number }>(
    `SELECT g.id, g.supporter_id AS supporterId
      FROM gift g
      JOIN supporter_contact sc ON sc.supporter_id = g.supporter_id AND sc.kind = 'email'
      WHERE g.organization_id = :org AND g.amount >= 100
      GROUP BY g.id, g.supporter_id
      ORDER BY g.given_on DESC, g.id
      LIMIT 5`,
  );
  const now = Date.now();
  await db.insertAll(
    'automation_visit',
    [
      ...['automation_id', 'supporter_id', 'cause_key', 'caused_at', 'taken_at'],
      ...['due_at', 'state', 'looked'],
    ],
    gifts.map(({ id, supporterId }, i) => {
      const at = new Date(now - (i + 1) * 11 * MINUTE);
      return [thanks, supporterId, `gift:${id}`, at, at, new Date(at.getTime() + 120 * MINUTE), 'waiting', 0];
    }),
  );
}

async function write(
  { db, ids, today }: Made,
  automation: { name: string; cause: Cause; on: boolean; again: boolean; messages: readonly DemoMessage[] },
): Promise<number> {
  const { name, cause, on, again, messages } = automation;
  const since = on ? new Date() : null;
  const id = await db.insert('automation', {
    ...{ name, cause: JSON.stringify(cause), again: Number(again), stops: JSON.stringify(['left']) },
    ...{ is_on: Number(on), on_since: since, since, made_by: ids.team[0]! },
  });
  for (const [position, { wait, letter, ...words }] of messages.entries()) {
    const message = await db.insert('message', {
      ...{ ...words, channel: 'email', letter: JSON.stringify(letter), body: '', preheader: '' },
      ...{ list_id: words.purpose === null ? ids.lists[0]! : null, sender_id: ids.team[0]! },
      recipients: JSON.stringify({ from: [], minus: [], without: [] }),
      ...{ state: on ? 'standing' : 'draft', tested_at: on ? new Date((today - 1) * DAY) : null },
    });
    await db.insert('automation_step', {
      ...{ message_id: message, automation_id: id, position, wait: JSON.stringify(wait) },
    });
  }
  return id;
}
