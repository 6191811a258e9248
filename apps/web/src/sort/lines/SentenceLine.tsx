import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { Line } from '@goodword/core/segment';
import { FieldWords } from './FieldWords';
import { GaveWords } from './GaveWords';
import { MessageWords } from './MessageWords';
import { PermissionWords } from './PermissionWords';
import { fieldLine } from './sentence';
import type { LineProps, Subjects } from './subjects';
import { PickWord, YesNoWord } from './Word';

const byId = (rows: readonly { id: number; name: string }[]) =>
  rows.map((row) => [row.id, row.name] as const);

type Has = Extract<Line, { kind: 'tag' | 'list' | 'batch' | 'chapter' | 'segment' }>;

/** Of what such a line speaks: its words, its name, what can be chosen, and where the line keeps it. */
const GROUPS = {
  tag: {
    yes: t`have`,
    no: t`do not have`,
    of: t`the tag`,
    label: t`Tag`,
    all: 'tags',
    id: 'tagId',
    is: 'has',
  },
  list: {
    yes: t`are`,
    no: t`are not`,
    of: t`on the list`,
    label: t`List`,
    all: 'lists',
    id: 'listId',
    is: 'on',
  },
  batch: {
    yes: t`came`,
    no: t`did not come`,
    of: t`with the batch`,
    label: t`Batch`,
    all: 'batches',
    id: 'batchId',
    is: 'in',
  },
  chapter: {
    yes: t`are`,
    no: t`are not`,
    of: t`of the chapter`,
    label: t`Chapter`,
    all: 'chapters',
    id: 'chapterId',
    is: 'in',
  },
  segment: {
    yes: t`are`,
    no: t`are not`,
    of: t`in the segment`,
    label: t`Segment`,
    all: 'segments',
    id: 'segmentId',
    is: 'in',
  },
} as const;

/** In a group or not: a tag, a list, a batch, a chapter, another segment. */
function GroupWords({ line, subjects, onChange }: LineProps<Has>) {
  const { yes, no, of, label, all, id, is } = GROUPS[line.kind];
  const said = line as unknown as Record<string, number | boolean>;
  const change = (part: object) => onChange({ ...line, ...part });
  return (
    <>
      <YesNoWord value={said[is] === true} yes={yes} no={no} onPick={(so) => change({ [is]: so })} /> {of}{' '}
      <PickWord
        label={label}
        value={Number(said[id])}
        options={byId(subjects[all])}
        onPick={(picked) => change({ [id]: picked })}
      />
    </>
  );
}

/** On a campaign's roster or not, at any stage or at one. */
function RosterWords({ line, subjects, onChange }: LineProps<Extract<Line, { kind: 'roster' }>>) {
  const stages = subjects.campaigns.find((campaign) => campaign.id === line.campaignId)?.stages ?? [];
  return (
    <>
      <YesNoWord value={line.on} yes={t`are`} no={t`are not`} onPick={(on) => onChange({ ...line, on })} />{' '}
      <Trans>
        on the roster of{' '}
        <PickWord
          label={t`Campaign`}
          value={line.campaignId}
          options={byId(subjects.campaigns)}
          onPick={(campaignId) => onChange({ ...line, campaignId, stages: [] })}
        />{' '}
        as
      </Trans>{' '}
      <PickWord
        label={t`Stage`}
        value={line.stages[0] ?? ''}
        options={[['', 'anything'], ...stages.map((stage) => [stage, stage] as const)]}
        onPick={(stage) => onChange({ ...line, stages: stage === '' ? [] : [stage] })}
      />
    </>
  );
}

/** One line of a segment as words that open. */
export function SentenceLine({ line, subjects, onChange }: LineProps<Line>) {
  switch (line.kind) {
    case 'tag':
    case 'list':
    case 'batch':
    case 'chapter':
    case 'segment':
      return <GroupWords line={line} subjects={subjects} onChange={onChange} />;
    case 'roster':
      return <RosterWords line={line} subjects={subjects} onChange={onChange} />;
    case 'permission':
    case 'may':
    case 'lapses':
      return <PermissionWords line={line} subjects={subjects} onChange={onChange} />;
    case 'gave':
      return <GaveWords line={line} subjects={subjects} onChange={onChange} />;
    case 'message':
      return <MessageWords line={line} subjects={subjects} onChange={onChange} />;
    case 'field':
      return <FieldWords line={line} subjects={subjects} onChange={onChange} />;
  }
}

/** Lines to begin with; those that have nothing to speak of yet are left out. */
export function newLines(subjects: Subjects): [string, Line][] {
  const [tag, list, batch, campaign, segment, chapter] = [
    subjects.tags[0],
    subjects.lists[0],
    subjects.batches[0],
    subjects.campaigns[0],
    subjects.segments[0],
    subjects.chapters.length > 1 ? subjects.chapters[0] : undefined,
  ];
  const lines: [string, Line | null][] = [
    [t`gave, or did not`, { kind: 'gave', did: true, atLeast: null, window: { over: 'ever' } }],
    [t`have a field that…`, fieldLine(subjects.fields[0]?.id ?? 'lastName', subjects.fields)],
    [t`have a tag`, tag ? { kind: 'tag', tagId: tag.id, has: true } : null],
    [t`are on a list`, list ? { kind: 'list', listId: list.id, on: true } : null],
    [
      t`got, opened or answered a message`,
      {
        kind: 'message',
        event: 'got',
        did: true,
        messageId: null,
        atLeast: 1,
        window: { over: 'last-days', days: 90 },
      },
    ],
    [t`came with a batch`, batch ? { kind: 'batch', batchId: batch.id, in: true } : null],
    [
      t`are on a campaign’s roster`,
      campaign ? { kind: 'roster', campaignId: campaign.id, stages: [], on: true } : null,
    ],
    [t`are in another segment`, segment ? { kind: 'segment', segmentId: segment.id, in: true } : null],
    [t`are of a chapter`, chapter ? { kind: 'chapter', chapterId: chapter.id, in: true } : null],
    [t`may be written to now`, { kind: 'may', channel: 'email', scope: 'appeals', may: true }],
    [t`have a permission that lapses`, { kind: 'lapses', channel: 'email', scope: 'appeals', days: 30 }],
    [
      t`opted in, opted out, or were asked`,
      { kind: 'permission', channel: 'email', scope: 'appeals', states: ['yes'] },
    ],
  ];
  return lines.filter((line): line is [string, Line] => line[1] !== null);
}
