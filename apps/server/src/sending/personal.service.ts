import { Inject, Injectable } from '@nestjs/common';
import type { PersonalMessageBody, PersonalVerdict } from '@goodword/core/contract';
import { type Purpose, type SendingChannel } from '@goodword/core/permission';
import { verdictWords } from '@goodword/core/words';
import { ComposingService } from '../messages/composing.service';
import { MessagesRepository, type Composable } from '../messages/messages.repository';
import { LetterCheckService } from '../messages/letter-check.service';
import { SaidService } from '../messages/said.service';
import { TemplatesRepository } from '../messages/templates.repository';
import { mannerColumns, seenTemplate } from '../messages/words-from';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Bound, type Scoped } from '../platform/scoped';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { enqueue } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import { RepliesRepository, type ReplyRow } from '../replies/replies.repository';
import { SupportersRepository, type PersonRow } from '../supporters/supporters.repository';
import { SendingRepository } from './sending.repository';
import { sentence } from '../platform/words';

/**
 * A message to one person from their record: the same verdict, the same outbox, the same door, kept like any
 * other.
 */
@Injectable()
export class PersonalService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(LetterCheckService) private readonly letters: LetterCheckService,
    @Inject(RepliesRepository) private readonly replies: RepliesRepository,
    @Inject(SaidService) private readonly said: SaidService,
    @Inject(TemplatesRepository) private readonly templates: TemplatesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
  ) {}

  async verdict(
    scope: AccessScope,
    id: number,
    asked: { channel: SendingChannel; purpose: Purpose },
  ): Promise<PersonalVerdict> {
    const db = this.database.read(scope);
    await this.person(db, id);
    return this.decide(db, id, asked);
  }

  private async decide(
    db: Scoped,
    id: number,
    { channel, purpose }: { channel: SendingChannel; purpose: Purpose },
  ): Promise<PersonalVerdict> {
    const rules = await this.houseRules.rules(db);
    const asking = { channel, scope: purpose, rules, now: new Date(), ownAct: purpose === 'service' };
    const { decision, shown } = await this.sending.decisionOf(db, id, asking);
    return { verdict: decision.verdict, words: verdictWords(decision.verdict, channel), to: shown };
  }

  /** Sends it now. Whatever stands in the way is told before anything is kept. */
  async send(scope: AccessScope, id: number, message: PersonalMessageBody): Promise<{ id: number }> {
    await this.letters.check(scope, message.letter);
    const said = await this.said.to(scope, await this.wordsOf(scope, message), {
      senderId: scope.actorId,
      supporterId: id,
    });
    return this.database.writeUnlogged(scope, async (tx) => {
      // Before anything is read: what somebody else answered meanwhile is seen then.
      const answered = await this.answered(tx, id, message.answers);
      const person = await this.person(tx, id);
      const { verdict, words } = await this.decide(tx, id, message);
      if (verdict !== 'send')
        throw new Conflict(
          sentence('send.may-not', {
            person: nameOf(person),
            why: `${words.charAt(0).toLowerCase()}${words.slice(1)}`,
          }),
        );
      const made = await this.messages.make(tx, {
        name: `To ${nameOf(person)}`.slice(0, 120),
        channel: message.channel,
        purpose: message.purpose,
      });
      await this.messages.change(tx, made, {
        subject: message.subject,
        letter: message.letter === null ? null : JSON.stringify(message.letter),
        body: message.text,
        recipients: JSON.stringify({ from: [{ kind: 'person', id }], minus: [], without: [] }),
        personal_to: id,
        ...(await this.origin(tx, message.templateId ?? null)),
        said,
        answers_reply: answered?.id ?? null,
        in_reply_to: answered?.mail_id ?? null,
        state: 'preparing',
      });
      const row = (await this.messages.find(tx, made))!;
      const faults = await this.composing.faults(tx, row);
      if (faults.length > 0)
        throw new Invalid(
          faults.map((fault) => ({ field: fault.where, code: 'words', message: fault.message })),
        );
      const asks = await this.composing.asks(tx, row);
      if (asks.length > 0) {
        const message = `A service message may not ask, and this does (“${asks.join('”, “')}”). Write it as an appeal, or leave that out.`;
        throw new Invalid([{ field: 'message', code: 'asks', message }]);
      }
      // Answered is done, in the same stroke: nothing is answered and left open, or done and not answered.
      if (answered) await this.replies.handle(tx, answered, true);
      await enqueue(tx.knex, scope, 'message-personal', made);
      await audit(tx, 'send', { message: made }, `Written to ${nameOf(person)} alone`);
      return { id: made };
    });
  }

  private async wordsOf(scope: AccessScope, message: PersonalMessageBody): Promise<Composable> {
    const { channel, purpose, subject, letter, text } = message;
    const templateId = message.templateId ?? null;
    const template =
      templateId === null ? null : await seenTemplate(this.database.read(scope), this.templates, templateId);
    const { locale = null, ask = null } = template ?? {};
    return {
      channel,
      purpose,
      list_id: null,
      subject,
      preheader: '',
      letter,
      body: text,
      locale,
      ask,
      plainly: 0,
    };
  }

  /** The template that the words began with; they were changed since, and nothing else of it is taken. */
  private async origin(tx: Scoped, templateId: number | null): Promise<Record<string, Bound>> {
    if (templateId === null) return {};
    const template = await seenTemplate(tx, this.templates, templateId);
    return {
      template_id: template.id,
      template_version: template.version,
      ...mannerColumns(template),
    };
  }

  /** The reply that it answers: one of theirs, and not answered by somebody else while this was written. */
  private async answered(
    tx: Scoped,
    id: number,
    answers: PersonalMessageBody['answers'],
  ): Promise<ReplyRow | null> {
    if (!answers) return null;
    const reply = await this.replies.lock(tx, answers.replyId);
    if (!reply || reply.supporter_id !== id) throw new NotFound('reply');
    const last = await this.messages.lastTo(tx, id);
    if (last && last.id !== answers.after)
      throw new Conflict(sentence('reply.answered-meanwhile', { name: last.by ?? 'Somebody' }));
    return reply;
  }

  private async person(db: Scoped, id: number): Promise<PersonRow> {
    const person = await this.supporters.find(db, id);
    if (!person) throw new NotFound('supporter');
    return person;
  }
}

const nameOf = (person: PersonRow) =>
  `${person.first_name} ${person.last_name}`.trim() || 'somebody without a name';
