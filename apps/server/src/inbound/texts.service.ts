import { Inject, Injectable, Logger } from '@nestjs/common';
import type { TextHookBody } from '@goodword/core/contract';
import { textFault } from '@goodword/core/delivery';
import { isConfirmWord, keywordKey, readIntent, type ReplyIntent } from '@goodword/core/text';
import { cleanMobile } from '@goodword/core/intake';
import { ConfirmationsService } from '../forms/confirmations.service';
import { FormsRepository, type FormRow } from '../forms/forms.repository';
import { JoinService } from '../forms/join.service';
import { TagTriggersService } from '../messages/tag-triggers.service';
import { marksFor, isOptedOut } from '@goodword/core/permission';
import { PersonCellsRepository } from '../permission/ledger/facts.repository';
import { HoldsRepository } from '../permission/holds.repository';
import type { NewEntry } from '../permission/ledger/entries';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';
import { programScope } from '../platform/scope';
import { TEXT_OUT, type TextOut } from '../platform/text-out';
import { UnsubscribeRepository } from '../unsubscribe/unsubscribe.repository';
import { addEvents } from '../sending/delivery-events';
import { DeliveryFaultsRepository } from '../sending/delivery-faults.repository';
import { automaticAnswersOf, type AutomaticAnswers } from './answers';
import { RepliesRepository } from '../replies/replies.repository';
import { InboundRepository, type LastDelivery } from './inbound.repository';
import { TasksRepository } from '../today/tasks.repository';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

type Inbound = Extract<TextHookBody, { type: 'inbound' }>;

/** A text that was read, and whose number it came from. */
interface About {
  point: number;
  owners: readonly number[];
  last: LastDelivery | undefined;
  words: string;
  replyId: number;
  answers: AutomaticAnswers;
}

function entryOf({ point, words, replyId }: About): Omit<NewEntry, 'supporterId' | 'state'> {
  const said = {
    channel: 'text',
    scope: 'all',
    saidAt: new Date(),
    byPerson: true,
    how: 'keyword',
    words,
    source: 'Texted to us',
  } as const;
  return { ...said, contactPointId: point, replyId };
}

const ANSWER_WITHIN_MS = 5 * 60_000;

/** What texts back to a number do. Each is kept once, acted on at once, and answered at most once. */
@Injectable()
export class TextsService {
  private readonly log = new Logger('texts');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
    @Inject(RepliesRepository) private readonly replies: RepliesRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(UnsubscribeRepository) private readonly unsubscribe: UnsubscribeRepository,
    @Inject(HoldsRepository) private readonly holds: HoldsRepository,
    @Inject(DeliveryFaultsRepository) private readonly faults: DeliveryFaultsRepository,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(JoinService) private readonly joining: JoinService,
    @Inject(ConfirmationsService) private readonly confirmations: ConfirmationsService,
    @Inject(TasksRepository) private readonly tasks: TasksRepository,
    @Inject(TagTriggersService) private readonly tagTriggers: TagTriggersService,
    @Inject(TEXT_OUT) private readonly textOut: TextOut,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async receive(text: Inbound): Promise<void> {
    const organization = await this.inbound.organizationOf(this.database, text.to);
    if (!organization) return this.log.warn({ to: text.to }, "a text to a number that is nobody's");
    const answer = await this.database.write(programScope(organization.id), (tx) =>
      this.act(tx, text, automaticAnswersOf(organization)),
    );
    // A text that was itself long on its way is acted on and not answered.
    const sentAt = text.at ? Date.parse(text.at) : Date.now();
    if (answer) await this.answer(organization.text_from, text, answer, sentAt + ANSWER_WITHIN_MS);
  }

  /** Keeps the text and does what it asks; returns the words to answer with, if any. */
  private async act(tx: Scoped, text: Inbound, answers: AutomaticAnswers): Promise<string | null> {
    const asks = readIntent(text.text);
    const keyword = asks === 'hold' ? 'none' : asks;
    const point = await this.inbound.point(tx, 'mobile', text.from);
    const last = await this.inbound.lastDelivery(tx, point);
    const owners = await this.contacts.ownersOf(tx, point);
    const supporterId = last?.supporterId ?? owners[0] ?? null;
    const replyId = await this.replies.keep(tx, {
      key: text.id,
      channel: 'text',
      sender: text.from,
      contactPointId: point,
      supporterId,
      deliveryId: last?.id ?? null,
      body: text.text,
      keyword,
      receivedAt: text.at ? new Date(text.at) : new Date(),
    });
    if (replyId === null) return null;
    if (keyword === 'none') {
      const answer = await this.join(tx, text, point, answers);
      if (answer) return answer;
      if (asks === 'hold') await this.holdForAPerson(tx, point, supporterId, text);
    }
    if (keyword === 'none' && last && (await this.unsubscribe.mark(tx, last.id, 'replied'))) {
      await this.unsubscribe.event(tx, last, 'replied', text.text);
      await this.tagTriggers.done(tx, last, 'replied');
    }
    return this.obey(tx, asks, { point, owners, last, words: text.text, replyId, answers });
  }

  /**
   * A word that joins, or a YES to an open question. Returns the one answer, or null where the text is
   * neither.
   */
  private async join(
    tx: Scoped,
    text: { id: string; from: string; text: string },
    point: number,
    answers: AutomaticAnswers,
  ): Promise<string | null> {
    if (isConfirmWord(text.text) && (await this.confirmations.confirmByText(tx, point)).length > 0) {
      await this.replies.settle(tx, text.id, 'confirm');
      return answers.start;
    }
    const form = await this.forms.byKeyword(tx, keywordKey(text.text).slice(0, 20));
    if (!form) return null;
    await this.replies.settle(tx, text.id, 'join');
    await this.joinBy(tx, form, text);
    return answers.start;
  }

  /** The phone itself asks, so what the keyword agrees to is a yes at once, in the words of the form. */
  private async joinBy(tx: Scoped, form: FormRow, text: { from: string }): Promise<void> {
    const mobile = cleanMobile(text.from, 'US');
    const number = mobile.ok ? mobile : { normal: text.from, shown: text.from };
    const agreed = form.definition.asks.filter((ask) => ask.channel === 'text');
    const answer = {
      firstName: '',
      lastName: '',
      email: null,
      mobile: number,
      country: null,
      post: null,
      values: [],
      agreed,
    };
    await this.joining.record(tx, form, answer, { origin: null, language: null, how: 'keyword' });
    await this.forms.count(tx, form.id, 'joined');
  }

  /** Says stop in its own words: the channel is held at once, and a person says what was meant. */
  private async holdForAPerson(
    tx: Scoped,
    point: number,
    supporterId: number | null,
    text: { id: string; text: string },
  ): Promise<void> {
    await this.holds.holdForAnswer(tx, point, `Texted “${text.text.slice(0, 200)}”`);
    await this.tasks.add(tx, {
      kind: 'stop',
      contactPointId: point,
      supporterId,
      replyKey: text.id,
      words: text.text,
    });
  }

  private async obey(tx: Scoped, asks: ReplyIntent, about: About): Promise<string | null> {
    switch (asks) {
      case 'stop':
        return this.stop(tx, about);
      case 'start':
        return this.start(tx, about);
      case 'help':
        return about.answers.help;
      case 'hold':
      case 'none':
        return null;
    }
  }

  /**
   * Closes the number, and everybody whose it is wherever they can be texted: nobody knows who of several
   * said it.
   */
  private async stop(tx: Scoped, about: About): Promise<string | null> {
    const already = await this.isStopped(tx, about);
    const people = about.owners.length > 0 ? about.owners : [null];
    await this.ledger.recordAll(
      tx,
      people.map((supporterId) => ({ ...entryOf(about), supporterId, state: 'no' })),
    );
    if (about.last && (await this.unsubscribe.mark(tx, about.last.id, 'left_it')))
      await this.unsubscribe.event(tx, about.last, 'left', `Texted ${about.words.slice(0, 40)}`);
    // Whoever has stopped already is not answered a second time.
    return already ? null : about.answers.stop;
  }

  /**
   * Opens again what STOP closed at this number and nothing else; a question of what was meant is answered by
   * it.
   */
  private async start(tx: Scoped, about: About): Promise<string | null> {
    const [stopped, asked] = [
      await this.isStopped(tx, about),
      await this.tasks.answerByStart(tx, about.point),
    ];
    if (asked) await this.holds.releaseAnswered(tx, about.point, 'START from the number');
    // Written down also where nothing is closed: a STOP of before may be entered later.
    await this.ledger.record(tx, { ...entryOf(about), supporterId: null, state: 'start' });
    if (!stopped) return asked ? about.answers.start : null;
    // What was left otherwise stays left, and the answer says nothing else.
    return (await this.isStopped(tx, about)) ? about.answers.help : about.answers.start;
  }

  /**
   * Whether texts to the number are closed: by anybody at it, or by whoever has it, wherever they said so.
   */
  private async isStopped(tx: Scoped, { point, owners }: Pick<About, 'point' | 'owners'>): Promise<boolean> {
    const cells = [...(await this.cells.atAddress(tx, point)), ...(await this.cells.everywhere(tx, owners))];
    const asked = { contactPointId: point, channel: 'text', scope: 'all' } as const;
    return [0, ...owners].some(
      (supporterId) => isOptedOut(marksFor(cells, { ...asked, supporterId })) !== undefined,
    );
  }

  /**
   * The answer's key is that of the question, so the gateway sends it once however often we try. The first
   * try is waited for; while the gateway is away it is tried again beside, for five minutes from the text and
   * no longer: 47 CFR 64.1200(a)(12) wants a text that confirms leaving within five minutes.
   */
  private async answer(
    from: string,
    text: { id: string; from: string },
    body: string,
    until: number,
  ): Promise<void> {
    const send = async () =>
      Date.now() < until &&
      (await this.textOut.send({ from, to: text.from, body, key: `answer-${text.id}` })).kind ===
        'unreachable';
    if (await send()) void this.tryAgain(send, text.id);
  }

  private async tryAgain(send: () => Promise<boolean>, id: string): Promise<void> {
    for (let wait = 500; ; wait = Math.min(wait * 2, 20_000)) {
      await new Promise((done) => setTimeout(done, wait).unref());
      if (!(await send())) return;
      this.log.warn({ text: id }, 'the gateway does not take an answer yet');
    }
  }

  async receipt(receipt: Extract<TextHookBody, { type: 'receipt' }>): Promise<void> {
    const delivery = await this.inbound.deliveryByKey(this.database, receipt.key);
    if (!delivery) return;
    await this.database.write(programScope(delivery.organization_id), async (tx) => {
      const state = receipt.status === 'delivered' ? 'delivered' : 'bounced';
      // What could not be delivered does not count towards the cap.
      tx.reached.add(delivery.contact_point_id);
      const { code = '', reason = '' } = receipt;
      const detail = [code, reason].filter(Boolean).join(' ');
      const fault = state === 'bounced' ? textFault({ code, reason }) : null;
      if (!(await this.inbound.setState(tx, delivery.id, state, detail, fault))) return;
      await addEvents(tx, [delivery.id], state, detail);
      if (fault !== null)
        await this.faults.follow(tx, {
          ...delivery,
          fault,
          detail: detail || sentence('send.text-undelivered'),
        });
    });
  }
}
