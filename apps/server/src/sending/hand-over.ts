import { hostname } from 'node:os';
import type { MergeValues } from '@goodword/core/merge';
import type { Basis } from '@goodword/core/words';
import type { FactsRepository } from '../permission/ledger/facts.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { type Database } from '../platform/database';
import type { HandOver } from '../platform/mail-out';
import { DomainRests } from '@goodword/core/delivery';
import { isLostConnection } from '../platform/database-errors';
import { traced } from '../platform/tracing';
import { programScope, type AccessScope } from '../platform/scope';
import { NO_END } from '../messages/composer';
import { ComposingService } from '../messages/composing.service';
import { wantedFor, type MessageValuesService } from '../messages/message-values.service';
import { MessagesRepository } from '../messages/messages.repository';
import type { SegmentsService } from '../segments/segments.service';
import type { TeamRepository } from '../team/team.repository';
import type { EnvelopeService, MessageContext } from './envelope.service';
import { eligibilityQueryOf } from './last-look.service';
import type { LeasesRepository } from './leases.repository';
import { paceOf } from './pace';
import type { AtDoorBeside, DeliveryOutcome, OutboxRepository } from './outbox.repository';
import type { LeasedDelivery } from './leases.repository';

interface Parts {
  database: Database;
  outbox: OutboxRepository;
  leases: LeasesRepository;
  envelopes: EnvelopeService;
  messages: MessagesRepository;
  composing: ComposingService;
  values: MessageValuesService;
  facts: FactsRepository;
  houseRules: HouseRulesRepository;
  team: TeamRepository;
  segments: SegmentsService;
}

interface Options {
  leaseSeconds: number;
  /** Deliveries under way at once: no more than these can be unsure after a kill. */
  atOnce: number;
  /** For how long a provider or a database that does not answer is left alone. */
  faultMs: number;
  sliceSize?: number;
}

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/**
 * Hands deliveries over, a leased slice at a time. Each delivery passes the door (decided again, marked as
 * under way, committed), goes to the provider, and has its outcome written down. Many pass the door in one
 * transaction: whoever is waiting when the last one commits shares the next.
 */
export class HandOverLoop {
  readonly name = `${hostname().slice(0, 24)}:${process.pid}:${Math.random().toString(36).slice(2, 8)}`;
  private stopping = false;
  private slices = 0;
  private nextSweep = 0;
  /** Mail providers that ask for a while, as this worker has met them. */
  private readonly rests = new DomainRests();
  private readonly paces = new Map<string, () => Promise<void>>();

  constructor(
    private readonly parts: Parts,
    private readonly options: Options,
    private readonly log: { info(o: object, m: string): void; error(o: object, m: string): void },
  ) {}

  stop(): void {
    this.stopping = true;
  }

  /** One round over all messages that are going out; false when there was nothing to do. */
  async round(): Promise<boolean> {
    await this.sweep();
    let worked = false;
    const done = new Set<number>();
    for (;;) {
      // Asked anew after each slice, so that a word to one person that came meanwhile waits for one slice at
      // most.
      const next = (await this.parts.outbox.sendingMessages()).find((one) => !done.has(one.id));
      if (!next || this.stopping) break;
      const { id, organization_id, chapter_id } = next;
      done.add(id);
      const scope = programScope(organization_id, chapter_id);
      // Each slice is held under a name of its own: what this worker leased once and lost is not its own
      // again when it leases the same delivery a second time.
      const holder = `${this.name}:${++this.slices}`;
      const slice = await this.parts.leases.lease(
        scope,
        id,
        holder,
        this.options.leaseSeconds,
        this.options.sliceSize ?? 400,
        next.channel === 'email' && next.personal_to === null,
      );
      if (slice.length === 0) await this.parts.outbox.finish(scope, id);
      else
        worked = await traced('hand-over', { message: id, deliveries: slice.length }, () =>
          this.handOverSlice(scope, id, holder, slice),
        );
    }
    return worked;
  }

  /** Takes up what a dead worker left, now and then: leases are counted in seconds. */
  private async sweep(): Promise<void> {
    if (Date.now() < this.nextSweep) return;
    this.nextSweep = Date.now() + Math.min(2000, (this.options.leaseSeconds * 1000) / 4);
    const swept = await this.parts.leases.sweep(this.parts.envelopes.canRepeatTexts);
    if (swept.back + swept.unsure > 0) this.log.info(swept, 'took up what another worker left');
  }

  private async handOverSlice(
    scope: AccessScope,
    messageId: number,
    holder: string,
    slice: LeasedDelivery[],
  ): Promise<boolean> {
    const beat = setInterval(
      () =>
        void this.parts.leases.renewLeases(scope, holder, this.options.leaseSeconds).catch(() => undefined),
      (this.options.leaseSeconds * 1000) / 3,
    );
    try {
      const context = await this.context(scope, messageId);
      const ids = slice.map((delivery) => delivery.supporter_id);
      const values = await this.parts.values.of(scope, ids, wantedFor(context.message, context));
      await this.withoutEnd(scope, context, slice, values);
      const bases = await this.parts.facts.bases(
        this.parts.database.read(scope),
        slice.flatMap((one) => one.entry_id ?? []),
      );
      const beside = await this.beside(scope, context, ids);
      const door = new Door(this.parts, holder, scope, { context, beside }, this.options);
      const unreachable = await this.lanes(door, context, slice, { values, bases });
      if (this.stopping || unreachable) await this.parts.leases.giveBack(holder);
      if (unreachable) await pause(this.options.faultMs);
      return !unreachable;
    } finally {
      clearInterval(beat);
    }
  }

  /**
   * Some deliveries side by side. Returns whether the provider could not be reached; throws the first fault,
   * but only when every lane has ended and what has gone is written down: no lane outlives its slice.
   */
  private async lanes(
    door: Door,
    context: MessageContext,
    slice: readonly LeasedDelivery[],
    known: { values: Map<number, MergeValues>; bases: Map<number, Basis> },
  ): Promise<boolean> {
    const queue = [...slice];
    const resting = new Map<number, number[]>();
    let [unreachable, failed] = [false, false];
    const next = (): ReadyDelivery | undefined => {
      const delivery = this.nextOf(context, queue, resting);
      if (!delivery) return undefined;
      const ready = this.parts.envelopes.ready(context, {
        deliveryId: delivery.id,
        key: delivery.provider_key,
        to: delivery.to_address,
        place: delivery,
        basis: known.bases.get(delivery.entry_id ?? 0) ?? null,
        values: known.values.get(delivery.supporter_id) ?? {},
      });
      // Where it fails, it is told in its turn.
      ready.catch(() => undefined);
      return { delivery, ready };
    };
    const isText = context.message.channel === 'text';
    const turn = this.paceOfNumber(isText ? context.organization : null);
    const lane = async (): Promise<void> => {
      let own = next();
      while (own && !this.stopping && !unreachable && !failed) {
        const { delivery, ready } = own;
        // While one passes the door and goes out, the next is filled and signed.
        own = next();
        // Ready first: what can't be filled has not left.
        const handOver = await ready;
        await turn();
        if (!(await door.pass(delivery))) continue;
        const result = await handOver();
        if (result.kind === 'unreachable') unreachable = true;
        if (context.message.channel === 'email') this.hear(delivery.to_address, result);
        door.record({ delivery, result });
      }
    };
    const ended = await Promise.allSettled(
      Array.from({ length: this.options.atOnce }, () =>
        lane().catch((error: unknown) => {
          failed = true;
          throw error;
        }),
      ),
    );
    await door.settled();
    for (const [until, ids] of resting)
      await this.parts.leases.putOff(
        programScope(context.organization.id),
        door.holder,
        ids,
        new Date(until),
      );
    const fault = ended.find((one) => one.status === 'rejected');
    if (fault) throw fault.reason;
    return unreachable;
  }

  /** The next one whose mail provider may be asked; the others are kept apart, by when it may be. */
  private nextOf(
    { message }: MessageContext,
    queue: LeasedDelivery[],
    resting: Map<number, number[]>,
  ): LeasedDelivery | undefined {
    const now = Date.now();
    for (let one = queue.shift(); one; one = queue.shift()) {
      const from = message.channel === 'email' ? this.rests.from(one.to_address, now) : now;
      if (from <= now) return one;
      const others = resting.get(from);
      if (others) others.push(one.id);
      else resting.set(from, [one.id]);
    }
    return undefined;
  }

  /** A mailbox that is full says nothing of its provider. */
  private hear(address: string, result: HandOver): void {
    if (result.kind === 'accepted') this.rests.taken(address);
    else if (result.kind === 'refused' && !result.permanent && result.fault !== 'full')
      this.rests.putOff(address, Date.now());
  }

  /** The pace of the number that texts come from, one for all slices of this worker. */
  private paceOfNumber(organization: MessageContext['organization'] | null): () => Promise<void> {
    const perSecond = organization?.text_number?.perSecond ?? null;
    if (!organization || perSecond === null) return () => Promise.resolve();
    const key = `${organization.text_from} ${perSecond}`;
    let pace = this.paces.get(key);
    if (!pace) this.paces.set(key, (pace = paceOf(perSecond)));
    return pace;
  }

  /** Leaves out how to end texts for whom the house's rule says that a text told them lately enough. */
  private async withoutEnd(
    scope: AccessScope,
    { message, rules }: MessageContext,
    slice: readonly LeasedDelivery[],
    values: Map<number, MergeValues>,
  ): Promise<void> {
    const days = rules.textEndDays ?? 0;
    if (message.channel !== 'text' || days === 0) return;
    const told = await this.parts.outbox.textedInSpan(this.parts.database.read(scope), slice, days);
    for (const delivery of slice) {
      const own = values.get(delivery.supporter_id);
      if (own && told.has(delivery.contact_point_id)) own[NO_END] = '1';
    }
  }

  /** What the message belongs to; who is excepted by the sentence of an automatic one is asked now. */
  private async beside(
    scope: AccessScope,
    { campaign, automation }: MessageContext,
    people: readonly number[],
  ): Promise<AtDoorBeside> {
    if (automation === null || automation.excepted === null) return { campaign, automation };
    const own = { ...scope, chapterId: automation.chapterId };
    const [excepted] = await this.parts.segments.among(own, [automation.excepted], people);
    return { campaign, automation, excepted };
  }

  private async context(scope: AccessScope, messageId: number): Promise<MessageContext> {
    const message = await this.parts.messages.find(this.parts.database.read(scope), messageId);
    if (!message) throw new Error(`expected message ${messageId}, got none`);
    const { composed, organization, listName, whyOf } = await this.parts.composing.compose(scope, message);
    const rules = await this.parts.houseRules.rules(this.parts.database.read(scope));
    const sender = message.sender_id ? await this.parts.team.teammate(scope, message.sender_id) : undefined;
    const db = this.parts.database.read(scope);
    const campaign = await this.parts.outbox.campaignOf(db, messageId);
    const automation = await this.parts.outbox.automationOf(db, messageId);
    return { message, composed, organization, sender, listName, whyOf, rules, campaign, automation };
  }
}

/** A delivery that is filled and signed, or will be. */
interface ReadyDelivery {
  delivery: LeasedDelivery;
  ready: Promise<() => Promise<HandOver>>;
}

/** Faults of the database other than its absence, one after the other, before outcomes are given up. */
const MOST_FAULTS = 5;
/** For how long those at the door wait for others. */
const BREATH_MS = 4;

interface Waiting {
  delivery: LeasedDelivery;
  answer(go: boolean): void;
  fail(error: unknown): void;
}

/** The door: group commit of decisions and outcomes. */
class Door {
  private waiting: Waiting[] = [];
  private outcomes: DeliveryOutcome[] = [];
  private faults = 0;
  private running: Promise<void> | null = null;
  private arrived: () => void = () => undefined;

  constructor(
    private readonly parts: Parts,
    readonly holder: string,
    private readonly scope: AccessScope,
    private readonly about: { context: MessageContext; beside: AtDoorBeside },
    private readonly options: Options,
  ) {}

  pass(delivery: LeasedDelivery): Promise<boolean> {
    return new Promise((answer, fail) => {
      this.waiting.push({ delivery, answer, fail });
      this.arrived();
      this.wake();
    });
  }

  record(outcome: DeliveryOutcome): void {
    this.outcomes.push(outcome);
    this.wake();
  }

  /** Resolves when everything handed in is written down. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
  }

  private wake(): void {
    this.running ??= this.run().finally(() => {
      this.running = null;
      if (this.waiting.length + this.outcomes.length > 0) this.wake();
    });
  }

  private async run(): Promise<void> {
    await this.gathered();
    const [waiting, outcomes] = [this.waiting, this.outcomes];
    [this.waiting, this.outcomes] = [[], []];
    try {
      const go = await this.commit(waiting, outcomes);
      waiting.forEach((one) => one.answer(go.has(one.delivery.id)));
      this.faults = 0;
    } catch (error) {
      // What has gone must be written down, however long the database is away; nothing new leaves meanwhile.
      this.outcomes.unshift(...outcomes);
      if (isLostConnection(error)) this.waiting.unshift(...waiting);
      else {
        waiting.forEach((one) => one.fail(error));
        // A fault that stays would keep this worker for good; what it could not write down is shown as unsure
        // when the lease ends.
        if (++this.faults >= MOST_FAULTS) this.outcomes = [];
      }
      await pause(this.options.faultMs);
    }
  }

  /**
   * A breath, so that lanes that end at nearly the same moment share one commit: until all of them are here,
   * or a few milliseconds have gone. Measured: of 5 lanes 2.5 shared one without it, and most of the work of
   * a mail was its commit.
   */
  private gathered(): Promise<void> {
    return new Promise((done) => {
      const timer = setTimeout(done, BREATH_MS);
      this.arrived = () => {
        if (this.waiting.length < this.options.atOnce) return;
        clearTimeout(timer);
        setImmediate(done);
      };
      this.arrived();
    });
  }

  private async commit(waiting: Waiting[], outcomes: DeliveryOutcome[]): Promise<Set<number>> {
    const { database, outbox, houseRules } = this.parts;
    const { message, automation, organization } = this.about.context;
    return database.write(this.scope, async (tx) => {
      // Whoever is written to now has had one more, which the cap counts.
      const people = [...waiting, ...outcomes].map(({ delivery }) => delivery.supporter_id);
      tx.changed('reach', 0, people);
      tx.changed('messages', 0, people);
      if (outcomes.length > 0) await outbox.record(tx, outcomes);
      if (waiting.length === 0) return new Set<number>();
      const rules = await houseRules.rules(tx);
      const query = eligibilityQueryOf(message, rules, automation?.cause ?? null);
      const asking = { ...query, ...this.about.beside };
      const ids = waiting.map((one) => one.delivery.id);
      return outbox.door(tx, this.holder, message.id, ids, asking, organization.time_zone);
    });
  }
}
