import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import type { WordVersion } from '@goodword/core/contract';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { Button, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { changedWords, type WordChange } from './changedWords';

function Changes({ changes }: { changes: WordChange[] }) {
  if (changes.every(({ is }) => is === 'same'))
    return <p className="text-ink2">{t`No word changed: how it is set, or a picture.`}</p>;
  return (
    <p className="whitespace-pre-wrap text-[14px]">
      {changes.map(({ words, is }, at) =>
        is === 'same' ? (
          <span key={at}>{words}</span>
        ) : is === 'new' ? (
          <ins key={at} className="text-verdigris underline underline-offset-2">
            {words}
          </ins>
        ) : (
          <del key={at} className="text-madder line-through">
            {words}
          </del>
        ),
      )}
    </p>
  );
}

function Versions({
  asked,
  onTake,
}: {
  asked: UseQueryResult<WordVersion[]>;
  /** Null where nothing can be changed. */
  onTake: ((words: WordVersion['words']) => void) | null;
}) {
  const format = useFormat();
  const [opened, setOpened] = useState(0);
  if (asked.error) return <ProblemNote error={asked.error} />;
  if (!asked.data) return <Loading what={t`earlier versions`} />;
  if (asked.data.length === 0) return <p className="text-ink2">{t`Nothing was changed yet.`}</p>;
  return (
    <ol className="sheet overflow-y-auto">
      {asked.data.map((version, at) => (
        <li key={version.version} className="border-b border-hair last:border-0 px-5 py-3">
          <button
            type="button"
            className="font-semibold text-left w-full"
            aria-expanded={opened === at}
            onClick={() => setOpened(opened === at ? -1 : at)}
          >
            <Trans>
              {version.by ?? t`somebody who is gone`}, {format.moment(version.at)}
            </Trans>
            {at === 0 && <span className="text-ink2 font-normal"> {t`as it is now`}</span>}
          </button>
          {opened === at && (
            <div className="pt-2 flex flex-col gap-3">
              <Changes changes={changedWords(asked.data[at + 1]?.words ?? null, version.words)} />
              {at > 0 && onTake && (
                <Button className="self-start" onClick={() => onTake(version.words)}>
                  {t`Take these words again`}
                </Button>
              )}
            </div>
          )}
        </li>
      ))}
    </ol>
  );
}

/** Who wrote what when, word by word; any version can be taken again. */
export function WordVersions({
  of,
  id,
  open,
  onClose,
  onTake,
}: {
  of: 'message' | 'template';
  id: number;
  open: boolean;
  onClose: () => void;
  onTake: ((words: WordVersion['words']) => void) | null;
}) {
  const ofMessage = useQuery({
    ...reading('messages/{id}/versions', { id }),
    enabled: open && of === 'message',
    staleTime: 0,
  });
  const ofTemplate = useQuery({
    ...reading('templates/{id}/versions', { id }),
    enabled: open && of === 'template',
    staleTime: 0,
  });
  return (
    <Drawer
      open={open}
      onClose={onClose}
      title={t`What changed`}
      note={t`What one person wrote in one go is one version`}
      wide
    >
      {open && <Versions asked={of === 'message' ? ofMessage : ofTemplate} onTake={onTake} />}
    </Drawer>
  );
}
