import { Inject, Injectable } from '@nestjs/common';
import type { RouteRule } from './api';
import { Database } from './database';
import { Forbidden, NotFound } from './errors';
import type { AccessScope } from './scope';

/*
 * Whose a thing is, and who may change it. What belongs to a chapter is seen and changed by whoever works in
 * it; what belongs to all is seen by everybody and changed by whoever may work in all. It is decided here,
 * before any handler, for everything that an address names by its id; a test walks all routes and fails on
 * one whose things are not in this table.
 */

/** Belongs to all chapters whatever it is: fields, the team, what is never written to. */
const OF_ALL = 'all';
/** Of whoever asks alone: the handler knows them. */
const ONE_S_OWN = 'own';

const simple = (table: string) => `SELECT chapter_id FROM ${table} WHERE organization_id = :org AND id = :id`;
const ofPerson = (table: string) =>
  `SELECT s.chapter_id
    FROM ${table} t
    LEFT JOIN supporter s ON s.id = t.supporter_id
    WHERE t.organization_id = :org AND t.id = :id`;

/** By the first part of the address: how to find the chapter that a thing belongs to; null is all of them. */
export const THINGS: Readonly<
  Record<string, { name: string; chapter: string | typeof OF_ALL | typeof ONE_S_OWN }>
> = {
  supporters: { name: 'supporter', chapter: simple('supporter') },
  batches: { name: 'batch', chapter: simple('batch') },
  tags: { name: 'tag', chapter: simple('tag') },
  lists: { name: 'list', chapter: simple('list') },
  segments: { name: 'segment', chapter: simple('segment') },
  automations: { name: 'automatic message', chapter: simple('automation') },
  feeds: { name: 'feed', chapter: simple('feed') },
  'feed-sources': { name: 'source', chapter: OF_ALL },
  campaigns: { name: 'campaign', chapter: simple('campaign') },
  forms: { name: 'form', chapter: simple('form') },
  messages: { name: 'message', chapter: simple('message') },
  templates: { name: 'template', chapter: simple('template') },
  calls: { name: 'call list', chapter: simple('call_list') },
  layouts: { name: 'layout', chapter: simple('layout') },
  'people-views': { name: 'view', chapter: simple('people_view') },
  bulk: { name: 'work', chapter: simple('bulk') },
  deliveries: { name: 'delivery', chapter: ofPerson('delivery') },
  replies: { name: 'reply', chapter: ofPerson('reply') },
  tasks: { name: 'question', chapter: ofPerson('task') },
  fields: { name: 'field', chapter: OF_ALL },
  images: { name: 'picture', chapter: OF_ALL },
  'do-not-contact': { name: 'entry', chapter: OF_ALL },
  chapters: { name: 'chapter', chapter: OF_ALL },
  team: { name: 'teammate', chapter: OF_ALL },
  sessions: { name: 'session', chapter: ONE_S_OWN },
};

/** The thing that the id in an address names: of `/api/house/fields/:id/type` it is `fields`. */
export function thingOf(path: string): string | null {
  return /^\/api\/(?:[a-z-]+\/)*?([a-z-]+)\/:id\b/.exec(path)?.[1] ?? null;
}

/** Whether somebody may change what belongs to a chapter, or to all where it is null. */
export function mayChange(scope: AccessScope, chapterId: number | null): boolean {
  return scope.boundTo === null || scope.boundTo === chapterId;
}

const OTHERS = 'This belongs to all chapters. Somebody who works in all of them can change it.';

@Injectable()
export class Ownership {
  constructor(@Inject(Database) private readonly database: Database) {}

  /**
   * Refuses what is not the caller's: not found where they may not know of it, forbidden where they see it
   * and may not change it.
   */
  async check(
    scope: AccessScope,
    route: { method: string; path: string; rule: RouteRule },
    id: unknown,
  ): Promise<void> {
    const changes = route.method !== 'GET';
    if (route.rule.ofAll && scope.boundTo !== null) throw new Forbidden(OTHERS);
    const thing = THINGS[thingOf(route.path) ?? ''];
    if (!thing || thing.chapter === ONE_S_OWN || (scope.chapterId === null && scope.boundTo === null)) return;
    const chapterId = thing.chapter === OF_ALL ? null : await this.chapterOf(scope, thing, id);
    if (chapterId !== null && chapterId !== scope.chapterId) throw new NotFound(thing.name);
    if (changes && !route.rule.ownPeople && !mayChange(scope, chapterId)) throw new Forbidden(OTHERS);
  }

  private async chapterOf(
    scope: AccessScope,
    thing: { name: string; chapter: string },
    id: unknown,
  ): Promise<number | null> {
    const number = typeof id === 'string' && /^\d{1,15}$/.test(id) ? Number(id) : null;
    if (number === null) return null;
    const [row] = await this.database
      .read(scope)
      .sql<{ chapter_id: number | null }>(thing.chapter, { id: number });
    // What is not there is told by its handler.
    return row?.chapter_id ?? null;
  }
}
