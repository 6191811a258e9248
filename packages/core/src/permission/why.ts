import type { Purpose, RecordedState, Road } from './vocabulary';

/** What a message to somebody rests on: an entry of theirs, or nothing at all. */
export interface Basis {
  state: RecordedState;
  how: Road;
}

/**
 * Why a message came, as it stands under it. That they agreed is said to those alone who did; the others read the true
 * reason, and where a message asks without an agreement, that it does (15 U.S.C. 7704(a)(5)(A)(i): clear identification as
 * a solicitation, unless there was prior affirmative consent, (a)(5)(B)). `list` is what a public list says of itself.
 */
export function whyWords(about: { purpose: Purpose | null; list: string | null; organization: string }, basis: Basis | null): string {
  const { purpose, list, organization } = about;
  if (purpose === 'service' && !list) return `This is about something you did or set going with ${organization}.`;
  if (basis?.state === 'yes') return list ?? `You agreed to get ${purpose ?? 'appeals'} from ${organization}.`;
  const asks = purpose === 'appeals' && !list ? ' This is a solicitation.' : '';
  return `${reason(organization, basis)}${asks}`;
}

function reason(organization: string, basis: Basis | null): string {
  if (basis?.state !== 'implied') return `${organization} writes to you without having asked you before; you can tell us not to.`;
  switch (basis.how) {
    case 'gift':
      return `You get this because you have given to ${organization}.`;
    case 'membership':
      return `You get this because you are, or have been, a member of ${organization}.`;
    case 'volunteering':
      return `You get this because you have volunteered with ${organization}.`;
    case 'inquiry':
      return `You get this because you asked ${organization} something.`;
    default:
      return `You get this because of what ${organization} has on record of you; you have not agreed to it in so many words.`;
  }
}
