import { Inject, Injectable, Logger } from '@nestjs/common';
import type { TextHook } from '@goodword/core/contract';
import { readKeyword, type Keyword } from '@goodword/core/text';
import { LedgerRepository } from '../permission/ledger.repository';
import { Database, type Scoped } from '../platform/database';
import { programScope } from '../platform/scope';
import { TEXT_OUT, type TextOut } from '../platform/text-out';
import { WaysOutRepository } from '../waysout/waysout.repository';
import { OutboxRepository } from '../sending/outbox.repository';
import { InboundRepository } from './inbound.repository';

/** What texts back to a number do. Each is kept once, acted on at once, and answered at most once. */
@Injectable()
export class TextsService {
  private readonly log = new Logger('texts');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(WaysOutRepository) private readonly waysOut: WaysOutRepository,
    @Inject(OutboxRepository) private readonly outbox: OutboxRepository,
    @Inject(TEXT_OUT) private readonly textOut: TextOut,
  ) {}

  async receive(text: Extract<TextHook, { type: 'inbound' }>): Promise<void> {
    const organization = await this.inbound.organizationOf(this.database, text.to);
    if (!organization) return this.log.warn({ to: text.to }, "a text to a number that is nobody's");
    const answer = await this.database.write(programScope(organization.id), (tx) => this.act(tx, text, organization.name));
    if (answer) await this.answer(organization.text_from, text, answer);
  }

  /** Keeps the text and does what it asks; returns the words to answer with, if any. */
  private async act(tx: Scoped, text: { id: string; from: string; text: string }, organization: string): Promise<string | null> {
    const keyword = readKeyword(text.text);
    const point = await this.inbound.point(tx, 'mobile', text.from);
    const last = await this.inbound.lastDelivery(tx, point);
    const supporterId = last?.supporterId ?? (await this.inbound.ownerOf(tx, point));
    const fresh = await this.inbound.keepReply(tx, {
      key: text.id,
      channel: 'text',
      sender: text.from,
      contactPointId: point,
      supporterId,
      deliveryId: last?.id ?? null,
      body: text.text,
      keyword,
    });
    if (!fresh) return null;
    if (keyword === 'none' && last && (await this.waysOut.mark(tx, last.id, 'replied'))) await this.waysOut.event(tx, last, 'replied', text.text);
    return this.obey(tx, keyword, { point, supporterId, last, words: text.text, organization });
  }

  private async obey(
    tx: Scoped,
    keyword: Keyword,
    about: {
      point: number;
      supporterId: number | null;
      last: Awaited<ReturnType<InboundRepository['lastDelivery']>>;
      words: string;
      organization: string;
    },
  ): Promise<string | null> {
    const entry = {
      contactPointId: about.point,
      channel: 'text' as const,
      saidAt: new Date(),
      byPerson: true,
      how: 'keyword' as const,
      words: about.words,
      source: 'Texted to us',
    };
    switch (keyword) {
      case 'stop': {
        // Asked before the entry: whoever has stopped already is not answered a second time.
        const already = await this.inbound.standsAtNo(tx, about.point);
        await this.ledger.record(tx, { ...entry, supporterId: about.supporterId, scope: 'all', state: 'no' });
        if (about.last && (await this.waysOut.mark(tx, about.last.id, 'left_it')))
          await this.waysOut.event(tx, about.last, 'left', `Texted ${about.words.slice(0, 40)}`);
        return already ? null : `${about.organization}: you will get no more texts from us. Text START to come back.`;
      }
      case 'start': {
        if (!(await this.inbound.standsAtNo(tx, about.point))) return null;
        const before = await this.inbound.agreedBefore(tx, about.point);
        for (const { supporter_id, scope } of before) await this.ledger.record(tx, { ...entry, supporterId: supporter_id, scope, state: 'yes' });
        return before.length > 0 ? `${about.organization}: welcome back. You get the texts you had before. Text STOP to leave, HELP for help.` : null;
      }
      case 'help':
        return `${about.organization}: texts to people who asked for them. Text STOP to leave. Reply here and a person will read it.`;
      case 'none':
        return null;
    }
  }

  /** The answer's key is that of the question, so the gateway sends it once however often we try. */
  private async answer(from: string, text: { id: string; from: string }, body: string): Promise<void> {
    for (let attempt = 1; attempt <= 4; attempt++) {
      const result = await this.textOut.send({ from, to: text.from, body, key: `answer-${text.id}` });
      if (result.kind !== 'unreachable') return;
      await new Promise((done) => setTimeout(done, 500 * attempt));
    }
    this.log.error({ text: text.id }, 'the gateway did not take an answer');
  }

  async receipt(receipt: Extract<TextHook, { type: 'receipt' }>): Promise<void> {
    const delivery = await this.inbound.deliveryByKey(this.database, receipt.key);
    if (!delivery) return;
    await this.database.write(programScope(delivery.organization_id), async (tx) => {
      const state = receipt.status === 'delivered' ? 'delivered' : 'bounced';
      if (!(await this.inbound.setState(tx, delivery.id, state, receipt.reason ?? ''))) return;
      await this.outbox.event(tx, [delivery.id], state, receipt.reason ?? '');
      if (state === 'bounced') await this.outbox.hold(tx, delivery.contact_point_id, receipt.reason || 'The network could not deliver a text');
    });
  }
}
