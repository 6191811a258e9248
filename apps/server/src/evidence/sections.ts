import type { EvidenceDelivery, EvidenceEntry, PermissionReport } from '@goodword/core/contract';
import { type Channel } from '@goodword/core/permission';
import { CHANNEL_WORDS, ENTRY_WORDS, COLLECTION_METHOD_WORDS, STATE_WORDS } from '@goodword/core/words';

/** One thing in a section: a line that heads it, and lines under it, the last ones small. */
export interface EvidenceItem {
  head: string;
  lines: string[];
  small: string[];
}

/** A part of the file, as it is laid out on the page and on paper. */
export interface EvidenceSection {
  title: string;
  /** What is said where there is nothing. */
  none: string;
  items: EvidenceItem[];
}

export const moment = (at: string | null) =>
  at === null ? 'not yet' : `${at.slice(0, 10)} ${at.slice(11, 16)} UTC`;
const day = (at: string) => at.slice(0, 10);
const by = (channel: Channel) => CHANNEL_WORDS[channel].toLowerCase();
const quoted = (words: string) => (words ? [`“${words}”`] : []);
const item = (head: string, lines: string[] = [], small: string[] = []): EvidenceItem => ({
  head,
  lines,
  small,
});

/** What the file of one person says, part by part: the page and the PDF show the same. */
export function evidenceSections(report: PermissionReport): EvidenceSection[] {
  return [
    ...ofPermission(report),
    ...ofTheirWords(report),
    ...ofAddresses(report),
    { title: 'Forms, as they looked', none: 'They used none.', items: report.forms.map(formItem) },
  ];
}

/** What was said, and what went out on the strength of it. */
function ofPermission(report: PermissionReport): EvidenceSection[] {
  return [
    {
      title: 'As it stands, at each address',
      none: 'Nothing on record: never asked.',
      items: report.consent.map((one) => {
        const until = one.until ? ` until ${day(one.until)}` : '';
        const paused = one.pausedUntil ? `, paused until ${day(one.pausedUntil)}` : '';
        const rests = one.entryId ? [`rests on entry ${one.entryId}`] : [];
        const at = one.address ?? 'every address';
        return item(
          `${CHANNEL_WORDS[one.channel]}, ${one.scopeName}, at ${at}: ${STATE_WORDS[one.state]}${until}${paused}`,
          [],
          rests,
        );
      }),
    },
    {
      title: 'What they said, newest first',
      none: 'Nothing.',
      items: report.entries.map((entry) => entryItem(entry, report)),
    },
    {
      title: 'What they were sent, and on what ground',
      none: 'Nothing.',
      items: report.sent.map(deliveryItem),
    },
    {
      title: 'What they were not sent, and why',
      none: 'Nothing was held back.',
      items: report.notSent.map(deliveryItem),
    },
    {
      title: 'Requests to confirm',
      none: 'None was sent.',
      items: report.confirmations.map((one) =>
        item(`${moment(one.at)}: by ${by(one.channel)} to ${one.address}`, quoted(one.words), [
          `now: ${one.outcome}`,
        ]),
      ),
    },
    {
      title: 'On paper',
      none: 'Nothing.',
      items: report.paper.map((one) => item(`${moment(one.at)}: ${one.what}`, [], named('made by', one.by))),
    },
    {
      title: 'Calls',
      none: 'On no list of calls.',
      items: report.calls.map((one) =>
        item(
          `${one.list}: ${one.suppressed ? `held back, ${one.suppressed.toLowerCase()}` : (one.outcome ?? 'not called')}`,
          [],
          one.at ? [moment(one.at), ...named('by', one.by)] : [],
        ),
      ),
    },
  ];
}

/** What they wrote, and what somebody here made of it. */
function ofTheirWords(report: PermissionReport): EvidenceSection[] {
  return [
    {
      title: 'What they wrote back',
      none: 'Nothing.',
      items: report.replies.map((one) =>
        item(
          `${moment(one.at)}: by ${by(one.channel)}`,
          quoted(one.words),
          one.readAs === 'none' ? [] : [`read as: ${one.readAs}`],
        ),
      ),
    },
    {
      title: 'Questions that a person had to settle',
      none: 'None.',
      items: report.questions.map((one) =>
        item(
          `${moment(one.at)}: ${one.settledAt ? `settled ${moment(one.settledAt)}` : 'open'}`,
          quoted(one.words),
          [...(one.outcome ? [one.outcome] : []), ...named('by', one.settledBy)],
        ),
      ),
    },
  ];
}

/** Where they could be reached, and where they lived, as it changed. */
function ofAddresses(report: PermissionReport): EvidenceSection[] {
  return [
    {
      title: 'When an address was on hold',
      none: 'Never.',
      items: report.holds.map((one) =>
        item(
          `${one.address}: from ${moment(one.at)} ${one.releasedAt ? `to ${moment(one.releasedAt)}` : 'on'}`,
          [one.reason],
          [...(one.why ? [one.why] : []), ...named('by', one.releasedBy)],
        ),
      ),
    },
    {
      title: 'Changes of place and address',
      none: 'None.',
      items: [
        ...report.places.map((one) =>
          item(`Until ${moment(one.until)} their place was: ${one.place}`, [], named('changed by', one.by)),
        ),
        ...report.addressChanges.map((one) =>
          item(`${moment(one.at)}: they changed ${one.from} to ${one.to}`),
        ),
      ],
    },
  ];
}

const named = (what: string, name: string | null) => (name ? [`${what} ${name}`] : []);

function entryItem(entry: EvidenceEntry, report: PermissionReport): EvidenceItem {
  const form =
    entry.form &&
    report.forms.find((one) => one.id === entry.form!.id && one.version === entry.form!.version);
  const sent = entry.sentOnItsStrength.map(
    (one) => `${one.message} (${by(one.channel)}, ${one.at ? day(one.at) : 'under way'}, ${one.outcome})`,
  );
  const at = entry.address ?? 'every address';
  return item(
    `${day(entry.at)}: ${ENTRY_WORDS[entry.state]}, ${entry.scopeName}, by ${by(entry.channel)} at ${at} (entry ${entry.id}${entry.takenBack ? ', taken back' : ''})`,
    [
      `${COLLECTION_METHOD_WORDS[entry.how]}${entry.until ? `, until ${day(entry.until)}` : ''}${entry.words ? `: “${entry.words}”` : ''}`,
    ],
    [
      ...(entry.source ? [entry.source] : []),
      ...(form ? [`form ${form.name}, version ${form.version}, shown below`] : []),
      ...(entry.page ? [`on the page ${entry.page}`] : []),
      ...(entry.evidence ? [`evidence: ${entry.evidence.name}`] : []),
      ...(entry.origin ? [`from ${entry.origin}`] : []),
      `said ${moment(entry.at)}, recorded ${moment(entry.recordedAt)} by ${entry.recordedBy ?? 'the program'}`,
      `place then: ${entry.place}; the rule then: ${entry.rule}`,
      ...(sent.length > 0 ? [`Sent on its strength: ${sent.join('; ')}`] : []),
    ],
  );
}

function deliveryItem(one: EvidenceDelivery): EvidenceItem {
  const to = one.address ? ` to ${one.address}` : '';
  return item(`${moment(one.at)}: ${one.message}, by ${by(one.channel)}${to}`, one.why ? [one.why] : [], [
    one.outcome,
  ]);
}

function formItem({ name, version, madeAt, definition }: PermissionReport['forms'][number]): EvidenceItem {
  return item(
    `${name}, version ${version}, since ${moment(madeAt)}`,
    [
      definition.title,
      ...(definition.intro ? [definition.intro] : []),
      ...definition.items.map((one) => `${one.label}: ________`),
      ...definition.asks.map((ask) => `[  ] ${ask.words}`),
      `( ${definition.button} )`,
    ],
    [],
  );
}
