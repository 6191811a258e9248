import { setTimeout as timer } from 'node:timers/promises';
import type { INestApplicationContext } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import { CONFIRMATIONS_DUE } from './forms/confirmations.repository';
import { ConfirmationsService } from './forms/confirmations.service';
import { RetentionService } from './intake/retention/retention.service';
import { ComposingService } from './messages/composing.service';
import { MessageValuesService } from './messages/message-values.service';
import { MessagesRepository } from './messages/messages.repository';
import { FactsRepository } from './permission/ledger/facts.repository';
import { HouseRulesRepository } from './permission/house-rules.repository';
import type { Config } from './platform/config';
import { Database } from './platform/database';
import { isLostConnection } from './platform/database-errors';
import { due } from './platform/due';
import { JOBS, JobRunner, JOBS_DUE, LANES } from './platform/jobs';
import { SenderService } from './sender/sender.service';
import { TellingService } from './feeds/telling/telling.service';
import { FeedClock } from './feeds/running/feed-clock.service';
import { RoundsService } from './automatic/rounds.service';
import { SegmentSizes } from './segments/segment-sizes';
import { SegmentsService } from './segments/segments.service';
import { EnvelopeService } from './sending/envelope.service';
import { HandOverLoop } from './sending/hand-over';
import { LeasesRepository } from './sending/leases.repository';
import { DELIVERIES_DUE, OutboxRepository } from './sending/outbox.repository';
import { Sessions } from './platform/sessions';
import { SignInBrake } from './team/sign-in-brake';
import { TeamRepository } from './team/team.repository';
import { LINKS_DUE } from './team/teammates.repository';
import { TeammateLinks } from './team/teammate-links.service';

const BOOKKEEPING_CONNECTIONS = 3;
const SWEEP_MS = 600_000;
/** Where nothing was due for so long, the worker looks half as often and less: nights are long. */
const AT_REST_AFTER_MS = 60_000;
const AT_REST = 2.5;
/**
 * Looks after which deliveries are asked for unbidden: nobody tells of what another worker gave back while
 * its message was stopped.
 */
const AT_LEAST = 25;
/** Looks between two at what sets automatic messages going. */
const AUTOMATIC = 10;
/** Looks between two at which feeds are due. */
const FEEDS = 5;
/** Looks for which a fault is waited out. */
const AFTER_FAULT = 2.5;

export interface Worker {
  /** Runs until stopped. */
  run(): Promise<void>;
  /** Ends after what is under way: nothing is cut off between a provider's answer and its record. */
  stop(): Promise<void>;
}

/** What has ended is taken away now and then. */
function sweeper(context: INestApplicationContext): () => Promise<boolean> {
  const [sessions, brake, sender] = [
    context.get(Sessions),
    context.get(SignInBrake),
    context.get(SenderService),
  ];
  let sweptAt = 0;
  return async () => {
    if (Date.now() - sweptAt < SWEEP_MS) return false;
    sweptAt = Date.now();
    await sessions.sweep();
    await brake.sweep();
    await sender.sweep();
    return false;
  };
}

/** The loop over deliveries, with all that it needs. */
function handOverLoop(context: INestApplicationContext, config: Config, log: PinoLogger): HandOverLoop {
  const parts = {
    database: context.get(Database),
    outbox: context.get(OutboxRepository),
    leases: context.get(LeasesRepository),
    envelopes: context.get(EnvelopeService),
    messages: context.get(MessagesRepository),
    composing: context.get(ComposingService),
    values: context.get(MessageValuesService),
    facts: context.get(FactsRepository),
    houseRules: context.get(HouseRulesRepository),
    team: context.get(TeamRepository),
    segments: context.get(SegmentsService),
  };
  return new HandOverLoop(
    parts,
    {
      leaseSeconds: config.LEASE_SECONDS,
      atOnce: config.SMTP_CONNECTIONS,
      faultMs: AFTER_FAULT * config.POLL_MS,
    },
    log,
  );
}

/**
 * The worker: a loop over each lane of jobs, one over deliveries, one over confirmations, one that looks for
 * them all.
 */
export function createWorker(context: INestApplicationContext, config: Config): Worker {
  const log = new PinoLogger({});
  log.setContext('worker');
  const database = context.get(Database);
  const handlers = JOBS.handlers((doer) => context.get(doer));
  const confirmations = context.get(ConfirmationsService);
  const retention = context.get(RetentionService);
  const sizes = context.get(SegmentSizes);
  const automatic = context.get(RoundsService);
  const links = context.get(TeammateLinks);
  const feeds = context.get(FeedClock);
  const telling = context.get(TellingService);
  // Leases are renewed and work says how far it is on connections of their own: never behind the work itself.
  const bookkeeping = new Database(config.DATABASE_URL, BOOKKEEPING_CONNECTIONS);
  const jobs = new JobRunner(bookkeeping, handlers, config.LEASE_SECONDS, log);
  const handOver = handOverLoop(context, config, log);
  const stopping = new AbortController();
  let running: Promise<unknown> = Promise.resolve();
  /** Ends early when the worker is asked to stop. */
  const pause = (ms: number): Promise<void> =>
    timer(ms, undefined, { signal: stopping.signal }).catch(() => undefined);

  /**
   * Does a step after the other; after one with nothing to do waits, by the clock or until it is told of
   * work.
   */
  const loop = async (step: () => Promise<boolean>, wait: () => Promise<void>): Promise<void> => {
    while (!stopping.signal.aborted) {
      try {
        if (!(await step())) await wait();
      } catch (error) {
        log.error(
          { err: error },
          isLostConnection(error) ? 'the database does not answer; waiting' : 'a round of work failed',
        );
        await pause(AFTER_FAULT * config.POLL_MS);
      }
    }
  };
  const after = (ms: number) => () => pause(ms);
  /** Who works when one of some words is due; one lane never waits for another. */
  const lane = (words: readonly string[], step: () => Promise<boolean>, atLeast = 0) => ({
    words,
    step,
    atLeast,
    wake: (): void => undefined,
  });
  const lanes = [
    ...LANES.map((kinds) => lane(kinds, () => jobs.runOne(kinds))),
    lane(['deliveries'], () => handOver.round(), AT_LEAST * config.POLL_MS),
    lane(['confirmations'], () => confirmations.sendOne()),
    lane(['links'], () => links.sendOne()),
  ];
  let dueAt = Date.now();
  const untilNextLook = () =>
    pause(Date.now() - dueAt > AT_REST_AFTER_MS ? AT_REST * config.POLL_MS : config.POLL_MS);
  /** One look for all lanes, and a word to those for which there is something. */
  const look = async (): Promise<boolean> => {
    const words = await due(database, [JOBS_DUE, DELIVERIES_DUE, CONFIRMATIONS_DUE, LINKS_DUE]);
    if (words.size > 0) dueAt = Date.now();
    for (const { words: own, wake } of lanes) if (own.some((word) => words.has(word))) wake();
    return false;
  };
  const told = (one: (typeof lanes)[number]) => (): Promise<void> => {
    if (stopping.signal.aborted) return Promise.resolve();
    return new Promise((done) => {
      const clock = one.atLeast > 0 ? setTimeout(() => one.wake(), one.atLeast) : undefined;
      one.wake = () => (clearTimeout(clock), done());
    });
  };
  return {
    run() {
      log.info({ name: handOver.name }, 'worker ready');
      running = Promise.all([
        loop(look, untilNextLook).finally(() => lanes.forEach(({ wake }) => wake())),
        ...lanes.map((one) => loop(one.step, told(one))),
        loop(sweeper(context), after(1000)),
        loop(() => retention.round(), after(5000)),
        loop(() => sizes.round(), after(5000)),
        loop(() => automatic.round(), after(AUTOMATIC * config.POLL_MS)),
        loop(() => feeds.round(), after(FEEDS * config.POLL_MS)),
        loop(() => telling.round(), after(FEEDS * config.POLL_MS)),
      ]);
      return running.then(() => undefined);
    },
    async stop() {
      stopping.abort();
      handOver.stop();
      await running;
      await bookkeeping.close();
    },
  };
}
