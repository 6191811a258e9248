/** A message as far as a second pair of eyes is asked about. */
export interface SecondAsked {
  /** How many get it by the last look. */
  reached: number;
  /** The version of its group. */
  group: number;
  /** Words of a service message that ask for something. */
  asks: readonly string[];
  /** Who is about to send it. */
  sender: number | null;
}

/** What a second person agreed to; taken back where the words are changed. */
export interface SecondSaid {
  by: number | null;
  /** The group, and how many it reached, as they saw them. */
  group: number | null;
  reached: number;
}

/** So much larger may a group be than was agreed to: a segment grows while one drinks a coffee. */
const GROWN = 1.1;

/**
 * Why a message is to be agreed to by somebody else; null where it is not. `above` 0 is never for its size.
 */
export function wantsSecond(
  { reached, asks }: Pick<SecondAsked, 'reached' | 'asks'>,
  above: number,
): 'asks' | 'many' | null {
  if (asks.length > 0) return 'asks';
  return above > 0 && reached > above ? 'many' : null;
}

/** Whether what somebody else agreed to is still what is about to leave. */
export function hasSecond(said: SecondSaid, asked: SecondAsked, above: number): boolean {
  const why = wantsSecond(asked, above);
  if (why === null) return true;
  if (said.by === null || said.by === asked.sender) return false;
  // Words that ask are read; whoever they reach is no question of theirs.
  if (!(above > 0 && asked.reached > above)) return true;
  return said.group === asked.group && asked.reached <= said.reached * GROWN;
}
