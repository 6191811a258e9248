import { DEMANDS, NUMBER_KINDS, RECORD_FAULTS, REGISTRATIONS, SENDER_RECORDS } from '../../delivery';
import { flag, listOf, number, ofCore, oneOf, only, orNull, part, shape, text, told } from '../kinds';

/** A record of a sender, as it is to be set and as it was found. */
export const checkedRecord = ofCore(
  'CheckedRecord',
  'delivery',
  part({
    what: oneOf(SENDER_RECORDS),
    name: text,
    kind: only('TXT', 'MX', 'A'),
    value: text,
    found: told(
      'What stands there; null where nobody answered, or nobody has looked yet.',
      orNull(listOf(text)),
    ),
    fault: orNull(oneOf(RECORD_FAULTS)),
  }),
);

const number_ = {
  kind: orNull(oneOf(NUMBER_KINDS)),
  registration: orNull(oneOf(REGISTRATIONS)),
  perSecond: orNull(number),
};

/** How much mail may leave. */
export const mailLimits = ofCore(
  'MailLimits',
  'delivery',
  part({
    perHour: orNull(number),
    perDay: orNull(number),
    warmUp: orNull(part({ from: text, amounts: listOf(number) })),
  }),
);

/** As whom mail and texts go out, and what is known of it. */
export const senderView = shape('SenderView', {
  from: text,
  lists: text,
  checkedAt: orNull(text),
  records: listOf(checkedRecord),
  aligned: told(
    'Whether each counts as of the domain in From (DMARC).',
    part({ signature: flag, returnPath: flag }),
  ),
  demands: listOf(
    part({
      demand: oneOf(DEMANDS),
      met: told('Null where only the provider can say.', orNull(flag)),
    }),
  ),
  complaints: told('Of the last 30 days.', part({ reached: number, complained: number })),
  through: told(
    'The mail that was sent through last.',
    orNull(
      part({
        at: text,
        fault: orNull(text),
        backAt: orNull(text),
        signatures: listOf(part({ selector: text, holds: flag })),
        tls: told('Whether it left encrypted; null where no server said.', orNull(flag)),
      }),
    ),
  ),
  number: orNull(part({ number: text, ...number_ })),
  limits: told('How much mail may leave; null for any number.', orNull(mailLimits)),
  mailsLeft: told('How many may leave now; null for any number.', orNull(number)),
});
