import { Inject, Injectable } from '@nestjs/common';
import QRCode from 'qrcode';
import type { FormView } from '@goodword/core/contract';
import { formFaults, type FormDefinition, type FormFault } from '@goodword/core/forms';
import { readIntent } from '@goodword/core/text';
import { speak, standardTextAsk } from '@goodword/core/words';
import { said } from '@goodword/core/common';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { isDuplicate } from '../platform/database-errors';
import { Conflict, Invalid, Newer, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { FormsRepository, type FormRow } from './forms.repository';
import { sentence } from '../platform/words';

/** Sign-up forms as organizers make them. */
const told = ({ field, said: why }: FormFault) => ({ field, message: speak(why) });

@Injectable()
export class FormsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async list(scope: AccessScope): Promise<FormView[]> {
    const db = this.database.read(scope);
    const [forms, counts, waiting, known] = await Promise.all([
      this.forms.all(db),
      this.forms.counts(db),
      this.forms.waiting(db),
      this.known(db),
    ]);
    return forms.map((form) => ({
      id: form.id,
      name: form.name,
      slug: form.slug,
      open: form.is_open === 1,
      version: form.version,
      definition: form.definition,
      counts: counts.get(form.id) ?? { seen: 0, begun: 0, joined: 0, confirmed: 0 },
      waiting: waiting.get(form.id) ?? 0,
      url: `${this.config.PUBLIC_URL}/join/${form.slug}`,
      faults: formFaults(form.definition, known).map(told),
    }));
  }

  async show(scope: AccessScope, id: number): Promise<FormView> {
    const form = (await this.list(scope)).find((one) => one.id === id);
    if (!form) throw new NotFound('form');
    return form;
  }

  /** Makes a form that is nearly done: for a public list, or for news and appeals. */
  async make(scope: AccessScope, name: string, listId: number | null): Promise<{ id: number }> {
    const db = this.database.read(scope);
    const [organization, chapters, lists] = await Promise.all([
      this.team.organization(scope),
      this.team.chapters(scope),
      this.groups.lists(db),
    ]);
    const list = listId === null ? null : lists.find((one) => one.id === listId);
    if (list === undefined || (list && !list.byForm)) throw new Conflict(sentence('form.list-closed'));
    const definition = starting(organization, name, scope.chapterId ?? chapters[0]!.id, list ?? null);
    const slug = await this.freeSlug(name);
    return this.database.write(scope, async (tx) => {
      const id = await this.forms.make(tx, { name, slug, definition });
      await audit(tx, 'make', { form: id }, `${name} made`);
      return { id };
    });
  }

  async save(
    scope: AccessScope,
    id: number,
    form: { name: string; slug: string; version: number; definition: FormDefinition },
  ): Promise<Pick<FormView, 'faults'>> {
    try {
      return await this.database.write(scope, async (tx) => {
        // Of two saves from one version the second waits here, and is then told.
        await tx.table('form').where('form.id', id).forUpdate().select('id');
        const current = await this.form(tx, id);
        if (current.version !== form.version)
          throw new Newer('this form', await this.forms.savedBy(tx, id, current.version));
        const faults = formFaults(form.definition, await this.known(tx));
        this.checkKeyword(form.definition.keyword);
        await this.checkChapter(tx, form.definition.chapterId);
        if (current.is_open === 1 && faults.length > 0)
          throw new Invalid(
            faults.map(({ field, said: why }) => ({
              field: `definition.${field}`,
              code: why.code,
              message: speak(why),
            })),
          );
        await this.forms.save(tx, id, { ...form, version: form.version + 1 });
        await audit(tx, 'change', { form: id }, `${form.name}, version ${form.version + 1}`);
        return { faults: faults.map(told) };
      });
    } catch (error) {
      throw isDuplicate(error) ? new Conflict(sentence('form.address-taken')) : error;
    }
  }

  async open(scope: AccessScope, id: number, open: boolean): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const form = await this.form(tx, id);
      const faults = open ? formFaults(form.definition, await this.known(tx)) : [];
      const { name, postal_address } = await this.team.organization(tx);
      // Both stand under the form, with the words on leaving and the page on privacy.
      if (open && (name.trim() === '' || postal_address.trim() === ''))
        faults.push({ field: 'open', said: said('form.house') });
      if (faults.length > 0)
        throw new Conflict(
          sentence('form.not-ready', { faults: faults.map((fault) => speak(fault.said)).join(' ') }),
        );
      await this.forms.open(tx, id, open);
      await audit(tx, open ? 'open' : 'close', { form: id }, `${form.name} ${open ? 'opened' : 'closed'}`);
    });
  }

  /** The address of the hosted page as a QR code, for posters. */
  async qr(slug: string, format: 'svg' | 'png'): Promise<{ type: string; body: string | Buffer }> {
    const form = await this.forms.bySlug(this.database, slug);
    if (!form) throw new NotFound('form');
    const url = `${this.config.PUBLIC_URL}/join/${form.slug}`;
    if (format === 'svg')
      return {
        type: 'image/svg+xml',
        body: await QRCode.toString(url, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }),
      };
    return {
      type: 'image/png',
      body: await QRCode.toBuffer(url, { width: 1024, margin: 2, errorCorrectionLevel: 'M' }),
    };
  }

  private async form(db: Scoped, id: number): Promise<FormRow> {
    const form = await this.forms.find(db, id);
    if (!form) throw new NotFound('form');
    return form;
  }

  private async known(db: Scoped): Promise<Parameters<typeof formFaults>[1]> {
    const [organization, fields, lists] = await Promise.all([
      this.team.organization(db),
      this.fields.all(db),
      this.groups.lists(db),
    ]);
    return {
      organization: organization.name,
      fields: new Set(fields.map((field) => field.id)),
      required: new Set(fields.filter((field) => field.required).map((field) => field.id)),
      unaskable: new Set(fields.filter((field) => field.type === 'file').map((field) => field.id)),
      openLists: new Set(lists.filter((list) => list.byForm).map((list) => list.id)),
    };
  }

  private checkKeyword(keyword: string | null): void {
    if (keyword && readIntent(keyword) !== 'none')
      throw new Invalid([
        {
          field: 'definition.keyword',
          code: 'keyword',
          message: sentence('form.keyword-taken', { keyword }),
        },
      ]);
  }

  private async checkChapter(tx: Scoped, chapterId: number): Promise<void> {
    const chapters = await this.team.chapters(tx);
    const { scope } = tx;
    if (
      !chapters.some((chapter) => chapter.id === chapterId) ||
      (scope.chapterId !== null && scope.chapterId !== chapterId)
    )
      throw new Invalid([
        { field: 'definition.chapterId', code: 'chapter', message: sentence('form.chapter') },
      ]);
  }

  private async freeSlug(name: string): Promise<string> {
    const base =
      name
        .normalize('NFD')
        .replace(/\p{M}/gu, '')
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '')
        .slice(0, 50) || 'join';
    const padded = base.length < 3 ? `join-${base}` : base;
    for (let n = 1; ; n++) {
      const slug = n === 1 ? padded : `${padded}-${n}`;
      if (!(await this.forms.bySlug(this.database, slug))) return slug;
    }
  }
}

function starting(
  organization: OrganizationRow,
  name: string,
  chapterId: number,
  list: { id: number; name: string; description: string } | null,
): FormDefinition {
  const item = (of: 'firstName' | 'lastName' | 'email' | 'mobile', label: string, required: boolean) => ({
    of,
    label,
    help: '',
    required,
    show: 'asked' as const,
    value: '',
  });
  const what = list ? list.name : 'news and appeals';
  return {
    language: 'en',
    title: name,
    intro: list?.description ?? '',
    items: [
      item('firstName', 'First name', true),
      item('lastName', 'Last name', false),
      item('email', 'Email', false),
      item('mobile', 'Mobile', false),
    ],
    asks: [
      {
        channel: 'email',
        scope: list ? `list:${list.id}` : 'news',
        words: `${organization.name} may email me ${what}. I can leave with one click at any time.`,
      },
      {
        channel: 'text',
        scope: list ? `list:${list.id}` : 'news',
        words: standardTextAsk(organization.name, 2),
      },
    ],
    button: 'Join',
    thanks: {
      words: 'You are on the list as soon as you have confirmed, where we asked you to.',
      redirect: null,
    },
    confirm: {
      email: 'rule',
      subject: `Please confirm: ${what} from ${organization.name}`,
      words: `Somebody, we hope you, asked ${organization.name} to write to this address. Press the button to confirm. If it was not you, do nothing, and you will hear no more.`,
    },
    tagIds: [],
    listIds: list ? [list.id] : [],
    chapterId,
    embedOn: [],
    keyword: null,
  };
}
