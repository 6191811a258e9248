import type { TestHouse } from '../harness';
import type { ModelChannel, Model, ModelPlace, Saying, Someone } from './model';

/** The running services, as one history needs them. */
export interface Services {
  readonly house: TestHouse;
  /** The scope of the public list, and the form for it. */
  readonly list: string;
  readonly slug: string;
  readonly confirmDays: number;
  /** Beginning and end of a day in the zone of the house. */
  day(iso: string): [number, number];
  newAddress(h: History, who: Someone): Promise<ModelPlace>;
  /** An erased address: nobody knows it any more, but that it had refused. */
  forget(h: History, who: Someone, where: ModelPlace): void;
  mailIn(from: string, to: string, text: string): Promise<void>;
  textIn(from: string, text: string): Promise<void>;
  /** A report about the mail with this link. */
  reportSpam(leave: string): Promise<void>;
  /** The newest question at an address, and when it was asked. */
  newestTask(contactPointId: number): Promise<number>;
  taskAt(id: number): Promise<number>;
  /** Whether a request to confirm has gone out to an address and waits for its answer. */
  isAsked(contactPointId: number): Promise<boolean>;
}

/** Repeatable chance (mulberry32). */
export function seededChance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let x = Math.imul(state ^ (state >>> 15), 1 | state);
    x = (x + Math.imul(x ^ (x >>> 7), 61 | x)) ^ x;
    return ((x ^ (x >>> 14)) >>> 0) / 4294967296;
  };
}

/** A mail that arrived: its link is a key to leaving and choosing. */
export interface ArrivedMail {
  who: Someone;
  where: ModelPlace;
  scope: string;
  leave: string;
  replyTo: string;
  at: number;
  /** A provider's report about it counts once. */
  reported?: boolean;
}

/** A question that a form or page put to an address. */
export interface ModelRequest {
  who: Someone;
  where: ModelPlace;
  channel: ModelChannel;
  scope: string;
  at: number;
  /** How many mails had arrived before it. */
  from: number;
  done: boolean;
}

/**
 * Two records that are one for a while: the addresses of the one that stays, and what the other came with.
 */
export interface Merged {
  kept: Someone;
  gone: Someone;
  own: ModelPlace[];
  moved: Saying[];
  /** How many sayings there were. */
  from: number;
}

/**
 * Does something in the program and tells the model; says what it did, or null where there was nothing to do.
 */
export type Act = (h: History) => Promise<string | null>;

/** A few people who share some addresses, and all that is done to them; each act is told to the model too. */
export class History {
  readonly people: Someone[] = [];
  readonly places: ModelPlace[] = [];
  readonly mails: ArrivedMail[] = [];
  readonly requests: ModelRequest[] = [];
  readonly log: string[] = [];
  merged: Merged | null = null;
  readonly random: () => number;
  private readonly headers: Record<string, string>;

  constructor(
    readonly world: Services,
    readonly model: Model,
    readonly n: number,
    seed: number,
  ) {
    this.random = seededChance(seed);
    this.headers = { 'x-forwarded-for': `198.51.${(n >> 8) & 255}.${n & 255}` };
  }

  one<T>(from: readonly T[]): T | undefined {
    return from[Math.floor(this.random() * from.length)];
  }

  get living(): Someone[] {
    return this.people.filter((one) => !one.erased && !one.into);
  }

  addressOf(who: Someone, kind: ModelPlace['kind']): ModelPlace | undefined {
    return this.one(who.addresses.filter((one) => one.kind === kind));
  }

  ownersOf(where: ModelPlace): Someone[] {
    return this.living.filter((one) => one.addresses.includes(where));
  }

  say(saying: Omit<Saying, 'at'> & { at?: number }): void {
    this.model.say({ at: Date.now(), ...saying });
  }

  async post(path: string, fields: [string, string][] | Record<string, string>): Promise<number> {
    const body = new URLSearchParams(fields);
    return (
      await fetch(this.world.house.config.PUBLIC_URL + path, {
        method: 'POST',
        body,
        headers: this.headers,
        redirect: 'manual',
      })
    ).status;
  }

  /** Does one of the acts that there is an occasion for. */
  async step(acts: readonly [string, Act][]): Promise<void> {
    for (let tries = 0; tries < 8; tries++) {
      const [name, act] = this.one(acts)!;
      const did = await act(this);
      if (did === null) continue;
      this.log.push(`${name}: ${did}`);
      return;
    }
  }
}
