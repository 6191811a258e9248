import type { Purpose, RecordedState, CollectionMethod } from '../permission';
import { PURPOSE_WORDS } from './permission';
import { say } from './speak';

/** What a message to somebody rests on: an entry of theirs, or nothing at all. */
export interface Basis {
  state: RecordedState;
  how: CollectionMethod;
}

/**
 * Why a message came, as it stands under it. That they agreed is said to those alone who did; the others read
 * the true reason, and where a message asks without an agreement, that it does (15 U.S.C. 7704(a)(5)(A)(i):
 * clear identification as a solicitation, unless there was prior affirmative consent, (a)(5)(B)). `list` is
 * what a public list says of itself.
 */
export function whyWords(
  about: { purpose: Purpose | null; list: string | null; organization: string },
  basis: Basis | null,
): string {
  const { purpose, list, organization } = about;
  if (purpose === 'service' && !list) return say('why.service', { organization });
  if (basis?.state === 'yes')
    return list ?? say('why.agreed', { purpose: PURPOSE_WORDS[purpose ?? 'appeals'], organization });
  const reason = reasonOf(organization, basis);
  return purpose === 'appeals' && !list ? say('why.solicitation', { reason }) : reason;
}

function reasonOf(organization: string, basis: Basis | null): string {
  if (basis?.state !== 'implied') return say('why.unasked', { organization });
  switch (basis.how) {
    case 'gift':
    case 'membership':
    case 'volunteering':
    case 'inquiry':
      return say(`why.${basis.how}`, { organization });
    default:
      return say('why.record', { organization });
  }
}
