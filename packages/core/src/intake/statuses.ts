import { nameMatchKey } from './clean';

/** What a file from another system can say of an address that is not to be written to. */
export const REFUSAL_STATUSES = ['left', 'bounced', 'complained'] as const;
export type RefusalStatus = (typeof REFUSAL_STATUSES)[number];

/**
 * Words of status columns in English, Spanish, French and German, as programs export them (common practice,
 * no source).
 */
const WORDS: Record<RefusalStatus | 'fine', string> = {
  left: `unsubscribed unsubscribe unsub optedout optout optedoutofemail removed withdrawn cancelled canceled left revoked donotemail donotcontact donottext stop stopped
    no inactive suppressed desabonne desinscrit desinscrite abgemeldet ausgetragen widerrufen baja dadodebaja cancelado cancelada`,
  bounced: `bounced bounce hardbounce hardbounced cleaned invalid undeliverable undelivered dropped rejected nonexistent unknownuser rebotado rebotada
    unzustellbar rejete nondelivre`,
  complained: `complained complaint complaints spam spamcomplaint spamreport markedasspam reportedasspam abuse abusecomplaint junk fbl plainte beschwerde queja`,
  fine: `subscribed active yes optedin confirmed ok valid deliverable delivered softbounce softbounced pending unconfirmed abonne inscrit angemeldet
    aktiv activo activa suscrito suscrita`,
};
const STATUS_OF = new Map<string, RefusalStatus | 'fine'>();
for (const [status, words] of Object.entries(WORDS))
  for (const word of words.split(/\s+/)) STATUS_OF.set(word, status as RefusalStatus | 'fine');

/** Reads a cell of a status column; `fine` is no refusal, null is a word nobody knows. */
export function readStatus(text: string): RefusalStatus | 'fine' | null {
  return STATUS_OF.get(nameMatchKey(text)) ?? null;
}
