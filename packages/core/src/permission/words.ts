import type { Channel, PermissionState, Purpose, Road } from './vocabulary';
import type { Verdict } from './decide';

export const STATE_WORDS: Record<PermissionState, string> = {
  yes: 'Yes',
  implied: 'Implied',
  asked: 'Asked',
  never: 'Never asked',
  no: 'No',
};

export const CHANNEL_WORDS: Record<Channel, string> = { email: 'Email', text: 'Text', call: 'Phone call', post: 'Post' };

export const PURPOSE_WORDS: Record<Purpose, string> = {
  news: 'news',
  appeals: 'appeals',
  volunteering: 'volunteering',
  service: 'service',
};

export const ROAD_WORDS: Record<Road, string> = {
  file: 'from a file',
  paper: 'on paper, signed',
  form: 'on a sign-up form',
  phone: 'by phone',
  'in-person': 'said in person',
  reply: 'by a reply',
  'one-click': 'by one click',
  keyword: 'by a keyword texted to us',
  complaint: 'by a complaint',
  gift: 'with a gift',
  hand: 'recorded by hand',
  feed: 'from another system',
};

export const VERDICT_WORDS: Record<Verdict, string> = {
  send: 'Will get it',
  'no-address': 'No address for this channel',
  'do-not-contact': 'On do-not-contact',
  'said-no': 'Said no',
  'on-hold': 'Address is on hold after a bounce',
  asked: 'Asked, and have not confirmed yet',
  'no-permission': 'Never said yes to this',
  'shared-address': 'Same address as someone else in the group',
};
