import { sentence } from './words';

/** One thing wrong with what was sent: which field, a code for programs, a sentence for people. */
export interface FieldFault {
  field: string;
  code: string;
  message: string;
}

/** The few ways in which a request can fail. Made in the domains, turned into HTTP in one place. */
export abstract class DomainError extends Error {
  abstract readonly status: number;
  abstract readonly title: string;
}

export class NotFound extends DomainError {
  readonly status = 404;
  readonly title = 'Not found';
  constructor(what: string) {
    super(sentence('fault.not-found', { what }));
  }
}

/** A supporter's record that was brought into another one, which stands in its place. */
export class BroughtTogether extends DomainError {
  readonly status = 404;
  readonly title = 'Brought into another record';
  constructor(
    readonly instead: number,
    name: string,
  ) {
    super(name ? sentence('fault.brought-together', { name }) : sentence('fault.brought-together-nameless'));
  }
}

export class Invalid extends DomainError {
  readonly status = 422;
  readonly title = 'Something needs mending';
  readonly faults: FieldFault[];
  constructor(faults: FieldFault[] | string) {
    const list = typeof faults === 'string' ? [{ field: '', code: 'invalid', message: faults }] : faults;
    super(list.map((fault) => fault.message).join(' '));
    this.faults = list;
  }
}

/** The state of things forbids it; the message says the way out. */
export class Conflict extends DomainError {
  readonly status = 409;
  readonly title = 'Not as things stand';
}

function newerWords(values: { by: string; what: string }, now: string | undefined): string {
  if (now === undefined) return sentence('fault.newer', values);
  return now === ''
    ? sentence('fault.newer-emptied', values)
    : sentence('fault.newer-value', { ...values, now });
}

/** What is saved was changed by somebody since it was read: nothing is overwritten that was not seen. */
export class Newer extends DomainError {
  readonly status = 409;
  readonly title = 'Changed meanwhile';
  /** `now`: what stands there now, where that is one value and is shown with the refusal. */
  constructor(
    what: string,
    by: string | null,
    readonly now?: string,
  ) {
    super(newerWords({ by: by ?? sentence('fault.somebody'), what }, now));
  }
}

export class Forbidden extends DomainError {
  readonly status = 403;
  readonly title = 'Not yours to do';
}

export class Unauthenticated extends DomainError {
  readonly status = 401;
  readonly title = 'Sign in first';
}

/** Too often within a short time; the message says when it goes on. */
export class TooMany extends DomainError {
  readonly status = 429;
  readonly title = 'That was very often';
}

export class Unavailable extends DomainError {
  readonly status = 503;
  readonly title = 'Not reachable just now';
}
