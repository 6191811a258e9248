import type { SourceKind } from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';

/** What there is to take over there. */
export interface Offer {
  types: { key: string; name: string; filters: { key: string; name: string }[] }[];
  /** It can tell of changes as they happen. */
  tells: boolean;
  /** It can be told of a no. */
  takes: boolean;
}

/** What is asked of a source. */
export interface AskedOf {
  type: string;
  filter: string | null;
  /** Where the last reading ended: only what changed since is wanted, and who is gone since. */
  since: string | null;
  /** What the last whole reading was marked with: nothing is wanted where it is still so. */
  etag: string | null;
}

/** One record over there: a cell for each column, or gone since. */
export type SourceRow = { cells: string[]; gone?: false } | { cells: string[]; gone: true };

/** What a source answers with. */
export type Answer =
  | { unchanged: true }
  | {
      unchanged: false;
      header: string[];
      /** Everything that there is, and not only what changed. */
      whole: boolean;
      /** Some rows at a time. Throws a `FetchFault` for what can't be read. */
      pages: AsyncIterable<SourceRow[]>;
      /** How the next reading begins; complete when the pages are through. */
      mark: { etag: string | null; position: string | null };
    };

/** A connection as it is kept, its token in the clear. */
export interface Connection {
  url: string;
  token: string;
}

/** A no that is told to a source. */
export interface ToldRefusal {
  /** The same for the same no, however often it is told. */
  key: string;
  type: string;
  record: string;
  channel: Channel;
  /** What it is about: everything of the channel, a purpose, or a list by its name. */
  about: string;
  at: Date;
}

/**
 * A system that feeds take from: one file for each kind. It says what there is, reads it, and throws a
 * `FetchFault` with a sentence for everything that is not as it should be. It keeps nothing and decides
 * nothing: what is new, gone or too much is worked out by whoever reads.
 */
export interface FeedSource {
  readonly kind: SourceKind;
  offer(at: Connection): Promise<Offer>;
  read(at: Connection, asked: AskedOf): Promise<Answer>;
  /** Tells a no that was said here; the same once more is one. */
  tell?(at: Connection, refusal: ToldRefusal): Promise<void>;
  /** Asks to be told of changes at an address of ours, signed with a secret; null ends it. */
  listen?(at: Connection, type: string, hook: { url: string; secret: string } | null): Promise<void>;
}
