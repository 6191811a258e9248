import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { PURPOSES, STATES, type Channel, type Scope } from '@goodword/core/permission';
import type { LapsesLine, MayLine, PermissionLine } from '@goodword/core/segment';
import { STATE_WORDS } from '@goodword/core/words';
import type { LineEditor, LineProps, Subjects } from './subjects';
import { PickWord, YesNoWord } from './Word';

const CHANNELS = [
  ['email', 'email'],
  ['text', 'text'],
  ['call', t`call`],
  ['post', t`post`],
] as const;
const SOON = [7, 14, 30, 60, 90, 180].map((days) => [days, `${days} days`] as const);

/** What for, and on which channel: the two words that every line about permission has. */
export function ForWhat<L extends { channel: Channel; scope: Scope }>({
  line,
  subjects,
  onChange,
}: {
  line: L;
  subjects: Pick<Subjects, 'lists'>;
  onChange: (line: L) => void;
}) {
  const scopes: [Scope, string][] = [
    ['all', 'everything'],
    ...PURPOSES.map((purpose): [Scope, string] => [purpose, purpose]),
    ...subjects.lists
      .filter((list) => list.isPublic)
      .map((list): [Scope, string] => [`list:${list.id}`, list.name]),
  ];
  return (
    <>
      <PickWord
        label={t`What for`}
        value={line.scope}
        options={scopes}
        onPick={(scope) => onChange({ ...line, scope })}
      />{' '}
      {t`by`}{' '}
      <PickWord
        label={t`Channel`}
        value={line.channel}
        options={CHANNELS}
        onPick={(channel) => onChange({ ...line, channel })}
      />
    </>
  );
}

function PermissionWords(props: LineProps<PermissionLine>) {
  const { line, onChange } = props;
  return (
    <>
      <Trans>
        are{' '}
        <PickWord
          label={t`State`}
          value={line.states.join(' ')}
          options={[
            ...STATES.map((state) => [state as string, STATE_WORDS[state].toLowerCase()] as const),
            ['yes implied', t`opted in or implied`],
            ['asked never', t`asked or never asked`],
          ]}
          onPick={(picked) =>
            onChange({ ...line, states: STATES.filter((state) => picked.split(' ').includes(state)) })
          }
        />{' '}
        for
      </Trans>{' '}
      <ForWhat {...props} />
    </>
  );
}

function MayWords(props: LineProps<MayLine>) {
  const { line, onChange } = props;
  return (
    <>
      <YesNoWord value={line.may} yes={t`may`} no={t`may not`} onPick={(may) => onChange({ ...line, may })} />{' '}
      {t`be written to now for`} <ForWhat {...props} />
    </>
  );
}

function LapsesWords(props: LineProps<LapsesLine>) {
  const { line, onChange } = props;
  return (
    <>
      <Trans>
        have an implied permission for <ForWhat {...props} /> that lapses within
      </Trans>{' '}
      <PickWord
        label={t`Days`}
        value={line.days}
        options={SOON}
        onPick={(days) => onChange({ ...line, days })}
      />
    </>
  );
}

const APPEALS_BY_EMAIL = { channel: 'email', scope: 'appeals' } as const;

export const mayEditor: LineEditor<MayLine> = {
  Words: MayWords,
  offer: t`may be written to now`,
  begin: () => ({ kind: 'may', ...APPEALS_BY_EMAIL, may: true }),
};

export const lapsesEditor: LineEditor<LapsesLine> = {
  Words: LapsesWords,
  offer: t`have a permission that lapses`,
  begin: () => ({ kind: 'lapses', ...APPEALS_BY_EMAIL, days: 30 }),
};

export const permissionEditor: LineEditor<PermissionLine> = {
  Words: PermissionWords,
  offer: t`opted in, opted out, or were asked`,
  begin: () => ({ kind: 'permission', ...APPEALS_BY_EMAIL, states: ['yes'] }),
};
