/*
 * The product's own words on permission ("Permission, the heart"), read as plainly as they stand and without
 * a look at the core: everything that was ever said is kept in one list, and each question goes through all
 * of it.
 */
export type ModelChannel = 'email' | 'text' | 'call' | 'post';
export type ModelKind = 'email' | 'mobile' | 'post';
export const KIND_OF: Record<ModelChannel, ModelKind> = {
  email: 'email',
  text: 'mobile',
  call: 'mobile',
  post: 'post',
};
export const MODEL_CHANNELS: ModelChannel[] = ['email', 'text', 'call', 'post'];
export const COUNTRIES = ['US', 'CA', 'FR'];
export const SCOPES = ['appeals', 'news', 'service'];
export const DAY_MS = 86_400_000;

export interface Saying {
  at: number;
  /** Who said it, or whom it is about. */
  who: Someone;
  /** Through or for which address; null: without one. */
  where: ModelPlace | null;
  channel: ModelChannel;
  scope: string;
  what: 'yes' | 'no' | 'gift' | 'asked' | 'pause' | 'start';
  /** By an act of the person's own. */
  own: boolean;
  /** STOP, or own words in a text or an answer: what START lifts. */
  stop?: boolean;
  until?: number;
  /** The mail whose link it was said by. */
  mail?: object;
  batch?: object;
  takenBack?: boolean;
  /** Said of both by a merge, until they are parted. */
  byMerge?: boolean;
}

/** An address. */
export interface ModelPlace {
  kind: ModelKind;
  normal: string;
  id: number;
  onHold: boolean;
  /** Files that said it bounces and have not been taken back out since. */
  bounces: object[];
  closed: boolean;
  landline: boolean;
  /** Open questions of what somebody meant. */
  questions: number[];
}

export interface Someone {
  id: number;
  name: string;
  addresses: ModelPlace[];
  country: string;
  /** Countries of before, each with the moment until which. */
  before: { country: string; until: number }[];
  erased: boolean;
  /** The record that this one was brought into. */
  into: Someone | null;
}

/** Who they are by now: the record that theirs was brought into. */
export const alive = (who: Someone): Someone => (who.into ? alive(who.into) : who);

export type ModelNeed = 'yes' | 'implied' | 'nothing';

/** What the house asks for, as the histories set it. */
export interface Rules {
  needs: Record<
    string,
    Record<Exclude<ModelChannel, 'text'>, { list: ModelNeed; service: ModelNeed; other: ModelNeed }>
  >;
  /** Months that a gift counts, null where it does not. */
  gift: Record<string, number | null>;
}

export type ModelAnswer =
  'send' | 'no-address' | 'do-not-contact' | 'said-no' | 'on-hold' | 'asked' | 'no-permission' | 'paused';

/** Everything that was said in one history, and what it comes to. */
export class Model {
  readonly sayings: Saying[] = [];
  constructor(private readonly rules: Rules) {}

  say(saying: Saying): void {
    this.sayings.push(saying);
  }

  /** Scope "everything" covers all; "marketing" all but service; any other itself. */
  private covers(said: string, asked: string): boolean {
    return said === 'all' || said === asked || (said === 'marketing' && asked !== 'service');
  }

  /** Of a question: all that was said on the channel and covers the scope. */
  private about(channel: ModelChannel, scope: string): Saying[] {
    return this.sayings.filter(
      (one) => !one.takenBack && one.channel === channel && this.covers(one.scope, scope),
    );
  }

  /**
   * The No that stands for a person at an address: said through the address by anybody, or by the person
   * anywhere, with no agreement of their own at this address later, nor, for a STOP, a START of this number
   * later.
   */
  standingNo(who: Someone, where: ModelPlace, channel: ModelChannel, scope: string): boolean {
    const said = this.about(channel, scope);
    const back = said
      .filter((one) => one.what === 'yes' && one.own && one.who === who && one.where === where)
      .map((one) => one.at);
    const start = said.filter((one) => one.what === 'start' && one.where === where).map((one) => one.at);
    return said.some(
      (one) =>
        one.what === 'no' &&
        (one.where === where || one.who === who) &&
        !back.some((at) => at > one.at) &&
        !(one.stop && start.some((at) => at > one.at)),
    );
  }

  /**
   * Whether a person is closed at an address, theirs or not yet: at one that is not theirs every No of theirs
   * stands, and a START that somebody else sent from there is none of theirs.
   */
  closed(who: Someone, where: ModelPlace, channel: ModelChannel, scope: string): boolean {
    if (who.addresses.includes(where)) return this.standingNo(who, where, channel, scope);
    return this.about(channel, scope).some((one) => one.what === 'no' && one.who === who);
  }

  state(
    who: Someone,
    where: ModelPlace,
    channel: ModelChannel,
    scope: string,
    now: number,
  ): 'yes' | 'implied' | 'asked' | 'never' | 'no' {
    if (this.standingNo(who, where, channel, scope)) return 'no';
    const own = this.about(channel, scope).filter((one) => one.who === who && one.where === where);
    if (own.some((one) => one.what === 'yes')) return 'yes';
    // Of several gifts it is the newest that the relationship rests on.
    const gifts = own.filter((one) => one.what === 'gift').map((one) => one.at);
    if (gifts.length > 0 && this.giftLasts(who, Math.max(...gifts), now)) return 'implied';
    return own.some((one) => one.what === 'asked') ? 'asked' : 'never';
  }

  /** By the rule of the place where it began and of the place now; through the last day so many months on. */
  private giftLasts(who: Someone, at: number, now: number): boolean {
    const then = who.before.find((one) => at < one.until)?.country ?? who.country;
    return [then, who.country].every((country) => {
      const months = this.rules.gift[country] ?? null;
      if (months === null) return false;
      const end = new Date(at);
      end.setUTCMonth(end.getUTCMonth() + months);
      end.setUTCHours(23, 59, 59, 999);
      return now <= end.getTime();
    });
  }

  private paused(who: Someone, channel: ModelChannel, now: number): boolean {
    const last = this.sayings
      .filter((one) => one.what === 'pause' && one.who === who && one.channel === channel)
      .at(-1);
    return last !== undefined && (last.until ?? 0) >= now;
  }

  /** Whether a person may be written to at one address of theirs, and if not, why. */
  at(who: Someone, where: ModelPlace, channel: ModelChannel, scope: string, now: number): ModelAnswer {
    if (!who.addresses.includes(where) || (channel === 'text' && where.landline)) return 'no-address';
    if (where.closed) return 'do-not-contact';
    const state = this.state(who, where, channel, scope, now);
    if (state === 'no') return 'said-no';
    if (where.onHold) return 'on-hold';
    if (!this.suffices(who, channel, scope, state)) return state === 'asked' ? 'asked' : 'no-permission';
    return scope !== 'service' && this.paused(who, channel, now) ? 'paused' : 'send';
  }

  private suffices(
    who: Someone,
    channel: ModelChannel,
    scope: string,
    state: 'yes' | 'implied' | 'asked' | 'never',
  ): boolean {
    if (state === 'yes') return true;
    if (state === 'asked' || channel === 'text') return false;
    const needs = this.rules.needs[who.country]![channel];
    const need = scope === 'service' ? needs.service : scope.startsWith('list:') ? needs.list : needs.other;
    return need === 'nothing' || (need === 'implied' && state === 'implied');
  }

  /** The first address that may be written to; else the reason at the first. */
  person(
    who: Someone,
    channel: ModelChannel,
    scope: string,
    now: number,
  ): { answer: ModelAnswer; to: ModelPlace | null } {
    let first: ModelAnswer | null = null;
    for (const where of who.addresses) {
      if (where.kind !== KIND_OF[channel] || (channel === 'text' && where.landline)) continue;
      const answer = this.at(who, where, channel, scope, now);
      if (answer === 'send') return { answer, to: where };
      first ??= answer;
    }
    return { answer: first ?? 'no-address', to: null };
  }
}
