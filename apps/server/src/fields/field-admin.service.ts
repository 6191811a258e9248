import { Inject, Injectable } from '@nestjs/common';
import type {
  ChangeField,
  ChoiceUse,
  Conversion,
  FieldAdminView,
  FieldDeletion,
  FieldView,
} from '@goodword/core/contract';
import {
  CHOICE_SEPARATOR,
  choicesOf,
  coerce,
  formatValue,
  isoValue,
  type FieldType,
  type FieldValue,
} from '@goodword/core/fields';
import { nameKey } from '@goodword/core/merge';
import { segmentLines, type Rule } from '@goodword/core/segment';
import { speak } from '@goodword/core/words';
import { AutomationsRepository } from '../automations/automations.repository';
import { StepsRepository } from '../campaigns/steps.repository';
import { FormsRepository } from '../forms/forms.repository';
import { MessagesRepository } from '../messages/messages.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { SegmentsService } from '../segments/segments.service';
import { FieldsRepository, valueOf } from '../supporters/fields.repository';
import { FieldsService } from '../supporters/fields.service';
import { TeamRepository, typedIn } from '../team/team.repository';
import { FieldAdminRepository } from './field-admin.repository';
import { sentence } from '../platform/words';

const MOST_EXAMPLES = 20;

/** Fields as they are kept in order: named, sectioned, converted, deleted. */
@Injectable()
export class FieldAdminService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(FieldsService) private readonly names: FieldsService,
    @Inject(FieldAdminRepository) private readonly admin: FieldAdminRepository,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async all(scope: AccessScope): Promise<FieldAdminView[]> {
    const db = this.database.read(scope);
    const [fields, counts] = await Promise.all([this.fields.all(db), this.admin.counts(db)]);
    return fields.map((field) => ({
      ...field,
      people: counts.get(field.id) ?? 0,
      mergeName: `{${field.name}}`,
    }));
  }

  async change(scope: AccessScope, id: number, change: ChangeField, was: ChangeField): Promise<void> {
    const field = await this.field(this.database.read(scope), id);
    if (nameKey(change.name) !== nameKey(field.name)) {
      const using = await this.messagesNaming(scope, field.name);
      if (using.length > 0)
        throw new Conflict(
          sentence('field.in-use', { names: quoted(using), count: using.length, field: field.name }),
        );
    }
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      await tx.lockOrganization();
      stillAs(was, changeable(await this.field(tx, id)), 'this field');
      if (nameKey(change.name) !== nameKey(field.name)) await this.names.checkName(tx, change.name);
      await this.admin.change(tx, id, change);
      await audit(tx, 'change', { field: id }, `Field ${change.name} changed`, {
        before: field.name,
        after: change.name,
      });
    });
  }

  async order(scope: AccessScope, ids: readonly number[]): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.admin.order(tx, ids));
  }

  /** What changing the type would do, without doing it. */
  async conversion(scope: AccessScope, id: number, type: FieldType): Promise<Conversion> {
    if (type === 'file') throw new Conflict(sentence('field.no-value-to-file'));
    const db = this.database.read(scope);
    const [field, organization] = [await this.field(db, id), await this.team.organization(scope)];
    const told: Conversion = { values: 0, wont: 0, examples: [], preview: [] };
    for await (const rows of this.admin.values(db, id)) {
      for (const row of rows) {
        const from = formatValue(field.type, valueOf(row), organization);
        const read = coerce(type, isoValue(field.type, valueOf(row)), typedIn(organization));
        told.values += 1;
        if (!read.ok) {
          told.wont += 1;
          if (told.examples.length < MOST_EXAMPLES)
            told.examples.push({
              supporterId: row.supporter_id,
              name: row.name,
              value: from,
              reason: speak(read.reason),
            });
        } else if (told.preview.length < 5)
          told.preview.push({ from, to: formatValue(type, read.value, organization) });
      }
    }
    return told;
  }

  /** Changes the type where every value converts; otherwise nothing is touched. */
  async setType(scope: AccessScope, id: number, type: FieldType): Promise<void> {
    if (type === 'file') throw new Conflict(sentence('field.no-value-to-file'));
    const field = await this.field(this.database.read(scope), id);
    const used = (await this.segments.list(scope)).filter((segment) =>
      segmentLines(segment.tree).some((line) => line.kind === 'field' && line.field === id),
    );
    if (used.length > 0)
      throw new Conflict(
        sentence('field.asked-for', { names: quoted(used.map(({ name }) => name)), count: used.length }),
      );
    await this.database.write(scope, async (tx) => {
      const organization = await this.team.organization(tx);
      for await (const rows of this.admin.values(tx, id)) {
        const converted: { supporterId: number; value: FieldValue }[] = [];
        for (const row of rows) {
          const read = coerce(type, isoValue(field.type, valueOf(row)), typedIn(organization));
          if (!read.ok)
            throw new Conflict(
              sentence('field.value-unfit', { row: row.name || 'somebody', reason: read.reason }),
            );
          converted.push({ supporterId: row.supporter_id, value: read.value });
        }
        await this.admin.put(tx, id, converted);
      }
      await this.admin.setType(tx, id, type);
      await audit(tx, 'type', { field: id }, `${field.name} is ${type} now`, {
        before: field.type,
        after: type,
      });
    });
  }

  async renameChoice(scope: AccessScope, id: number, from: string, to: string): Promise<{ people: number }> {
    return this.database.write(scope, async (tx) => {
      const field = await this.field(tx, id);
      const people = await this.renamed(tx, field, from, to);
      const choices = field.choices && [
        ...new Set(field.choices.map((choice) => (choice === from ? to : choice))),
      ];
      await this.admin.change(tx, id, { ...field, choices });
      await audit(
        tx,
        'choice',
        { field: id },
        `${field.name}: “${from}” is “${to}” now, for ${people} people`,
        { before: from, after: to },
      );
      return { people };
    });
  }

  private async renamed(tx: Scoped, field: FieldView, from: string, to: string): Promise<number> {
    if (field.type === 'choice') return this.admin.renameChoice(tx, field.id, from, to);
    if (field.type !== 'choices') throw new Invalid(sentence('field.choices-alone'));
    if (choicesOf(to).length !== 1) throw new Invalid(sentence('field.choice-marks'));
    let people = 0;
    for await (const rows of this.admin.values(tx, field.id)) {
      const changed = rows.flatMap((row) => {
        const had = choicesOf(row.text_value ?? '');
        const has = [...new Set(had.map((choice) => (choice === from ? to : choice)))];
        return had.includes(from)
          ? [{ supporterId: row.supporter_id, value: { text: has.join(CHOICE_SEPARATOR) } }]
          : [];
      });
      people += changed.length;
      if (changed.length > 0) await this.admin.put(tx, field.id, changed);
    }
    tx.changed('field', field.id, 'everybody');
    return people;
  }

  async choices(scope: AccessScope, id: number): Promise<ChoiceUse[]> {
    const db = this.database.read(scope);
    const field = await this.field(db, id);
    if (field.type !== 'choice' && field.type !== 'choices') return [];
    const had = await this.admin.choicesHad(db, id);
    const offered = (field.choices ?? [])
      .filter((choice) => !had.has(choice))
      .map((choice): [string, number] => [choice, 0]);
    return [...[...had].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0])), ...offered]
      .slice(0, 500)
      .map(([choice, people]) => ({ choice, people }));
  }

  /** What goes with it, and who uses it. */
  async deletion(scope: AccessScope, id: number): Promise<FieldDeletion> {
    const db = this.database.read(scope);
    const field = await this.field(db, id);
    const [segments, messages, forms, layouts, counts, automatic, steps] = await Promise.all([
      this.segments.list(scope),
      this.messagesNaming(scope, field.name),
      this.forms.all(db),
      this.admin.layouts(db, id),
      this.admin.counts(db),
      this.automations.excepting(db.ofAll()),
      this.steps.waiting(db.ofAll()),
    ]);
    const asks = (rule: Rule) =>
      segmentLines(rule).some((line) => line.kind === 'field' && line.field === id);
    const uses: [string, string[]][] = [
      ['segment', segments.filter(({ tree }) => asks(tree)).map(({ name }) => name)],
      ['step', steps.filter(({ rule }) => asks(rule)).map(({ name }) => name)],
      [
        'automatic message',
        automatic
          .filter(
            ({ cause, excepted }) =>
              (cause.kind === 'date' && cause.fieldId === id) || (excepted !== null && asks(excepted)),
          )
          .map(({ name }) => name),
      ],
      ['message', messages],
      [
        'form',
        forms.filter((form) => form.definition.items.some((item) => item.of === id)).map(({ name }) => name),
      ],
      ['remembered layout', layouts],
    ];
    const said = uses
      .filter(([, names]) => names.length > 0)
      .map(([what, names]) => `the ${what}${names.length > 1 ? 's' : ''} ${quoted(names)}`);
    return {
      values: counts.get(id) ?? 0,
      blocked: said.length === 0 ? null : `It is used by ${said.join(', ')}. Take it out there first.`,
    };
  }

  async remove(scope: AccessScope, id: number): Promise<{ values: number }> {
    const { blocked } = await this.deletion(scope, id);
    if (blocked) throw new Conflict(blocked);
    return this.database.write(scope, async (tx) => {
      const field = await this.field(tx, id);
      const values = await this.admin.remove(tx, id);
      await audit(tx, 'delete', { field: id }, `Field ${field.name} deleted with ${values} values`);
      return { values };
    });
  }

  /** Messages not yet gone that write the field's name in braces, in any case and with any spaces. */
  private async messagesNaming(scope: AccessScope, name: string): Promise<string[]> {
    const key = nameKey(name);
    const naming = (text: string) =>
      [...text.matchAll(/\{([^{},]+)/g)].some(([, said]) => nameKey(said!) === key);
    const open = (await this.messages.all(this.database.read(scope))).filter((message) =>
      ['draft', 'scheduled', 'preparing', 'standing', 'paused'].includes(message.state),
    );
    return open
      .filter((message) =>
        [
          message.subject,
          message.preheader,
          message.body,
          JSON.stringify(message.letter ?? '').slice(1),
        ].some(naming),
      )
      .map((message) => message.name);
  }

  private async field(db: Scoped, id: number): Promise<FieldView> {
    const field = (await this.fields.all(db)).find((one) => one.id === id);
    if (!field) throw new NotFound('field');
    return field;
  }
}

const quoted = (names: readonly string[]) => names.map((name) => `“${name}”`).join(', ');

function changeable({ name, section, fallback, help, sensitive, required, choices }: FieldView): ChangeField {
  return { name, section, fallback, help, sensitive, required, choices };
}
