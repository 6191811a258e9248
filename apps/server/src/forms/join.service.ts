import { Inject, Injectable } from '@nestjs/common';
import { matchRow } from '@goodword/core/intake';
import type { FormAnswer, FormAsk, Language } from '@goodword/core/forms';
import { mustConfirm, rulesFor, type SendingChannel } from '@goodword/core/permission';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { LedgerRepository } from '../permission/ledger.repository';
import { standingAt } from '../permission/standings';
import { audit } from '../platform/audit';
import { Database, type Scoped } from '../platform/database';
import { programScope } from '../platform/scope';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { SupportersRepository } from '../supporters/supporters.repository';
import { ConfirmationsRepository } from './confirmations.repository';
import { FormsRepository, type FormRow } from './forms.repository';
import { JoiningRepository } from './joining.repository';

/** Somebody joins by a form or a keyword: matched as any row is, and recorded as their own act, with the words they saw. */
@Injectable()
export class JoinService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(JoiningRepository) private readonly joining: JoiningRepository,
    @Inject(ConfirmationsRepository) private readonly confirmations: ConfirmationsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
  ) {}

  /** From the form to the ledger in one transaction. */
  async join(form: FormRow, answer: FormAnswer, around: { origin: string; language: Language }): Promise<void> {
    await this.database.write(programScope(form.organization_id), async (tx) => {
      await this.record(tx, form, answer, { ...around, how: 'form' });
      await this.forms.count(tx, form.id, 'joined');
    });
  }

  /** As `join`, inside a transaction; a keyword comes from the phone itself, so there is nothing to confirm. */
  async record(
    tx: Scoped,
    form: FormRow,
    answer: FormAnswer,
    around: { origin: string | null; language: Language | null; how: 'form' | 'keyword' },
  ): Promise<void> {
    await this.hold(tx, answer);
    const { supporterId, known } = await this.person(tx, form, answer, around.language);
    const points = await this.addresses(tx, supporterId, answer);
    await this.values(tx, supporterId, answer, known);
    for (const tagId of form.definition.tagIds) await this.groups.put(tx, 'tag', supporterId, tagId);
    for (const listId of form.definition.listIds) await this.groups.put(tx, 'list', supporterId, listId);
    const place = (await this.joining.person(tx, supporterId))!;
    const rules = rulesFor(await this.houseRules.rules(tx), place);
    for (const channel of ['email', 'text', 'call'] as const) {
      const asks = answer.agreed.filter((ask) => ask.channel === channel);
      const point = channel === 'email' ? points.email : points.mobile;
      if (asks.length === 0 || point === undefined) continue;
      const states = await this.ledger.statesOf(tx, [supporterId]);
      const stand = (ask: FormAsk) => standingAt(states, { contactPointId: point, channel, scope: ask.scope }, Date.now(), rules).state;
      const saidNo = asks.some((ask) => stand(ask) === 'no');
      const open = asks.filter((ask) => stand(ask) !== 'yes');
      const confirm = mustConfirm({ how: around.how, channel, states: asks.map(stand), formAsks: form.definition.confirm.email === 'always', rules });
      for (const ask of asks)
        await this.ledger.record(tx, {
          contactPointId: point,
          supporterId,
          channel,
          scope: ask.scope,
          state: confirm && open.includes(ask) ? 'asked' : 'yes',
          saidAt: new Date(),
          byPerson: true,
          how: around.how,
          words: ask.words,
          source: `Form “${form.name}”, version ${form.version}`,
          origin: around.origin,
        });
      // Nobody is asked by a call: after a no to calls, the question waits for a person who speaks to them.
      if (confirm && channel !== 'call')
        await this.ask(tx, form, supporterId, point, channel, open, { saidNo, withinDays: rules.confirm.withinDays });
    }
  }

  private async ask(
    tx: Scoped,
    form: FormRow,
    supporterId: number,
    contactPointId: number,
    channel: SendingChannel,
    asks: readonly FormAsk[],
    rule: { saidNo: boolean; withinDays: number },
  ): Promise<void> {
    await this.confirmations.add(tx, {
      kind: 'join',
      formId: form.id,
      version: form.version,
      supporterId,
      contactPointId,
      channel,
      asks: asks.map(({ scope, words }) => ({ scope, words })),
      expiresAt: new Date(Date.now() + rule.withinDays * 86_400_000),
      saidNo: rule.saidNo,
    });
  }

  /** The same address and an agreeing name is the same person; another name is somebody who shares the address. */
  private async person(tx: Scoped, form: FormRow, answer: FormAnswer, language: Language | null): Promise<{ supporterId: number; known: boolean }> {
    const candidates = [
      ...(answer.email ? await this.joining.candidates(tx, { kind: 'email', normal: answer.email.normal }) : []),
      ...(answer.mobile ? await this.joining.candidates(tx, { kind: 'mobile', normal: answer.mobile.normal }) : []),
    ];
    const match = matchRow(answer, candidates);
    const about = {
      firstName: answer.firstName,
      lastName: answer.lastName,
      country: answer.country ?? answer.mobile?.country?.slice(0, 2) ?? null,
      language,
    };
    // The email of one person with the mobile of another: the email decides, and the number is shared from now on.
    const id = match.kind === 'same' ? match.id : match.kind === 'look' && match.why === 'two-people' ? match.candidates[0]!.id : null;
    if (id === null) return { supporterId: await this.joining.make(tx, { ...about, chapterId: form.definition.chapterId }), known: false };
    const before = await this.joining.person(tx, id);
    await this.joining.fillBlanks(tx, id, about);
    const differing = [
      ['First name', before?.first_name, answer.firstName],
      ['Last name', before?.last_name, answer.lastName],
    ].filter(([, old, now]) => old && now && old !== now);
    for (const [what, old, now] of differing)
      await audit(tx, {
        act: 'form',
        subject: 'supporter',
        subjectId: id,
        words: `The form “${form.name}” says ${what} ${now}; ${old} is kept`,
        before: old,
        after: now,
      });
    return { supporterId: id, known: true };
  }

  /**
   * Holds the addresses until the transaction ends, made where they are new: whoever posts the same ones at the same
   * moment (a button pressed twice) waits here, and then finds the person that the first has made.
   */
  private async hold(tx: Scoped, answer: FormAnswer): Promise<void> {
    for (const kind of ['email', 'mobile'] as const) {
      const address = answer[kind];
      if (!address) continue;
      const doNotContact = await this.doNotContact.isClosed(tx, kind, address.normal);
      await this.supporters.ensurePoint(tx, { kind, normal: address.normal, shown: address.shown, doNotContact });
    }
  }

  private async addresses(tx: Scoped, supporterId: number, answer: FormAnswer): Promise<{ email?: number; mobile?: number }> {
    const out: { email?: number; mobile?: number } = {};
    for (const kind of ['email', 'mobile'] as const) {
      const address = answer[kind];
      if (address)
        out[kind] = await this.supporters.addPoint(tx, supporterId, { kind, normal: address.normal, shown: address.shown, doNotContact: false });
    }
    return out;
  }

  private async values(tx: Scoped, supporterId: number, answer: FormAnswer, known: boolean): Promise<void> {
    const there = new Set(known ? (await this.fields.valuesOf(tx, [supporterId])).map((row) => row.field_id) : []);
    for (const { fieldId, value } of answer.values) if (!there.has(fieldId)) await this.fields.set(tx, supporterId, fieldId, value);
  }
}
