import { t } from '@lingui/core/macro';
import type { Demand, RecordFault, SenderRecord, TextNumber } from '@goodword/core/delivery';

/** What a record is for, as somebody who has never set one would say it. */
export const RECORD_WORDS: Record<SenderRecord, string> = {
  dkim: t`Signature: whoever gets a mail can see that it is yours`,
  'dkim-next': t`The next key, to be set before it takes over`,
  spf: t`Who may send for you`,
  dmarc: t`What to do with mail that only claims to be yours`,
  mx: t`Where bounces and answers come back to`,
  links: t`Where the links in mails and texts lead`,
};

/** What is wrong with a record, and what to do. */
export const FAULT_WORDS: Record<RecordFault, string> = {
  missing: t`Nothing stands there yet. Set it where your domain is kept; it can take some hours to be seen.`,
  'other-key': t`Another key stands there. Put this one in its place, or mails count as forged.`,
  revoked: t`The key there is empty, which says that it is withdrawn. Put this one in its place.`,
  several: t`Several stand there, and so none counts. Leave one.`,
  open: t`It lets everybody send in your name. End it with -all.`,
  'no-end': t`It does not say who may not. End it with -all.`,
  'too-many-lookups': t`It asks more than ten other names, and so counts as broken. Take out what is not used.`,
  'no-policy': t`It names no policy. Begin with p=none.`,
  elsewhere: t`It leads elsewhere: what comes back is not heard here.`,
};

/** What large mailbox providers ask of whoever writes to many. */
export const DEMAND_WORDS: Record<Demand, string> = {
  signed: t`Mail is signed`,
  spf: t`The domain says who may send for it`,
  dmarc: t`The domain says what to do with forged mail`,
  aligned: t`The signature is of the domain that mail comes from`,
  'one-click': t`One click leaves, from the mail program itself`,
  'way-out': t`A way to leave stands in the words`,
  complaints: t`Fewer than 3 in 1,000 call it spam`,
  form: t`Mails have the form of the standard`,
  tls: t`Mail goes out encrypted`,
  reverse: t`The server that sends has a name that leads back to it`,
};

export const NUMBER_WORDS: Record<NonNullable<TextNumber['kind']>, string> = {
  long: t`an ordinary number`,
  short: t`a short code`,
  'toll-free': t`a number free of charge`,
  name: t`a name in the place of a number`,
};

export const REGISTRATION_WORDS: Record<NonNullable<TextNumber['registration']>, string> = {
  none: t`not registered`,
  waiting: t`handed in, not yet agreed to`,
  registered: t`registered`,
};
