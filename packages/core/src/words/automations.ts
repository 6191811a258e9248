import type { Cause } from '../automations';
import { said, type Said, type SaidValue } from '../common';
import type { Scope } from '../permission';
import { scopeWords } from './permission';
import { speak } from './speak';

/** What things are called that a cause names; undefined for what is gone. */
export interface CauseNames {
  list(id: number): string | undefined;
  form(id: number): string | undefined;
  tag(id: number): string | undefined;
  field(id: number): string | undefined;
  campaign(id: number): string | undefined;
  message(id: number): string | undefined;
  teammate(id: number): string | undefined;
  money(amount: number): string;
}

/** A cause as part of a sentence that begins "When …". */
export const causeWords = (cause: Cause, names: CauseNames): string => speak(causeSaid(cause, names));

function causeSaid(cause: Cause, names: CauseNames): Said {
  const gone = said('cause.gone');
  const called = (name: string | undefined): SaidValue =>
    name === undefined ? gone : said('cause.named', { name });
  switch (cause.kind) {
    case 'list':
      return said('cause.list', { list: called(names.list(cause.listId)) });
    case 'form':
      return said('cause.form', { form: called(names.form(cause.formId)) });
    case 'gift':
      return said(`cause.gift.${cause.which}`, {
        least:
          cause.atLeast === null
            ? said('cause.any-amount')
            : said('cause.at-least', { amount: names.money(cause.atLeast) }),
      });
    case 'tag': {
      const by =
        cause.by === null
          ? said('cause.by-anybody')
          : said('cause.by', { who: names.teammate(cause.by) ?? gone });
      return said('cause.tag', { tag: called(names.tag(cause.tagId)), by });
    }
    case 'date':
      return dateSaid(cause, called(names.field(cause.fieldId)));
    case 'lapses': {
      const of = scopeWords(cause.scope as Scope, (id) => names.list(id));
      return said('cause.lapses', { of, channel: said(`channel.in.${cause.channel}`), days: cause.days });
    }
    case 'stage':
      return said('cause.stage', {
        campaign: called(names.campaign(cause.campaignId)),
        stage: said('cause.named', { name: cause.stage }),
      });
    case 'quiet':
      return said('cause.quiet', { months: cause.months });
    case 'keyword':
      return said('cause.keyword', { word: cause.word });
    case 'click':
      return said('cause.click', { message: called(names.message(cause.messageId)) });
  }
}

function dateSaid({ days, yearly }: Extract<Cause, { kind: 'date' }>, field: SaidValue): Said {
  const when = days === 0 ? 'on' : days < 0 ? 'before' : 'after';
  return said(yearly ? `cause.yearly.${when}` : `cause.date.${when}`, { field, days: Math.abs(days) });
}
