import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { useMay } from '../app/session';
import { Button, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { Unsaved } from '../ui/Unsaved';
import { SetupNav } from './SetupNav';
import { keyOf, reading } from '../app/reading';

/** How long the files of batches are kept. */
export default function Files() {
  const { data, error } = useQuery(reading('house/files'));
  useMargin([
    {
      key: 'why',
      tone: 'plain',
      title: t`Why they go at all`,
      body: t`A file holds more about people than was brought in. What came of it, and the evidence in the ledger, stay without it.`,
    },
  ]);
  if (!data) return error ? <ProblemNote error={error} /> : <Loading what={t`the rule`} />;
  return (
    <>
      <Heading title={t`Setup`} page={t`Files of batches`} note={t`Files of batches`} />
      <SetupNav />
      <Days kept={data.days} />
    </>
  );
}

function Days({ kept }: { kept: number }) {
  const may = useMay('owner');
  const queryClient = useQueryClient();
  const draft = useDrafting('house-files', { value: String(kept), version: kept });
  const days = draft.value;
  const again = () => queryClient.invalidateQueries({ queryKey: keyOf('house/files') });
  const save = useMutation({
    mutationFn: (typed: string) =>
      api.put('house/files', { body: { days: Number(typed), was: draft.basedOn } }),
    onSuccess: async (_none, typed) => {
      await again();
      draft.saved(typed);
    },
    onError: again,
  });
  return (
    <form
      className="sheet p-6 flex flex-col gap-3 max-w-[560px]"
      onSubmit={(event) => (event.preventDefault(), save.mutate(days))}
    >
      <Labelled
        label={t`Days that the files of batches are kept`}
        hint={t`After that they are deleted. Rows with errors and rows that came in can be downloaded until then.`}
      >
        <input
          className="input !w-[120px]"
          inputMode="numeric"
          disabled={!may}
          value={days}
          onChange={(event) => draft.set(event.target.value.replace(/\D/g, '').slice(0, 4))}
        />
      </Labelled>
      <Unsaved draft={draft} what={t`the days`} />
      {draft.theirs === null && <ProblemNote error={save.error} />}
      {may && (
        <Button
          weight="main"
          type="submit"
          className="self-start"
          disabled={!draft.isChanged || draft.theirs !== null || Number(days) < 1 || save.isPending}
        >
          <Trans>Keep files {days || '…'} days</Trans>
        </Button>
      )}
    </form>
  );
}
