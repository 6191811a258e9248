import { Inject, Injectable } from '@nestjs/common';
import { TIMELINE_KINDS, type PersonForm, type TimelineItem } from '@goodword/core/contract';
import { writeCard, writeCsv } from '@goodword/core/intake';
import { EvidenceFileService } from '../evidence/evidence-file.service';
import { Database } from '../platform/database';
import { NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { SupportersRepository } from '../supporters/supporters.repository';
import { SupportersService } from '../supporters/supporters.service';
import { TeamRepository } from '../team/team.repository';
import { MergingRepository } from './merging.repository';
import { NotesRepository } from './notes.repository';
import { RecordService } from './record.service';
import { TimelineRepository } from './timeline.repository';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

const TYPES: Record<PersonForm, string> = { json: 'application/json', csv: 'text/csv', vcf: 'text/vcard' };
/** More than anybody has; an answer to "everything you hold about me" leaves nothing out. */
const ALL = 100_000;

/**
 * Everything that is kept about one person, in an open form: for moving on, and for answering who asks (GDPR
 * art. 15 and 20).
 */
@Injectable()
export class PersonFileService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SupportersService) private readonly supporters: SupportersService,
    @Inject(SupportersRepository) private readonly people: SupportersRepository,
    @Inject(EvidenceFileService) private readonly files: EvidenceFileService,
    @Inject(RecordService) private readonly records: RecordService,
    @Inject(MergingRepository) private readonly mergings: MergingRepository,
    @Inject(TimelineRepository) private readonly timelines: TimelineRepository,
    @Inject(NotesRepository) private readonly notes: NotesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async make(
    scope: AccessScope,
    id: number,
    form: PersonForm,
  ): Promise<{ name: string; type: string; text: string }> {
    const text = {
      json: () => this.json(scope, id),
      csv: () => this.csv(scope, id),
      vcf: () => this.card(scope, id),
    }[form];
    return { name: `supporter-${id}.${form}`, type: TYPES[form], text: await text() };
  }

  private async everything(scope: AccessScope, id: number) {
    const db = this.database.read(scope);
    const known = await this.supporters.record(scope, id);
    const ids = await this.mergings.idsIn(db, id);
    const [around, permission, timeline, notes] = await Promise.all([
      this.records.around(scope, id),
      this.files.of(scope, id),
      this.timelines.of(
        db,
        [id, ...ids.filter((one) => one !== id)],
        await this.team.organization(scope),
        TIMELINE_KINDS,
        ALL,
      ),
      this.notes.of(db, id, ALL),
    ]);
    return { known, around, permission, timeline, notes };
  }

  private async json(scope: AccessScope, id: number): Promise<string> {
    const { known, around, permission, timeline, notes } = await this.everything(scope, id);
    // Permission is told whole, with what was sent on its strength.
    const { fields, consent: _consent, entries: _entries, contactPoints, ...rest } = known;
    const values = Object.fromEntries(
      fields.filter(({ shown }) => shown !== '').map(({ name, shown }) => [name, shown]),
    );
    return JSON.stringify(
      {
        ...rest,
        // Who else has an address is theirs to tell.
        contactPoints: contactPoints.map(({ sharedWith: _others, ...point }) => point),
        household: around.household,
        greeting: around.greeting,
        rosters: around.rosters.map(({ name, stage }) => ({ name, stage })),
        fields: values,
        permission,
        notes,
        timeline: timeline.map(told),
      },
      null,
      1,
    );
  }

  /** One thing known in each row: what it is about, what it is, when, and what more there is to say. */
  private async csv(scope: AccessScope, id: number): Promise<string> {
    const { known, around, permission, timeline, notes } = await this.everything(scope, id);
    const rows: string[][] = [
      ['Name', `${known.firstName} ${known.lastName}`.trim(), '', ''],
      ['Chapter', known.chapter.name, '', ''],
      ['With us since', known.createdAt, '', ''],
      ['Place', permission.supporter.place, '', ''],
      ...(around.household
        ? [['Household', around.household.members.map((one) => one.name).join('; '), '', around.greeting]]
        : []),
      ...known.contactPoints.map((point) => [
        'Address',
        point.shown,
        '',
        point.onHold ? `on hold: ${point.holdReason ?? ''}` : point.kind,
      ]),
      ...known.fields
        .filter(({ shown }) => shown !== '')
        .map(({ name, shown }) => ['Field', shown, '', name]),
      ...known.tags.map(({ name }) => ['Tag', name, '', '']),
      ...known.lists.map(({ name }) => ['List', name, '', '']),
      ...around.rosters.map(({ name, stage }) => ['Roster', name, '', stage]),
      ...known.gifts.map((gift) => ['Gift', (gift.amount / 100).toFixed(2), gift.on, gift.note]),
      ...permission.entries.map((one) => [
        'Permission',
        `${one.channel}, ${one.scopeName}: ${one.state}`,
        one.at,
        [one.how, one.words, one.source].filter(Boolean).join('; '),
      ]),
      ...notes.map((note) => ['Note', note.body, note.at, note.by]),
      ...timeline.map((item) => ['What passed', item.title, item.at, item.detail]),
    ];
    return `\ufeff${writeCsv(['What', 'Value', 'When', 'More'], rows)}`;
  }

  private async card(scope: AccessScope, id: number): Promise<string> {
    const db = this.database.read(scope);
    const [person, points] = [await this.people.find(db, id), await this.contacts.pointsWithParts(db, [id])];
    if (!person) throw new NotFound('supporter');
    const { tags } = await this.supporters.record(scope, id);
    return writeCard({
      id,
      firstName: person.first_name,
      lastName: person.last_name,
      points,
      tags: tags.map(({ name }) => name),
    });
  }
}

function told({
  at,
  kind,
  title,
  detail,
}: TimelineItem): Pick<TimelineItem, 'at' | 'kind' | 'title' | 'detail'> {
  return { at, kind, title, detail };
}
