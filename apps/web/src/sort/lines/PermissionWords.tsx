import { PURPOSES, STATE_WORDS, STATES, type Scope } from '@goodword/core/permission';
import type { LapsesLine, MayLine, PermissionLine } from '@goodword/core/segment';
import type { LineProps } from './subjects';
import { PickWord, YesNo } from './Word';

const CHANNELS = [
  ['email', 'email'],
  ['text', 'text'],
] as const;
const SOON = [7, 14, 30, 60, 90, 180].map((days) => [days, `${days} days`] as const);

/** What for, and on which channel: the two words that every line about permission has. */
function ForWhat<L extends PermissionLine | MayLine | LapsesLine>({ line, subjects, onChange }: LineProps<L>) {
  const scopes: [Scope, string][] = [
    ['all', 'everything'],
    ...PURPOSES.map((purpose): [Scope, string] => [purpose, purpose]),
    ...subjects.lists.filter((list) => list.isPublic).map((list): [Scope, string] => [`list:${list.id}`, list.name]),
  ];
  return (
    <>
      <PickWord label="What for" value={line.scope} options={scopes} onPick={(scope) => onChange({ ...line, scope })} /> by{' '}
      <PickWord label="Channel" value={line.channel} options={CHANNELS} onPick={(channel) => onChange({ ...line, channel })} />
    </>
  );
}

export function PermissionWords(props: LineProps<PermissionLine | MayLine | LapsesLine>) {
  const { line, onChange } = props;
  switch (line.kind) {
    case 'permission':
      return (
        <>
          are{' '}
          <PickWord
            label="State"
            value={line.states.join(' ')}
            options={[
              ...STATES.map((state) => [state as string, STATE_WORDS[state].toLowerCase()] as const),
              ['yes implied', 'opted in or implied'],
              ['asked never', 'asked or never asked'],
            ]}
            onPick={(picked) => onChange({ ...line, states: STATES.filter((state) => picked.split(' ').includes(state)) })}
          />{' '}
          for <ForWhat {...props} line={line} />
        </>
      );
    case 'may':
      return (
        <>
          <YesNo value={line.may} yes="may" no="may not" onPick={(may) => onChange({ ...line, may })} /> be written to now for{' '}
          <ForWhat {...props} line={line} />
        </>
      );
    case 'lapses':
      return (
        <>
          have an implied permission for <ForWhat {...props} line={line} /> that lapses within{' '}
          <PickWord label="Days" value={line.days} options={SOON} onPick={(days) => onChange({ ...line, days })} />
        </>
      );
  }
}
