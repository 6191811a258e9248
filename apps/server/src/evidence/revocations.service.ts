import { Inject, Injectable } from '@nestjs/common';
import Papa from 'papaparse';
import { CHANNEL_WORDS, COLLECTION_METHOD_WORDS, scopeWords } from '@goodword/core/words';
import type { Revocation } from '../permission/ledger/entries';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { GroupsRepository } from '../supporters/groups.repository';
import { EntriesRepository } from '../permission/ledger/entries.repository';

const SLICE = 2000;
const COLUMNS = [
  ...['Entry', 'Supporter', 'Channel', 'What it closed', 'Address', 'How', 'Words'],
  ...[
    'Received',
    'Read',
    'On hold from',
    'Acted on',
    'Seconds from received to acted on',
    'Taken back',
    'Recorded by',
  ],
];

/**
 * Every no that ever came in, with when it was received, read and acted on (47 CFR 64.1200(a)(10) wants it
 * honoured within ten business days, CAN-SPAM, 15 U.S.C. 7704(a)(4)(A), within ten business days too, CASL s.
 * 11(3) without delay).
 */
@Injectable()
export class RevocationsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
  ) {}

  /** The log as CSV, newest first, a slice at a time. */
  async *csv(scope: AccessScope): AsyncGenerator<string> {
    const db = this.database.read(scope);
    const lists = new Map((await this.groups.lists(db)).map((list) => [list.id, list.name]));
    yield `\ufeff${Papa.unparse([COLUMNS])}\r\n`;
    for (let before = Number.MAX_SAFE_INTEGER; ;) {
      const rows = await this.entries.revocations(db, before, SLICE);
      if (rows.length === 0) return;
      const lines = rows.map((row) => line(row, (id) => lists.get(id)));
      yield `${Papa.unparse(lines, { newline: '\r\n', escapeFormulae: true })}\r\n`;
      before = rows.at(-1)!.id;
    }
  }
}

function line(row: Revocation, listName: (id: number) => string | undefined): (string | number)[] {
  const received = row.received_at ?? row.said_at;
  const iso = (at: Date | null) => at?.toISOString() ?? '';
  return [
    row.id,
    row.supporter_id ?? '',
    CHANNEL_WORDS[row.channel],
    scopeWords(row.scope, listName),
    row.shown ?? 'every address',
    COLLECTION_METHOD_WORDS[row.how],
    row.words,
    iso(received),
    iso(row.read_at ?? row.recorded_at),
    iso(row.held_at),
    iso(row.recorded_at),
    Math.max(0, Math.round((row.recorded_at.getTime() - received.getTime()) / 1000)),
    iso(row.taken_back_at),
    row.recorded_name ?? 'the program',
  ];
}
