import { t } from '@lingui/core/macro';
import type { MessageEvent, MessageLine } from '@goodword/core/segment';
import type { LineEditor, LineProps } from './subjects';
import { WindowWords } from './WindowWords';
import { PickWord, TypeWord } from './Word';

const DEEDS: [string, string][] = [
  ['got+', 'got'],
  ['got-', t`did not get`],
  ['opened+', 'opened'],
  ['opened-', t`did not open`],
  ['clicked+', t`clicked a link in`],
  ['clicked-', t`clicked no link in`],
  ['replied+', t`replied to`],
  ['replied-', t`did not reply to`],
];

function MessageWords({ line, subjects, onChange }: LineProps<MessageLine>) {
  const messages: [number, string][] = [
    [0, line.atLeast === 1 ? t`any message` : 'messages'],
    ...subjects.messages.map(({ id, name }): [number, string] => [id, name]),
  ];
  return (
    <>
      <PickWord
        label={t`Did or did not`}
        value={`${line.event}${line.did ? '+' : '-'}`}
        tone={line.did ? undefined : 'no'}
        options={DEEDS}
        onPick={(picked) =>
          onChange({ ...line, event: picked.slice(0, -1) as MessageEvent, did: picked.endsWith('+') })
        }
      />{' '}
      {line.messageId === null && (
        <>
          <TypeWord
            label={t`How many at the least`}
            type="number"
            value={String(line.atLeast)}
            shown={line.atLeast === 1 ? t`at least one:` : t`at least ${line.atLeast}`}
            onType={(many) => onChange({ ...line, atLeast: Math.max(1, Math.round(Number(many)) || 1) })}
          />{' '}
        </>
      )}
      <PickWord
        label={t`Message`}
        value={line.messageId ?? 0}
        options={messages}
        onPick={(id) =>
          onChange({ ...line, messageId: id === 0 ? null : id, atLeast: id === 0 ? line.atLeast : 1 })
        }
      />{' '}
      <WindowWords window={line.window} onChange={(window) => onChange({ ...line, window })} />
    </>
  );
}

export const messageEditor: LineEditor<MessageLine> = {
  Words: MessageWords,
  offer: t`got, opened or answered a message`,
  begin: () => ({
    kind: 'message',
    event: 'got',
    did: true,
    messageId: null,
    atLeast: 1,
    window: { over: 'last-days', days: 90 },
  }),
};
