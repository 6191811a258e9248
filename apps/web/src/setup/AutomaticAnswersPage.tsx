import { plural, t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { TextAnswers as Answers } from '@goodword/core/contract';
import { countParts } from '@goodword/core/text';
import { ProblemError, api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Unsaved } from '../ui/Unsaved';
import { SetupNav } from './SetupNav';
import { reading } from '../app/reading';

const FIELDS = [
  [
    'stop',
    t`To STOP and its like`,
    t`Once, within five minutes, asking for nothing. Must say that START brings the texts back.`,
  ],
  ['help', t`To HELP`, t`Who you are and how to leave.`],
  [
    'start',
    t`To START, a YES that confirms, and whoever joins by a keyword`,
    t`Must say that STOP ends the texts.`,
  ],
] as const;

/** What the program answers to texts by itself; everything else waits for a person. */
export default function AutomaticAnswersPage() {
  const { data, error } = useQuery(reading('text-answers'));
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the answers`} />;
  return <Editor answers={data} />;
}

function Editor({ answers }: { answers: Answers }) {
  const may = useMay('owner');
  const { organization } = useSession();
  const queryClient = useQueryClient();
  const draft = useDrafting('text-answers', { value: answers, version: answers });
  const save = useMutation({
    mutationFn: (body: Answers) => api.put('text-answers', { body: { ...body, was: draft.basedOn } }),
    onSuccess: async (_none, sent) => {
      await refresh(queryClient, 'text-answers');
      draft.saved(sent);
    },
    // Somebody was quicker: what they saved is fetched, and both are shown.
    onError: () => refresh(queryClient, 'text-answers'),
  });
  return (
    <>
      <Heading
        title={t`Setup`}
        page={t`Automatic answers`}
        note={t`What ${organization.textFrom} answers by itself, at most once to each text`}
      />
      <SetupNav />
      <form
        className="sheet p-5 flex flex-col gap-5 max-w-[720px]"
        onSubmit={(event) => (event.preventDefault(), save.mutate(draft.value))}
      >
        {FIELDS.map(([name, label, hint]) => {
          const { parts } = countParts(draft.value[name]);
          return (
            <Labelled
              key={name}
              label={label}
              hint={`${hint} ${plural(parts, { one: '# part.', other: '# parts.' })}`}
              fault={save.error instanceof ProblemError ? save.error.of(name) : null}
            >
              <textarea
                className="input min-h-[64px]"
                maxLength={320}
                disabled={!may}
                value={draft.value[name]}
                onChange={(event) => draft.set({ ...draft.value, [name]: event.target.value })}
              />
            </Labelled>
          );
        })}
        <Unsaved draft={draft} what={t`these answers`} />
        {draft.theirs === null && <ProblemNote error={save.error} />}
        {save.isSuccess && !draft.isChanged && <p role="status">{t`Kept.`}</p>}
        {may && (
          <Button
            type="submit"
            weight="main"
            className="self-start"
            disabled={save.isPending || draft.theirs !== null}
          >
            {t`Save these words`}
          </Button>
        )}
      </form>
    </>
  );
}
