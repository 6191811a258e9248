import type { UseMutationResult } from '@tanstack/react-query';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import type { MessageView } from '@goodword/core/contract';
import { isHandedOver } from '@goodword/core/permission';
import { KIND_OF_WORDS } from '../app/channels';
import { Button, Heading } from '../ui/basics';
import { AskedFor } from './AskedFor';
import { KeepAsTemplate } from './KeepAsTemplate';
import { type WordsOfMessage } from './mend';
import { type ListName } from '../app/groups';
import { reading } from '../app/reading';

/** As whom it goes out: their name in the From of a mail, their words in the merge fields of the sender. */
function SenderChoice({
  words,
  mayType,
  set,
}: {
  words: WordsOfMessage;
  mayType: boolean;
  set: (part: Partial<WordsOfMessage>) => void;
}) {
  const { data: mates = [] } = useQuery(reading('session/teammates'));
  const { senderId } = words;
  const isHere = mates.some(({ id }) => id === senderId);
  return (
    <label className="flex items-center gap-2 text-ink2">
      {t`from`}
      <select
        className="input !w-auto"
        aria-label={t`As whom it goes out`}
        disabled={!mayType}
        value={senderId ?? ''}
        onChange={(event) => set({ senderId: Number(event.target.value) })}
      >
        {!isHere && <option value={senderId ?? ''}>{t`whoever sends it`}</option>}
        {mates.map((mate) => (
          <option key={mate.id} value={mate.id}>
            {mate.name}
          </option>
        ))}
      </select>
    </label>
  );
}

export function DraftHead({
  words,
  mayType,
  set,
  message,
  lists,
  editable,
  setRemoving,
  test,
}: {
  words: WordsOfMessage;
  mayType: boolean;
  set: (part: Partial<WordsOfMessage>) => void;
  message: MessageView;
  lists: ListName[];
  editable: boolean;
  setRemoving: (next: boolean) => void;
  test: UseMutationResult<{ to: string }, Error, void, unknown>;
}) {
  return (
    <Heading
      page={t`Write: ${words.name || t`a message`}`}
      title={
        <input
          aria-label={t`Name of the message`}
          className="bg-transparent border-b-2 border-transparent hover:border-hair focus:border-ink outline-none w-[420px] max-w-full"
          readOnly={!mayType}
          maxLength={120}
          value={words.name}
          onChange={(event) => set({ name: event.target.value })}
        />
      }
    >
      <label className="flex items-center gap-2 text-ink2">
        <Trans>{KIND_OF_WORDS[message.channel]} for</Trans>
        <AskedFor
          label={t`What permission it asks for`}
          disabled={!mayType || message.wordingOf !== null}
          value={words}
          lists={lists}
          onChange={set}
        />
      </label>
      <SenderChoice words={words} mayType={mayType} set={set} />
      <KeepAsTemplate id={message.id} name={message.name} />
      {editable && <Button onClick={() => setRemoving(true)}>{t`Delete`}</Button>}
      {editable && isHandedOver(message.channel) && (
        <Button disabled={test.isPending} onClick={() => test.mutate()}>
          {test.data ? t`Sent to ${test.data.to}` : test.isPending ? t`Sending…` : t`Send me a test`}
        </Button>
      )}
    </Heading>
  );
}
