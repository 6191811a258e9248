import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import {
  CAUSES,
  CAUSE_KINDS,
  CAUSE_LIMITS,
  type Cause,
  type CauseKind,
  type CauseOf,
} from '@goodword/core/automations';
import { isHandedOver } from '@goodword/core/permission';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { ForWhat } from '../sort/lines/PermissionWords';
import { byId, useSubjects, type Subjects } from '../sort/lines/subjects';
import { TypedInWord } from '../sort/lines/TypedInWord';
import { PickWord, Word } from '../sort/lines/Word';

/** What there is to choose from where a cause is said. */
export interface CauseSubjects extends Subjects {
  forms: readonly { id: number; name: string }[];
  teammates: readonly { id: number; name: string }[];
}

interface CauseProps<K extends CauseKind> {
  cause: CauseOf<K>;
  subjects: CauseSubjects;
  onChange: (cause: Cause) => void;
}

/** What each kind is called where it is chosen; the words behind it are its own. */
const OFFERS: Record<CauseKind, string> = {
  gift: t`a gift arrives`,
  list: t`somebody joins the list`,
  form: t`somebody joins by the form`,
  tag: t`a tag is put on`,
  date: t`a date comes`,
  lapses: t`a permission is about to lapse`,
  stage: t`somebody comes to a stage`,
  quiet: t`somebody has done nothing for`,
  keyword: t`somebody texts the word`,
  click: t`somebody clicks a link in`,
};

/** One of each kind to begin with; nothing where there is nothing to speak of. */
const BEGIN: { [K in CauseKind]: (subjects: CauseSubjects) => CauseOf<K> | undefined } = {
  gift: () => ({ kind: 'gift', which: 'any', atLeast: null }),
  list: ({ lists: [list] }) => list && { kind: 'list', listId: list.id },
  form: ({ forms: [form] }) => form && { kind: 'form', formId: form.id },
  tag: ({ tags: [tag] }) => tag && { kind: 'tag', tagId: tag.id, by: null },
  date: ({ fields }) => {
    const field = datesOf(fields)[0];
    return field && { kind: 'date', fieldId: field.id, days: 0, yearly: field.type === 'birthday' };
  },
  lapses: () => ({ kind: 'lapses', channel: 'email', scope: 'appeals', days: 30 }),
  stage: ({ campaigns: [campaign] }) =>
    campaign && { kind: 'stage', campaignId: campaign.id, stage: campaign.stages[0]! },
  quiet: () => ({ kind: 'quiet', months: 12 }),
  keyword: () => ({ kind: 'keyword', word: 'FERRY' }),
  click: ({ messages }) => {
    const message = messages.find(({ channel, state }) => isHandedOver(channel) && state !== 'draft');
    return message && { kind: 'click', messageId: message.id };
  },
};

const datesOf = (fields: CauseSubjects['fields']) =>
  fields.filter(({ type }) => type === 'date' || type === 'birthday');

function GiftWords({ cause, onChange }: CauseProps<'gift'>) {
  const format = useFormat();
  const { atLeast } = cause;
  return (
    <>
      <PickWord
        label={t`Which gifts`}
        value={cause.which}
        options={[
          ['any', t`any gift`],
          ['first', t`somebody’s first`],
          ['again', t`each after the first`],
          ['recurring', t`the first of a regular giver`],
        ]}
        onPick={(which) => onChange({ ...cause, which })}
      />
      {', '}
      <Word
        words={atLeast === null ? t`of any amount` : t`of at least ${format.money(atLeast)}`}
        label={t`Amount`}
      >
        {(close) => (
          <form onSubmit={(event) => (event.preventDefault(), close())}>
            <TypedInWord
              label={t`At least; empty for any amount`}
              shown={atLeast === null ? '' : String(atLeast / 100)}
              hint={t`This is no amount. Write it like 25 or 25.50.`}
              read={amountIn}
              onTake={(amount) => onChange({ ...cause, atLeast: amount })}
            />
          </form>
        )}
      </Word>
    </>
  );
}

function amountIn(typed: string): number | null | undefined {
  const text = typed.replace(/[\s,$€£]/g, '');
  if (text === '') return null;
  const amount = Math.round(Number(text) * 100);
  return Number.isFinite(amount) && amount >= 1 ? amount : undefined;
}

const ListWords = ({ cause, subjects, onChange }: CauseProps<'list'>) => (
  <PickWord
    label={t`List`}
    value={cause.listId}
    options={byId(subjects.lists)}
    onPick={(listId) => onChange({ ...cause, listId })}
  />
);

const FormWords = ({ cause, subjects, onChange }: CauseProps<'form'>) => (
  <PickWord
    label={t`Form`}
    value={cause.formId}
    options={byId(subjects.forms)}
    onPick={(formId) => onChange({ ...cause, formId })}
  />
);

const TagCauseWords = ({ cause, subjects, onChange }: CauseProps<'tag'>) => (
  <>
    <PickWord
      label={t`Tag`}
      value={cause.tagId}
      options={byId(subjects.tags)}
      onPick={(tagId) => onChange({ ...cause, tagId })}
    />{' '}
    <PickWord
      label={t`By whom`}
      value={cause.by ?? 0}
      options={[
        [0, t`by anybody`],
        ...subjects.teammates.map(({ id, name }) => [id, t`by ${name}`] as const),
      ]}
      onPick={(by) => onChange({ ...cause, by: by || null })}
    />
  </>
);

/** `-3` is three days before. */
function daysAround(typed: string): number | undefined {
  const days = Number(typed.trim());
  return typed.trim() !== '' && Number.isInteger(days) && Math.abs(days) <= CAUSE_LIMITS.days
    ? days
    : undefined;
}

function aroundWords(days: number): string {
  if (days === 0) return t`on the day of`;
  const n = Math.abs(days);
  if (days < 0) return n === 1 ? t`1 day before` : t`${n} days before`;
  return n === 1 ? t`1 day after` : t`${n} days after`;
}

function DateWords({ cause, subjects, onChange }: CauseProps<'date'>) {
  const fields = datesOf(subjects.fields);
  const isBirthday = fields.find(({ id }) => id === cause.fieldId)?.type === 'birthday';
  return (
    <>
      <Word words={aroundWords(cause.days)} label={t`Days before or after`}>
        {(close) => (
          <form onSubmit={(event) => (event.preventDefault(), close())}>
            <TypedInWord
              label={t`Days after the date; -3 is three days before it`}
              shown={String(cause.days)}
              hint={t`A number of days, at most ${CAUSE_LIMITS.days}.`}
              read={daysAround}
              onTake={(days) => onChange({ ...cause, days })}
            />
          </form>
        )}
      </Word>{' '}
      <PickWord
        label={t`Date`}
        value={cause.fieldId}
        options={byId(fields)}
        onPick={(fieldId) =>
          onChange({
            ...{ ...cause, fieldId },
            yearly: fields.find(({ id }) => id === fieldId)?.type === 'birthday' || cause.yearly,
          })
        }
      />
      {isBirthday ? (
        t`, each year`
      ) : (
        <>
          {', '}
          <PickWord
            label={t`Once or each year`}
            value={cause.yearly ? 'y' : 'n'}
            options={[
              ['n', t`in its year`],
              ['y', t`each year`],
            ]}
            onPick={(picked) => onChange({ ...cause, yearly: picked === 'y' })}
          />
        </>
      )}
    </>
  );
}

function LapsesCauseWords({ cause, subjects, onChange }: CauseProps<'lapses'>) {
  return (
    <>
      <ForWhat line={cause} subjects={subjects} onChange={onChange} />
      {', '}
      <PickWord
        label={t`Days ahead`}
        value={cause.days}
        options={[7, 14, 30, 60, 90].map((days) => [days, t`within ${days} days`] as const)}
        onPick={(days) => onChange({ ...cause, days })}
      />
    </>
  );
}

function StageWords({ cause, subjects, onChange }: CauseProps<'stage'>) {
  const campaign = subjects.campaigns.find(({ id }) => id === cause.campaignId);
  return (
    <>
      <PickWord
        label={t`Stage`}
        value={cause.stage}
        options={(campaign?.stages ?? []).map((stage) => [stage, stage] as const)}
        onPick={(stage) => onChange({ ...cause, stage })}
      />{' '}
      {t`of`}{' '}
      <PickWord
        label={t`Campaign`}
        value={cause.campaignId}
        options={byId(subjects.campaigns)}
        onPick={(campaignId) =>
          onChange({
            ...{ ...cause, campaignId },
            stage: subjects.campaigns.find(({ id }) => id === campaignId)?.stages[0] ?? cause.stage,
          })
        }
      />
    </>
  );
}

const MONTHS = [3, 6, 9, 12, 18, 20, 24, 36];
const QuietWords = ({ cause, onChange }: CauseProps<'quiet'>) => (
  <PickWord
    label={t`Months`}
    value={cause.months}
    options={MONTHS.map((months) => [months, t`${months} months`] as const)}
    onPick={(months) => onChange({ ...cause, months })}
  />
);

const KeywordWords = ({ cause, onChange }: CauseProps<'keyword'>) => (
  <Word words={cause.word} label={t`Word`}>
    {(close) => (
      <form onSubmit={(event) => (event.preventDefault(), close())}>
        <TypedInWord
          label={t`The word that they text, and nothing else`}
          shown={cause.word}
          hint={t`One word of letters A to Z and figures.`}
          read={(typed) => (/^[a-z0-9]{1,30}$/i.test(typed.trim()) ? typed.trim().toUpperCase() : undefined)}
          onTake={(word) => onChange({ ...cause, word })}
        />
      </form>
    )}
  </Word>
);

const ClickWords = ({ cause, subjects, onChange }: CauseProps<'click'>) => (
  <PickWord
    label={t`Message`}
    value={cause.messageId}
    options={byId(subjects.messages.filter(({ channel }) => isHandedOver(channel)))}
    onPick={(messageId) => onChange({ ...cause, messageId })}
  />
);

const WORDS: { [K in CauseKind]: (props: CauseProps<K>) => ReactNode } = {
  gift: GiftWords,
  list: ListWords,
  form: FormWords,
  tag: TagCauseWords,
  date: DateWords,
  lapses: LapsesCauseWords,
  stage: StageWords,
  quiet: QuietWords,
  keyword: KeywordWords,
  click: ClickWords,
};

/** Everything that a cause can speak of, once all of it is there. */
export function useCauseSubjects(): CauseSubjects | null {
  const subjects = useSubjects(null);
  const forms = useQuery(reading('forms')).data;
  const teammates = useQuery(reading('session/teammates')).data;
  return subjects && forms && teammates ? { ...subjects, forms, teammates } : null;
}

/** What sets it going, word by word. */
export function CauseWords({
  cause,
  subjects,
  onChange,
}: {
  cause: Cause;
  subjects: CauseSubjects;
  /** `again`, where it is another kind: whether that usually comes each time. */
  onChange: (cause: Cause, again?: boolean) => void;
}) {
  const Own = WORDS[cause.kind] as (props: CauseProps<CauseKind>) => ReactNode;
  const offered = CAUSE_KINDS.filter((kind) => kind === cause.kind || BEGIN[kind](subjects));
  return (
    <>
      <PickWord
        label={t`What sets it going`}
        value={cause.kind}
        options={offered.map((kind) => [kind, OFFERS[kind]] as const)}
        onPick={(kind) => kind !== cause.kind && onChange(BEGIN[kind](subjects)!, CAUSES[kind].again)}
      />
      {['gift', 'tag', 'date', 'lapses', 'stage'].includes(cause.kind) ? ': ' : ' '}
      <Own cause={cause} subjects={subjects} onChange={onChange} />
    </>
  );
}
