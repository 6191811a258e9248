import { ENCODINGS, DELIMITERS } from '../../intake';
import { ofCore, part, text, listOf, number, flag, only, oneOf, orNull, again, told } from '../kinds';
import { columnChoice } from '../intake';

/** A region of a country: its code as in ISO 3166-2 without the country, and its name. */
export const region = ofCore(
  'Region',
  'fields',
  part({
    code: text,
    name: text,
  }),
);

/** What a workbook holds beside the cells of the sheet that is read. */
export const workbook = ofCore(
  'Workbook',
  'intake',
  part({
    sheets: listOf(
      part({
        name: text,
        rows: number,
        hidden: flag,
      }),
    ),
    sheet: number,
    hiddenColumns: listOf(number),
    hiddenRows: number,
    mergedCells: number,
    formulas: number,
  }),
);

/** What was found out about a file while it was read. */
export const fileFindings = ofCore(
  'FileFindings',
  'intake',
  part({
    kind: only('text', 'vcard', 'workbook'),
    encoding: oneOf(ENCODINGS),
    sure: flag,
    delimiter: oneOf(DELIMITERS),
    separatorLine: only(true).optional(),
    headerLine: orNull(number),
    titles: listOf(text),
    header: listOf(text),
    rows: number,
    unscramble: flag,
    asides: part({
      blank: number,
      header: number,
      total: number,
    }),
    longer: number,
    shorter: number,
    doubled: listOf(text),
    workbook: workbook.optional(),
  }),
);

/** What a column was matched to, and how sure that is. */
export const guess = ofCore(
  'Guess',
  'intake',
  part({
    choice: columnChoice,
    confidence: number,
  }),
);

/** A merge field that can be written: the name people read, and the key its value is found under. */
export const mergeName = ofCore(
  'MergeName',
  'merge',
  part({
    name: text,
    key: text,
    fallback: orNull(text).optional(),
    group: only('Supporter', 'Sender', 'Organization', 'Gifts', 'Ask', 'Link'),
    kind: told(
      'What it holds, where that can be written in several ways.',
      only('date', 'money', 'number', 'name'),
    ).optional(),
    lines: told('Its value keeps its lines.', flag).optional(),
  }),
);

/**
 * Minutes after local midnight, both ends allowed: 480 to 1260 is "not before 8 a.m. and not after 9 p.m.";
 * where it begins after it ends it reaches over midnight.
 */
export const hourSpan = ofCore(
  'HourSpan',
  'permission',
  part({
    from: number,
    to: number,
  }),
);

/** The hours of a day; other ones on some weekdays and on holidays, null for none at all. */
export const hours = ofCore(
  'Hours',
  'permission',
  part({
    days: part({
      sun: orNull(hourSpan).optional(),
      mon: orNull(hourSpan).optional(),
      tue: orNull(hourSpan).optional(),
      wed: orNull(hourSpan).optional(),
      thu: orNull(hourSpan).optional(),
      fri: orNull(hourSpan).optional(),
      sat: orNull(hourSpan).optional(),
    }).optional(),
    holidays: orNull(hourSpan).optional(),
    from: number,
    to: number,
  }),
);

/**
 * A value as it is kept. Text for text, choices (several with “; ” between), countries (ISO 3166-1), regions
 * (ISO 3166-2), places (latitude, longitude), links and files (“id/name”); number for number, yes/no (1, 0)
 * and money (minor units); date for dates, and with it number, the minute of the day, for a date and time;
 * monthDay for birthdays.
 */
export const fieldValue = ofCore(
  'FieldValue',
  'fields',
  part({
    text: text.optional(),
    number: number.optional(),
    date: number.optional(),
    monthDay: number.optional(),
  }),
);

/** Why somebody is in a segment or not: what each line asks, and what it came to. */
export const explanation = ofCore(
  'Explanation',
  'words',
  part({
    words: text,
    holds: flag,
    inner: listOf(again('Explanation')),
  }),
).id('Explanation');
