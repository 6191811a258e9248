import { t } from '@lingui/core/macro';
import { FIELD_TYPES } from '@goodword/core/fields';
import {
  readsRefusals,
  type BatchKind,
  type ColumnChoice,
  type DayTarget,
  type KnownField,
  type PlainTarget,
  type RefusedChannel,
} from '@goodword/core/intake';
import { CHANNELS, SENDING_CHANNELS } from '@goodword/core/permission';
import { FIELD_TYPE_WORDS, TARGET_WORDS } from '@goodword/core/words';

/** What a column becomes, in two short lines. */
export function columnWords(
  choice: ColumnChoice,
  fields: readonly KnownField[],
  country: string,
): [string, string] {
  switch (choice.to) {
    case 'mobile':
      return [t`Phone`, t`mobile or landline, ${country}`];
    case 'consent':
      return [choice.channel === 'email' ? t`Email permission` : t`Text permission`, t`yes or no`];
    case 'refusal':
      return [REFUSAL_COLUMN_WORDS[choice.channel], t`a yes here is a no`];
    case 'field':
      return [
        fields.find((field) => field.id === choice.fieldId)?.name ?? t`A field`,
        FIELD_TYPE_WORDS[choice.type],
      ];
    case 'newField':
      return [t`Make a field: ${choice.name}`, FIELD_TYPE_WORDS[choice.type]];
    default:
      return TARGET_WORDS[choice.to];
  }
}

/** A column whose yes is a no. */
const REFUSAL_COLUMN_WORDS: Record<RefusedChannel, string> = {
  email: t`No email`,
  text: t`No texts`,
  call: t`No calls`,
  post: t`No post`,
  every: t`No contact`,
};

/** What a choice is called among the others. */
export function offerKey(choice: ColumnChoice): string {
  if (choice.to === 'field') return `field:${choice.fieldId}`;
  return choice.to === 'consent' || choice.to === 'refusal' ? `${choice.to}:${choice.channel}` : choice.to;
}

export interface TargetOffer {
  key: string;
  words: string;
  choice: ColumnChoice;
}

/** Targets by kind of file, in the groups in which they are offered. */
const WHO: (PlainTarget | DayTarget)[] = [
  'email',
  'mobile',
  'firstName',
  'lastName',
  'fullName',
  'nameEmail',
  'externalId',
];
const PLACE: PlainTarget[] = ['street', 'postcode', 'city', 'region', 'country'];
const GROUPS: Record<BatchKind, [string, (PlainTarget | DayTarget)[]][]> = {
  people: [
    [t`Who`, WHO],
    [t`Address`, PLACE],
    [t`Permission`, ['signedOn', 'signedWords']],
    [t`Groups`, ['tags', 'stage', 'chapter']],
  ],
  here: [
    [t`Who`, [...WHO, 'postcode']],
    [t`Groups`, ['tags', 'stage']],
  ],
  refusals: [
    [t`Who`, ['email', 'mobile', 'nameEmail', 'firstName', 'lastName', 'externalId']],
    [t`What they did`, ['status', 'signedOn']],
  ],
  gifts: [
    [t`Gift`, ['amount', 'currency', 'givenOn', 'giftId', 'appeal', 'rhythm']],
    [t`Whose`, [...WHO, ...PLACE]],
  ],
};

/** Everything that a column can be matched to, in groups; fields only where people are brought in. */
export function offersFor(
  header: string,
  fields: readonly KnownField[],
  what: BatchKind = 'people',
): { known: [string, TargetOffer[]][]; make: TargetOffer[] } {
  const plain = (to: PlainTarget | DayTarget): TargetOffer => ({
    key: to,
    words: columnWords({ to } as ColumnChoice, fields, '')[0],
    choice: { to } as ColumnChoice,
  });
  const groups = GROUPS[what].map(([name, targets]): [string, TargetOffer[]] => [name, targets.map(plain)]);
  if (readsRefusals(what)) {
    const said: ColumnChoice[] = [
      ...(what === 'people' ? SENDING_CHANNELS.map((channel) => ({ to: 'consent' as const, channel })) : []),
      ...([...CHANNELS, 'every'] as const).map((channel) => ({ to: 'refusal' as const, channel })),
    ];
    const offered = said.map((choice): TargetOffer => ({
      key: offerKey(choice),
      words: columnWords(choice, [], '')[0],
      choice,
    }));
    const permission = groups.find(([name]) => name === 'Permission');
    if (permission) permission[1].unshift(...offered);
    else groups.push([t`Permission`, offered]);
  }
  if (what === 'people') {
    const own = fields.map((field): TargetOffer => ({
      key: `field:${field.id}`,
      words: field.name,
      choice: { to: 'field', fieldId: field.id, type: field.type },
    }));
    if (own.length > 0) groups.push([t`Your fields`, own]);
  }
  const name = header.trim().slice(0, 60) || t`Unnamed`;
  const make =
    what === 'people'
      ? FIELD_TYPES.map((type): TargetOffer => ({
          key: `new:${type}`,
          words: FIELD_TYPE_WORDS[type],
          choice: { to: 'newField', name, type },
        }))
      : [];
  return { known: groups, make };
}

export const KIND_WORDS: Record<BatchKind, [string, string]> = {
  people: [t`People to bring in`, t`New people, and what is new of those who are here`],
  refusals: [
    t`People who opted out`,
    t`Left, bounced or complained in another system: nobody is brought in as reachable`,
  ],
  here: [t`People already here`, t`Added to a list, a tag or a roster by their address or own id`],
  gifts: [t`Gifts`, t`Amounts with days, matched to the people who gave`],
};
