import { said, type Said } from '../../common';
import type { FieldType, Manner } from '../../fields';
import { scopeSaid, type Scope, type Channel } from '../../permission';
import type { Column, ColumnKey, EvaluationContext } from '../columns';
import type { LinePlan } from '../plan';
import type { FieldRef } from '../standard-fields';

/** What lines name by an id, beside fields. */
export const NAMED_KINDS = ['tag', 'list', 'batch', 'campaign', 'chapter', 'message', 'segment'] as const;
export type NamedKind = (typeof NAMED_KINDS)[number];

/** Something that a line names, and that can be gone. */
export interface NamedThing {
  kind: NamedKind;
  id: number;
}

/** The names behind the ids of a tree, and how values are written. */
export type Names = Manner & {
  field(ref: FieldRef): { name: string; type: FieldType };
} & Record<NamedKind, (id: number) => string>;

/**
 * A kind of line: which column it reads, what it names, what it asks, and how it is said. A new one is a file
 * beside this one and a place in `LINE_KINDS`; then the compiler asks for its schema (contract), the source
 * of its column (server) and its words that open (web).
 */
export interface LineKind<L extends { kind: string }> {
  kind: L['kind'];
  /** The column that it reads. Throws for a segment, which is expanded before (see `expand`). */
  column(line: L): ColumnKey;
  /** What it names by an id, beside a field. */
  named(line: L): NamedThing[];
  /** What is done to the column, worked out once for everybody. */
  plan(line: L, column: Column, context: EvaluationContext): LinePlan;
  /** As part of a sentence that begins "Supporters who …". */
  said(line: L, names: Names): Said;
}

/** Which wording of a line: that it is so, or that it is not. */
export const whether = (holds: boolean) => (holds ? 'yes' : 'no');

/** What a line about permission speaks of: a channel, and for what. */
export interface PermissionSubject {
  channel: Channel;
  scope: Scope;
}

/** "appeals by email": what a line about permission speaks of, in words. */
export const subjectSaid = ({ channel, scope }: PermissionSubject, names: Names): Said =>
  said('line.subject', {
    scope: scopeSaid(scope, (id) => names.list(id)),
    channel: said(`channel.in.${channel}`),
  });

/** The list that the scope of such a line is, if it is one. */
export const listNamed = ({ scope }: PermissionSubject): NamedThing[] =>
  scope.startsWith('list:') ? [{ kind: 'list', id: Number(scope.slice('list:'.length)) }] : [];
