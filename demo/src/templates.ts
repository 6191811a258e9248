import { letterOfText } from '@goodword/core/letter';
import type { Bound } from '@goodword/server/platform/scoped';
import type { Made } from './house';
import { HULL, LAUNCH_TEXT, PLANKS, THANKS } from './messages';

const PLANK_LETTER = letterOfText(`Dear {Greeting, or "friend of the ferry"},

once a year we write a letter in which we ask. The starboard side needs twelve oak planks before she can float, and eight of them are paid for.

A plank is $120, and half a plank is $60. Your last gift, {Last gift: amount, or "whatever it was"}, is oak by now.

With good wishes for the winter,

{Sender: name}
{Organization: name}`);

const CALL = `Hello {First name, or "there"}, it is {Sender: name} from the Lantern Ferry Trust. Is this a good moment?

You helped us before, and I wanted to tell you myself: the port side is done. The starboard side is next.

Would you put in a plank again? (Yes: say where. No: thank them, and ask how they are.)`;

/** Words that are kept: the team's, one of the writer's own, one put away. */
export async function writeTemplates({ db, ids }: Made): Promise<void> {
  const [rosa, , june] = ids.team as [number, number, number];
  const made: Record<string, Bound>[] = [
    {
      name: 'Thank you for a plank',
      folder: 'Thanks',
      channel: 'email',
      purpose: 'service',
      subject: 'Thank you, {First name, or "friend"}',
      letter: JSON.stringify(THANKS),
      note: 'Within two days of a gift',
    },
    {
      name: 'Winter hull appeal',
      folder: 'Appeals',
      channel: 'email',
      purpose: 'appeals',
      subject: 'The starboard side, {First name, or "friend"}',
      preheader: 'Eight planks are there, four are missing',
      letter: JSON.stringify(HULL),
      note: 'Once a year, before the frost',
    },
    {
      name: 'Winter hull letter',
      folder: 'Appeals',
      channel: 'post',
      purpose: 'appeals',
      letter: JSON.stringify(PLANK_LETTER),
      note: 'For those who have no email address',
    },
    {
      name: 'Ferry news',
      folder: '',
      channel: 'email',
      list_id: ids.lists[0]!,
      subject: 'From the boat shed, {First name, or "neighbour"}',
      letter: JSON.stringify(PLANKS),
    },
    { name: 'Launch day', folder: '', channel: 'text', purpose: 'volunteering', body: LAUNCH_TEXT },
    { name: 'Calling about the hull', folder: 'Appeals', channel: 'call', purpose: 'appeals', body: CALL },
    {
      name: 'Regatta reminder',
      folder: '',
      channel: 'text',
      purpose: 'news',
      body: '{First name, or "Hello"}, the regatta is on Sunday from noon. {Sender: name}',
      owner_id: june,
      is_team: 0,
    },
    {
      name: 'Old slipway appeal',
      folder: 'Appeals',
      channel: 'email',
      purpose: 'appeals',
      subject: 'The slipway',
      letter: JSON.stringify(PLANK_LETTER),
      archived_at: new Date(),
    },
  ];
  for (const template of made) await db.insert('template', { owner_id: rosa, is_team: 1, ...template });
}
