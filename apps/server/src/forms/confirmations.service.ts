import { decentMoment } from '../permission/decent-moment';
import { Inject, Injectable, Logger } from '@nestjs/common';
import {
  joinMarks,
  mayAskToConfirm,
  requestStands,
  isOptedOut,
  type Cell,
  type Channel,
  type Marks,
  type Place,
} from '@goodword/core/permission';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { PersonCellsRepository } from '../permission/ledger/facts.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import type { HandOver } from '../platform/mail-out';
import { programScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { carriedOver } from './address-correction';
import { ConfirmationsRepository, type ConfirmationRow } from './confirmations.repository';
import { FormsRepository } from './forms.repository';
import { FormPostsRepository } from './form-posts.repository';
import { RequestMail } from './request-mail';
import { EntriesRepository } from '../permission/ledger/entries.repository';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

const DAY_MS = 86_400_000;
const REMIND_AFTER_DAYS = 3;

export type ConfirmationOutcome =
  | { kind: 'done' | 'again'; row: ConfirmationRow }
  | { kind: 'expired'; row: ConfirmationRow }
  | { kind: 'unknown' };

/** A request that is about to go. */
interface Claimed {
  row: ConfirmationRow;
  sentId: number;
  place: Place;
  /** Nobody who had said no is reminded. */
  remind: boolean;
}

/** Requests to confirm: sent once with one reminder, and what comes of them. */
@Injectable()
export class ConfirmationsService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('confirmations');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(RequestMail) private readonly mail: RequestMail,
    @Inject(ConfirmationsRepository) private readonly confirmations: ConfirmationsRepository,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(FormPostsRepository) private readonly joining: FormPostsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** Sends the next confirmation that is due; false when there is none. */
  async sendOne(): Promise<boolean> {
    const due = await this.confirmations.due(this.database);
    if (!due) {
      await this.confirmations.sweep(this.database);
      return false;
    }
    const scope = programScope(due.organizationId);
    const claimed = await this.database.writeUnlogged(scope, (tx) => this.claim(tx, due.id));
    if (!claimed) return true;
    const organization = await this.team.organization(scope);
    const { result, words } = await this.mail.send(claimed.row, organization);
    await this.after(claimed, result, words, organization);
    return true;
  }

  /**
   * Decides whether the request may go, with everything else that went to the mailbox in hand, and marks it
   * as gone.
   */
  private async claim(tx: Scoped, id: number): Promise<Claimed | null> {
    const row = await this.confirmations.holdDue(tx, id);
    if (!row) return null;
    const place = await this.joining.person(tx, row.supporter_id);
    const marks = await this.marksAbout(tx, row);
    const { unanswered, all, neverAgain } = await this.confirmations.requestsTo(tx, row.mailbox);
    const address = {
      onHold: row.on_hold === 1,
      doNotContact: row.do_not_contact === 1,
      landline: row.landline === 1,
    };
    const request = {
      channel: row.channel,
      address,
      marks,
      unanswered,
      all,
      neverAgain,
      now: Date.now(),
      isReminder: row.sent > 0,
    };
    const stands = requestStands(row.asked_at.getTime(), marks) && row.expires_at.getTime() > Date.now();
    if (!place || !stands || !mayAskToConfirm(request)) {
      await this.confirmations.change(tx, id, {
        state: 'dropped',
        due_at: null,
        detail: 'The address may not be asked any more',
      });
      return null;
    }
    const sentId = await this.confirmations.claim(tx, row);
    return { row, sentId, place, remind: !isOptedOut(marks) };
  }

  /**
   * Everything on the channel that bears at the address, and at every other that leads to the same mailbox.
   */
  private async marksAbout(tx: Scoped, row: ConfirmationRow): Promise<Marks> {
    const person = await this.cells.one(tx, row.supporter_id, await this.houseRules.rules(tx));
    const cells: Cell[] = [...person.cells];
    const points = await this.confirmations.pointsOfMailbox(tx, row);
    for (const point of points) cells.push(...(await this.cells.atAddress(tx, point)));
    // A call is asked for by text: what stops texts stops the question too.
    const channels: Channel[] = row.channel === 'call' ? ['call', 'text'] : [row.channel];
    const about = (cell: Cell) =>
      channels.includes(cell.channel) &&
      // What somebody else said at another address of theirs is no answer to this.
      ((cell.supporterId === 0 && points.includes(cell.contactPointId)) ||
        (cell.supporterId === row.supporter_id && [0, row.contact_point_id].includes(cell.contactPointId)));
    return cells.filter(about).reduce<Marks>((marks, cell) => joinMarks(marks, cell.marks), {});
  }

  private async after(
    { row, sentId, place, remind }: Claimed,
    result: HandOver,
    words: string,
    organization: OrganizationRow,
  ): Promise<void> {
    await this.database.writeUnlogged(programScope(row.organization_id), async (tx) => {
      const now = await this.confirmations.find(tx, row.id, true);
      const settle = async (values: Parameters<ConfirmationsRepository['change']>[2]) => {
        // Confirmed while the answer of the gateway was on its way: that stands.
        if (now?.state === 'in-flight') await this.confirmations.change(tx, row.id, values);
      };
      if (result.kind === 'unreachable' || (result.kind === 'refused' && !result.permanent)) {
        await this.confirmations.keepSent(tx, sentId, null);
        const state = row.sent === 0 ? 'waiting' : 'sent';
        return settle({
          state,
          sent: row.sent,
          due_at: new Date(Date.now() + 30_000),
          detail: result.detail.slice(0, 300),
        });
      }
      if (result.kind === 'refused') {
        await this.confirmations.keepSent(tx, sentId, null);
        return settle({ state: 'dropped', detail: result.detail.slice(0, 300) });
      }
      await this.confirmations.keepSent(tx, sentId, words);
      const due = row.sent === 0 && remind ? await this.reminderAt(tx, row, place, organization) : null;
      await settle({ state: 'sent', due_at: due, detail: null });
    });
  }

  private async reminderAt(
    tx: Scoped,
    row: ConfirmationRow,
    place: Place,
    organization: OrganizationRow,
  ): Promise<Date> {
    const at = Date.now() + REMIND_AFTER_DAYS * DAY_MS;
    if (row.channel === 'email') return new Date(at);
    const rules = await this.houseRules.rules(tx);
    return new Date(decentMoment('text', place, { rules, homeZone: organization.time_zone }, at));
  }

  /** What a token stands for, without acting. */
  async look(token: string): Promise<ConfirmationOutcome> {
    const read = this.tokens.read('confirm', token);
    const row = read ? await this.confirmations.byToken(this.database, read.id) : undefined;
    if (!row || row.asks === null) {
      this.log.warn(
        { known: Boolean(read) },
        'a confirmation link that is none of ours, or of something gone',
      );
      return { kind: 'unknown' };
    }
    if (row.state === 'confirmed') return { kind: 'again', row };
    // Erased meanwhile: there is nothing left to confirm.
    if (row.asks.length === 0) return { kind: 'unknown' };
    const db = this.database.read(programScope(row.organization_id));
    return { kind: (await this.isOpen(db, row)) ? 'done' : 'expired', row };
  }

  /** Whoever says no after a request was made has answered it: an older request lifts nothing. */
  private async isOpen(db: Scoped, row: ConfirmationRow): Promise<boolean> {
    return (
      row.expires_at.getTime() >= Date.now() &&
      requestStands(row.asked_at.getTime(), await this.marksAbout(db, row))
    );
  }

  /** The press of the button: a yes for each thing asked, from the address itself. Twice is once. */
  async confirm(token: string, origin: string): Promise<ConfirmationOutcome> {
    const found = await this.look(token);
    if (found.kind !== 'done') return found;
    return this.database.write(programScope(found.row.organization_id), async (tx) => {
      const row = await this.confirmations.find(tx, found.row.id, true);
      if (!row) return { kind: 'unknown' };
      if (row.state === 'confirmed') return { kind: 'again', row };
      if (!(await this.isOpen(tx, row))) return { kind: 'expired', row };
      const page = `${this.config.PUBLIC_URL}/confirm`;
      await this.fulfil(tx, row, { origin, page, by: 'Confirmed by the button in our mail' });
      return { kind: 'done', row };
    });
  }

  /** An answer YES from the phone itself. Returns what was confirmed. */
  async confirmByText(tx: Scoped, contactPointId: number): Promise<ConfirmationRow[]> {
    const confirmed: ConfirmationRow[] = [];
    for (const row of await this.confirmations.openAt(tx, contactPointId)) {
      if (!(await this.isOpen(tx, row))) continue;
      await this.fulfil(tx, row, { origin: null, page: null, by: 'Confirmed by answering YES' });
      confirmed.push(row);
    }
    return confirmed;
  }

  /** Whose mailbox a link "never ask me again" is about; null for one that is none of ours. */
  async neverAskLook(token: string): Promise<ConfirmationRow | null> {
    const read = this.tokens.read('never-ask', token);
    return (read && (await this.confirmations.byToken(this.database, read.id))) || null;
  }

  async neverAsk(token: string): Promise<ConfirmationRow | null> {
    const row = await this.neverAskLook(token);
    if (row)
      await this.database.writeUnlogged(programScope(row.organization_id), (tx) =>
        this.confirmations.neverAsk(tx, row),
      );
    return row;
  }

  private async fulfil(
    tx: Scoped,
    row: ConfirmationRow,
    how: { origin: string | null; page: string | null; by: string },
  ): Promise<void> {
    const form = row.form_id ? await this.forms.find(tx, row.form_id) : undefined;
    const source = form ? `Form “${form.name}”, version ${row.version ?? 1}. ${how.by}` : how.by;
    if (row.kind === 'address') await this.correctAddress(tx, row);
    else
      await this.ledger.recordAll(
        tx,
        row.asks.map((ask) => ({
          contactPointId: row.contact_point_id,
          supporterId: row.supporter_id,
          channel: ask.channel ?? row.channel,
          scope: ask.scope,
          state: 'yes',
          saidAt: new Date(),
          byPerson: true,
          how: form ? 'form' : 'preferences',
          words: ask.words,
          source,
          origin: how.origin,
          form: form ? { id: form.id, version: row.version ?? 1 } : null,
          page: how.page,
        })),
      );
    await this.applyPending(tx, row);
    await this.confirmations.change(tx, row.id, {
      state: 'confirmed',
      confirmed_at: new Date(),
      due_at: null,
    });
    if (row.form_id) await this.forms.count(tx, row.form_id, 'confirmed');
  }

  /**
   * What the form said about somebody known counts now that they have shown that it was them. It fills blanks
   * only.
   */
  private async applyPending(tx: Scoped, row: ConfirmationRow): Promise<void> {
    const { pending, supporter_id: id } = row;
    if (!pending) return;
    const { firstName = '', lastName = '', country = null, language = null } = pending;
    if (firstName || lastName || country || language)
      await this.joining.fillBlanks(tx, id, { firstName, lastName, country, language });
    const there = new Set((await this.fields.valuesOf(tx, [id])).map((value) => value.field_id));
    for (const { fieldId, value } of pending.values ?? [])
      if (!there.has(fieldId)) await this.fields.set(tx, id, fieldId, value);
    for (const tagId of pending.tagIds ?? []) await this.groups.put(tx, 'tag', id, tagId);
    for (const listId of pending.listIds ?? []) await this.groups.put(tx, 'list', id, listId);
    for (const address of pending.addresses ?? [])
      await this.contacts.addPoint(tx, id, { ...address, doNotContact: false });
    if (pending.addresses?.some(({ kind }) => kind === 'post')) await this.contacts.keepPostcode(tx, id);
    if (row.kind === 'join') await this.contacts.hangPoint(tx, id, row.contact_point_id);
  }

  /**
   * The new address takes the place of the one it corrects, with what was agreed and refused there; links in
   * mails to the old one act for it.
   */
  private async correctAddress(tx: Scoped, row: ConfirmationRow): Promise<void> {
    const kind = row.channel === 'email' ? 'email' : 'mobile';
    const points = await this.contacts.points(tx, [row.supporter_id]);
    const before =
      points.find((point) => point.id === row.pending?.replaces) ??
      points.find((point) => point.kind === kind);
    await this.contacts.addPoint(tx, row.supporter_id, {
      kind,
      normal: row.normal,
      shown: row.shown,
      doNotContact: row.do_not_contact === 1,
    });
    if (before && before.id !== row.contact_point_id) {
      const change = { supporterId: row.supporter_id, from: before.id, to: row.contact_point_id };
      const [entries, atOld, atNew] = [
        await this.entries.entriesOf(tx, row.supporter_id),
        await this.cells.atAddress(tx, change.from),
        await this.cells.atAddress(tx, change.to),
      ];
      await this.contacts.replacePoint(tx, row.supporter_id, change.from, change.to);
      await this.ledger.recordAll(tx, carriedOver(entries, atOld, atNew, change));
      await tx.insert('address_change', {
        supporter_id: row.supporter_id,
        from_point_id: change.from,
        to_point_id: change.to,
      });
    }
    await audit(
      tx,
      'contact',
      { supporter: row.supporter_id },
      `They changed their ${kind} to ${row.shown} themselves`,
      { before: before?.shown ?? null, after: row.shown },
    );
  }
}
