import type { LetterDoc } from '@goodword/core/letter';
import { DAY, type Made } from './house';

const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const letter = (...lines: string[]) =>
  JSON.stringify({ type: 'doc', content: lines.map(paragraph) } as LetterDoc);

const STEPS = [
  {
    ...{ name: 'The starboard side is next', channel: 'email', day: 0, minutes: 600 },
    subject: '{First name, or "Friend"}, the starboard side is next',
    preheader: 'Two planks are in, forty to go',
    body: '',
    letter: letter(
      'Dear {First name, or "friend of the ferry"},',
      'the surveyor was back on Friday: the port side will hold for twenty years, and the starboard side is next. It needs forty planks of oak before the river is high.',
      '{Sender: signature}',
    ),
  },
  {
    ...{ name: 'Two planks left', channel: 'text', day: 3, minutes: 1050 },
    ...{ subject: '', preheader: '', letter: null },
    body: 'Lantern Ferry: two planks of the starboard side are still nobody’s, {First name, or "neighbour"}. https://give.lanternferry.test/hull Reply STOP to leave.',
  },
  {
    ...{ name: 'From the slipway', channel: 'post', day: 10, minutes: 540 },
    ...{ subject: '', preheader: '', body: '' },
    letter: letter(
      'Dear {First name, or "friend of the ferry"},',
      'I am writing this on the slipway, with a plank for a desk. She goes back into the water in March, and one side of her is still last century’s oak.',
      'A gift of any size is a part of a plank. Thank you for reading this far.',
      '{Sender: signature}',
    ),
  },
] as const;

/** The plan of the campaign that runs: an email, a text on the third day, a letter to the rest. */
export async function writePlan({ db, ids, today }: Made): Promise<void> {
  const [campaign] = await db.sql<{ id: number }>(
    "SELECT id FROM campaign WHERE organization_id = :org AND name = 'Winter hull appeal'",
  );
  await db.execute(
    `UPDATE campaign
      SET first_day = :first, goal_kind = 'money', goal_amount = 4000000, goal_by = :by
      WHERE organization_id = :org AND id = :id`,
    { id: campaign!.id, first: today + 5, by: today + 40 },
  );
  for (const { day, minutes, ...words } of STEPS) {
    const message = await db.insert('message', {
      ...{ ...words, purpose: 'appeals', sender_id: ids.team[0]! },
      recipients: JSON.stringify({ from: [{ kind: 'campaign', id: campaign!.id }], minus: [], without: [] }),
      tested_at: words.channel === 'post' ? null : new Date((today - 1) * DAY),
    });
    await db.insert('campaign_step', {
      ...{ message_id: message, campaign_id: campaign!.id, day, minutes },
      own_time: Number(words.channel === 'email'),
    });
  }
}
