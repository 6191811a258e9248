import { nameMatchKey } from './clean';

/** Someone already here (or earlier in the same file) at an address that the row has too. */
export interface Candidate {
  id: number;
  firstName: string;
  lastName: string;
  by: 'email' | 'mobile';
}

export type Match =
  | { kind: 'new' }
  /** A new person at an address that others have: a household. */
  | { kind: 'shares' }
  | { kind: 'same'; id: number }
  /** The email is one person's and the mobile another's. */
  | { kind: 'doubt'; ids: number[] };

/** Names agree when each part that both have is the same; a missing part agrees with anything. */
function namesAgree(a: { firstName: string; lastName: string }, b: { firstName: string; lastName: string }): boolean {
  const agree = (x: string, y: string) => x === '' || y === '' || nameMatchKey(x) === nameMatchKey(y);
  return agree(a.firstName, b.firstName) && agree(a.lastName, b.lastName);
}

/**
 * Who a row is, given everybody at its addresses. The same address and an agreeing name is the same person; the same
 * address and another name is someone who shares it. An agreeing full name beats an agreeing part, then the lower id.
 */
export function matchRow(row: { firstName: string; lastName: string }, candidates: readonly Candidate[]): Match {
  if (candidates.length === 0) return { kind: 'new' };
  const agreeing = candidates.filter((candidate) => namesAgree(row, candidate));
  if (agreeing.length === 0) return { kind: 'shares' };
  const best = (by: Candidate['by']) => {
    const score = (c: Candidate) =>
      Number(nameMatchKey(c.firstName) === nameMatchKey(row.firstName)) + Number(nameMatchKey(c.lastName) === nameMatchKey(row.lastName));
    return agreeing.filter((c) => c.by === by).sort((a, b) => score(b) - score(a) || a.id - b.id)[0];
  };
  const [email, mobile] = [best('email'), best('mobile')];
  if (email && mobile && email.id !== mobile.id) {
    const both = agreeing.find((c) => c.by === 'email' && agreeing.some((d) => d.by === 'mobile' && d.id === c.id));
    return both ? { kind: 'same', id: both.id } : { kind: 'doubt', ids: [email.id, mobile.id] };
  }
  return { kind: 'same', id: (email ?? mobile)!.id };
}
