import { SHIFT_LANGUAGES } from '../../text';
import { LANGUAGES } from '../../forms';
import { ROLES } from '../../team';
import { shape, text, number, listOf, oneOf, told, orNull, part, only, flag } from '../kinds';

/** The organization as Setup shows it. */
export const organizationView = shape('OrganizationView', {
  name: text,
  legalName: text,
  postalAddress: text,
  country: text,
  timeZone: text,
  fiscalMonth: number,
  currency: text,
  locale: text,
  languages: listOf(oneOf(LANGUAGES)),
  fromEmail: text,
  bounceDomain: text,
  textFrom: text,
  givingPage: told('The page on which one gives; empty where there is none.', text),
  linkUrl: told('The host of short links in texts; empty for the server’s own address.', text),
  textPrice: told(
    'What a part of a text costs, in units of the currency; null where nobody said.',
    orNull(number),
  ),
  logo: told('Where the logo is to be had; null where there is none.', orNull(text)),
  version: number,
  chapters: listOf(
    part({
      id: number,
      name: text,
      postalAddress: text,
      places: text,
      people: number,
    }),
  ),
  missing: told('What is still missing before a message can leave, a sentence each.', listOf(text)),
});

/** A teammate with role and chapters, and whether they have come in yet. */
export const teammateView = shape('TeammateView', {
  id: number,
  name: text,
  email: text,
  role: oneOf(ROLES),
  chapterIds: told('Those they are bound to; null for who works in all.', orNull(listOf(number))),
  state: told('Invited and not yet here; here; gone.', only('here', 'gone', 'invited')),
  signedInAt: orNull(text),
  invitation: told(
    'What became of the last mail with a link; null where there was none.',
    orNull(
      part({
        state: only('failed', 'waiting', 'sent', 'expired'),
        detail: orNull(text),
        expiresAt: text,
      }),
    ),
  ),
  sessions: number,
});

/** What waits for a teammate, to be handed on. */
export const waitingFor = shape('WaitingFor', {
  messages: number,
  batches: number,
  callLists: number,
  replies: told('Replies that are theirs to answer.', number),
});

/** Who is signed in, where they work and what they may do. */
export const sessionView = shape('SessionView', {
  teammate: part({
    id: number,
    name: text,
    email: text,
    role: oneOf(ROLES),
    mobile: text,
    chapterIds: orNull(listOf(number)),
  }),
  organization: part({
    id: number,
    name: text,
    country: text,
    locale: text,
    currency: text,
    timeZone: text,
    shortLink: told('As a link in a text goes out: as long as each.', text),
    shiftTables: told(
      'Languages whose national tables the text gateway takes.',
      listOf(oneOf(SHIFT_LANGUAGES)),
    ),
    textFrom: text,
    languages: listOf(oneOf(LANGUAGES)),
  }),
  chapter: told(
    'The chapter being worked in; null for all that the teammate may see.',
    orNull(
      part({
        id: number,
        name: text,
      }),
    ),
  ),
  chapters: listOf(
    part({
      id: number,
      name: text,
    }),
  ),
  csrf: text,
  standins: part({
    mailroom: orNull(text),
    handsets: orNull(text),
  }),
});

/** How a teammate is seen by those whom they write to. */
export const profile = shape('Profile', {
  name: text,
  email: text,
  title: text,
  mobile: text,
  answersTo: text,
  signature: text,
  pictureId: told('A picture of the library beside the signature.', orNull(number)),
});

/** A session that is open, and from where. */
export const sessionLine = shape('SessionLine', {
  id: number,
  network: text,
  browser: text,
  since: text,
  usedAt: text,
  isThis: flag,
});

/** What a one-time link is for, and whom it greets. */
export const linkView = shape('LinkView', {
  kind: only('invitation', 'password'),
  name: text,
  email: text,
  organization: text,
});
