import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { BATCH_COLLECTION_METHODS, type ChannelPermission } from '@goodword/core/intake';
import { PURPOSES, type Purpose } from '@goodword/core/permission';
import { COLLECTION_METHOD_WORDS } from '@goodword/core/words';
import { localDay } from '../app/day';
import { useTyped } from '../app/drafting';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { DayField } from '../ui/DayField';
import { Drawer } from '../ui/dialogs';
import { addPerson, type Added, type OnePerson } from './onePerson';

/** One person added in one sheet: who they are, and what they agreed to. */
export function AddPerson() {
  const may = useMay('organizer');
  const [open, setOpen] = useState(false);
  if (!may) return null;
  return (
    <>
      <Button onClick={() => setOpen(true)}>{t`Add a person`}</Button>
      <Drawer
        open={open}
        onClose={() => setOpen(false)}
        title={t`Add a person`}
        note={t`Somebody who is here already is found, and filled in`}
      >
        {open && <Sheet onDone={() => setOpen(false)} />}
      </Drawer>
    </>
  );
}

const NOTHING: ChannelPermission = { said: 'nothing' };

/** How somebody agreed, when, in what words, and who vouches for it. */
interface SaidHow {
  how: (typeof BATCH_COLLECTION_METHODS)[number];
  on: string;
  words: string;
  voucher: string;
}

/** What they agreed to, how and when. */
function AgreementPart({
  by,
  setBy,
  some,
  purposes,
  setPurposes,
  said,
  setSaid,
}: {
  by: { email: boolean; text: boolean };
  setBy: (next: { email: boolean; text: boolean }) => void;
  some: boolean;
  purposes: ('news' | 'appeals' | 'volunteering' | 'service')[];
  setPurposes: (next: Purpose[]) => void;
  said: SaidHow;
  setSaid: (next: SaidHow) => void;
}) {
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="font-semibold pb-1">{t`What they agreed to`}</legend>
      <p className="text-ink2 text-[13px]">
        <Trans>
          Nothing ticked: they come in as never asked, and nothing goes to them until they say yes themselves.
        </Trans>
      </p>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        <Tick label={t`Emails`} on={by.email} onChange={(email) => setBy({ ...by, email })} />
        <Tick label={t`Texts`} on={by.text} onChange={(text) => setBy({ ...by, text })} />
      </div>
      {some && (
        <>
          <div className="flex flex-wrap gap-x-5 gap-y-1" role="group" aria-label={t`What for`}>
            {PURPOSES.filter((purpose) => purpose !== 'service').map((purpose) => (
              <Tick
                key={purpose}
                label={purpose}
                on={purposes.includes(purpose)}
                onChange={(on) =>
                  setPurposes(on ? [...purposes, purpose] : purposes.filter((one) => one !== purpose))
                }
              />
            ))}
          </div>
          <div className="grid grid-cols-2 gap-3">
            <Labelled label={t`How they said so`}>
              <select
                className="input"
                value={said.how}
                onChange={(event) => setSaid({ ...said, how: event.target.value as typeof said.how })}
              >
                {BATCH_COLLECTION_METHODS.map((road) => (
                  <option key={road} value={road}>
                    {COLLECTION_METHOD_WORDS[road]}
                  </option>
                ))}
              </select>
            </Labelled>
            <Labelled label={t`On which day`}>
              <DayField value={said.on} max={localDay()} onChange={(on) => setSaid({ ...said, on })} />
            </Labelled>
          </div>
          <Labelled
            label={t`In what words`}
            hint={t`As they stood on the sheet, or as they said it. They are kept as the evidence.`}
          >
            <textarea
              className="input"
              rows={2}
              maxLength={1000}
              value={said.words}
              onChange={(event) => setSaid({ ...said, words: event.target.value })}
            />
          </Labelled>
          <Labelled label={t`Who vouches for it`}>
            <input
              className="input"
              maxLength={120}
              value={said.voucher}
              onChange={(event) => setSaid({ ...said, voucher: event.target.value })}
            />
          </Labelled>
        </>
      )}
    </fieldset>
  );
}

function ChapterChoice({
  chapterId,
  setChapterId,
}: {
  chapterId: number | null;
  setChapterId: (id: number) => void;
}) {
  const { chapters } = useSession();
  return (
    <Labelled label={t`Chapter`}>
      <select
        className="input"
        value={chapterId ?? ''}
        onChange={(event) => setChapterId(Number(event.target.value))}
      >
        {chapters.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

function Sheet({ onDone }: { onDone: () => void }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { chapters, chapter, teammate } = useSession();
  // Kept while it is left: what is typed is lost by no click beside the sheet.
  const draft = useTyped('person:new', {
    who: { firstName: '', lastName: '', email: '', mobile: '' },
    by: { email: false, text: false },
    purposes: ['appeals', 'news'] as Purpose[],
    said: { how: 'in-person', on: localDay(), words: '', voucher: teammate.name } as SaidHow,
  });
  const { who, by, purposes, said } = draft.value;
  const put = (part: Partial<typeof draft.value>) => draft.set({ ...draft.value, ...part });
  const setWho = (next: typeof who) => put({ who: next });
  const setBy = (next: typeof by) => put({ by: next });
  const setPurposes = (next: Purpose[]) => put({ purposes: next });
  const setSaid = (next: typeof said) => put({ said: next });
  const [chapterId, setChapterId] = useState<number | null>(chapter?.id ?? chapters[0]?.id ?? null);
  const agreed = (yes: boolean): ChannelPermission =>
    yes ? { said: 'yes', from: 'everyone', scopes: purposes, ...said } : NOTHING;
  const person: OnePerson = {
    ...who,
    chapterId,
    permission: { email: agreed(by.email), text: agreed(by.text) },
  };
  const add = useMutation({
    mutationFn: () => addPerson(person),
    onSuccess: (added: Added) => {
      draft.discard();
      void refresh(queryClient, 'batches', 'supporters');
      onDone();
      void navigate(
        'supporterId' in added ? `/sort/supporters/${added.supporterId}` : `/gather/${added.batchId}`,
      );
    },
  });
  const line = (key: keyof typeof who, label: string, type = 'text') => (
    <Labelled label={label}>
      <input
        className="input"
        type={type}
        maxLength={200}
        value={who[key]}
        onChange={(event) => setWho({ ...who, [key]: event.target.value })}
      />
    </Labelled>
  );
  const some = by.email || by.text;
  const reachable = who.email.trim() !== '' || who.mobile.trim() !== '';
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), add.mutate())}
    >
      <div className="grid grid-cols-2 gap-3">
        {line('firstName', t`First name`)}
        {line('lastName', t`Last name`)}
        {line('email', t`Email`)}
        {line('mobile', t`Mobile`, 'tel')}
      </div>
      {chapters.length > 1 && <ChapterChoice chapterId={chapterId} setChapterId={setChapterId} />}
      <AgreementPart
        by={by}
        setBy={setBy}
        some={some}
        purposes={purposes}
        setPurposes={setPurposes}
        said={said}
        setSaid={setSaid}
      />
      <ProblemNote error={add.error} />
      <Button type="submit" weight="main" className="self-start" disabled={!reachable || add.isPending}>
        {add.isPending ? t`Adding…` : t`Add this person`}
      </Button>
      {!reachable && (
        <p className="text-ink2 text-[13px]">{t`An email or a mobile is needed, or nobody could reach them.`}</p>
      )}
    </form>
  );
}

function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-2">
      <input type="checkbox" checked={on} onChange={(event) => onChange(event.target.checked)} />
      {label}
    </label>
  );
}
