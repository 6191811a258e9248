import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayInZone, isoDay } from '@goodword/core/common';
import type { LettersView, MessageView } from '@goodword/core/contract';
import { LETTER_FORMS, type LetterForm } from '@goodword/core/print';
import { verdictWords } from '@goodword/core/words';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Confirm } from '../ui/dialogs';

const FORM_WORDS: Record<LetterForm, string> = {
  'din-b': t`A4, window envelope by DIN 5008 form B`,
  'us-10': t`US Letter, no. 10 window envelope`,
};

/** Files hold addresses: when one of the people is erased, they go. */
const isTakenAway = ({ made, files, done, total }: LettersView) =>
  !made && files.length === 0 && total > 0 && done === total;

/** The files to print, and in which form they are laid out. */
function Files({ message, view, may }: { message: MessageView; view: LettersView; may: boolean }) {
  const queryClient = useQueryClient();
  const anew = useMutation({
    mutationFn: (form: LetterForm) => api.post('messages/{id}/letters', { id: message.id, body: { form } }),
    onSettled: () => refresh(queryClient, 'messages'),
  });
  const open = message.state === 'posting';
  return (
    <>
      <ul className="w-full">
        {view.files.map((file) => (
          <li key={file.id} className="border-t border-hair py-2 flex flex-wrap gap-x-4 items-baseline">
            {may ? (
              <a
                className="link font-semibold grow"
                href={`/api/messages/${message.id}/letters/${file.id}/file`}
              >
                {file.name}
              </a>
            ) : (
              <span className="font-semibold grow">{file.name}</span>
            )}
            <span className="text-ink2">
              {file.kind === 'csv'
                ? t`addresses for a print house`
                : plural(file.letters, { one: '# letter', other: '# letters' })}
            </span>
          </li>
        ))}
      </ul>
      {open && may && (
        <Labelled label={t`Paper and envelope`}>
          <select
            className="input !w-auto"
            value={view.form}
            disabled={anew.isPending}
            onChange={({ target }) =>
              anew.mutate(LETTER_FORMS.find((one) => one === target.value) ?? view.form)
            }
          >
            {LETTER_FORMS.map((form) => (
              <option key={form} value={form}>
                {FORM_WORDS[form]}
              </option>
            ))}
          </select>
        </Labelled>
      )}
      {(isTakenAway(view) || view.problem !== null) && open && may && (
        <Button once className="self-start" disabled={anew.isPending} onClick={() => anew.mutate(view.form)}>
          {t`Lay them out anew`}
        </Button>
      )}
      {open && view.refused.length > 0 && (
        <div className="border-l-[3px] border-ochremark pl-3" role="status">
          <p className="font-semibold">
            <Plural
              value={view.refused.length}
              one="One letter must not leave any more"
              other="# letters must not leave any more"
            />
          </p>
          <p className="text-ink2 pb-1">
            {t`Take them out of the pile by the number at their foot, or lay all out anew.`}
          </p>
          <ul>
            {view.refused.map(({ number, supporterId, name, reason }) => (
              <li key={number}>
                <Trans>Letter {number}:</Trans>{' '}
                <Link className="link" to={`/sort/supporters/${supporterId}`}>
                  {name || t`somebody without a name`}
                </Link>
                , {verdictWords(reason, 'post').toLowerCase()}
              </li>
            ))}
          </ul>
          {may && (
            <Button once className="mt-2" disabled={anew.isPending} onClick={() => anew.mutate(view.form)}>
              {t`Lay them out anew`}
            </Button>
          )}
        </div>
      )}
      <ProblemNote error={anew.error} />
    </>
  );
}

/** The day, and the word that they have been posted. */
function Posted({ message, view }: { message: MessageView; view: LettersView }) {
  const queryClient = useQueryClient();
  const { timeZone } = useSession().organization;
  const today = isoDay(dayInZone(Date.now(), timeZone));
  const [on, setOn] = useState(today);
  const [stopping, setStopping] = useState(false);
  const posted = useMutation({
    mutationFn: () => api.post('messages/{id}/posted', { id: message.id, body: { on } }),
    onSettled: () => refresh(queryClient, 'messages'),
  });
  const letters = view.total - view.refused.length;
  return (
    <>
      <div className="flex flex-wrap items-end gap-3">
        <Labelled label={t`Posted on`}>
          <input
            className="input"
            type="date"
            max={today}
            value={on}
            onChange={({ target }) => setOn(target.value)}
          />
        </Labelled>
        <Button
          once
          weight="main"
          disabled={posted.isPending || !view.made || on === ''}
          onClick={() => posted.mutate()}
        >
          {plural(letters, { one: 'Say that # was posted', other: 'Say that # were posted' })}
        </Button>
        <Button onClick={() => setStopping(true)}>{t`They will not be posted`}</Button>
      </div>
      <p className="text-ink2">{t`Only then do records and results count them as sent.`}</p>
      <ProblemNote error={posted.error} />
      <Confirm
        open={stopping}
        onClose={() => setStopping(false)}
        title={t`Stop “${message.name}”?`}
        act={t`Stop it`}
        body={<p>{t`The letters count as not sent. The words stay, and can be used again.`}</p>}
        onAct={async () => (
          await api.post('messages/{id}/stop', { id: message.id }),
          void refresh(queryClient, 'messages')
        )}
      />
    </>
  );
}

/** Letters on their way to the post: laid out, printed, and said to be posted. */
export function LettersToPost({ message }: { message: MessageView }) {
  const format = useFormat();
  const may = useMay('organizer');
  const open = message.state === 'posting';
  const { data, error } = useQuery({
    ...reading('messages/{id}/letters', { id: message.id }),
    enabled: open || message.state === 'done',
    retry: open,
    refetchInterval: (read) => (open ? (read.state.data?.made ? 10_000 : 1_000) : false),
  });
  if (message.state === 'stopped') return <p>{t`It was stopped: no letter counts as posted.`}</p>;
  if (error && !open) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the letters`} />;
  const total = format.number(data.total);
  return (
    <>
      {data.problem && <ProblemNote error={new Error(data.problem)} />}
      <p role="status">
        {data.postedOn ? (
          t`Posted on ${format.day(data.postedOn)}.`
        ) : data.made ? (
          data.total === 0 ? (
            t`There is no letter to post: nobody may be written to.`
          ) : (
            <Trans>
              <Plural value={data.total} one="One letter is" other="# letters are" /> laid out, by postcode.
              Print them, fold them at the marks, and post them.
            </Trans>
          )
        ) : isTakenAway(data) ? (
          t`The files were taken away, since somebody who was on them has been erased.`
        ) : (
          t`${format.number(data.done)} of ${total} are laid out…`
        )}
      </p>
      <Files message={message} view={data} may={may} />
      {open && may && data.made && <Posted message={message} view={data} />}
    </>
  );
}
