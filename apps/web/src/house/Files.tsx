import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call, get } from '../app/api';
import { useMay } from '../app/session';
import { Button, Heading, Labelled, Loading, Problem } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { HouseNav } from './HouseNav';

/** How long the files of batches are kept. */
export default function Files() {
  const may = useMay('owner');
  const queryClient = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['house-files'], queryFn: () => get<{ days: number }>('house/files') });
  const [typed, setTyped] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: () => call('PUT', 'house/files', { days: Number(typed) }),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: ['house-files'] });
      setTyped(null);
    },
  });
  useMargin([
    {
      key: 'why',
      tone: 'plain',
      title: 'Why they go at all',
      body: 'A file holds more about people than was brought in. What came of it, and the evidence in the ledger, stay without it.',
    },
  ]);
  if (!data) return error ? <Problem error={error} /> : <Loading what="the rule" />;
  const days = typed ?? String(data.days);
  return (
    <>
      <Heading title="House rules" note="Files of batches" />
      <HouseNav />
      <form className="sheet p-6 flex flex-col gap-3 max-w-[560px]" onSubmit={(event) => (event.preventDefault(), save.mutate())}>
        <Labelled
          label="Days that the files of batches are kept"
          hint="After that they are deleted. Rows to mend and rows that came in can be downloaded until then."
        >
          <input
            className="input !w-[120px]"
            inputMode="numeric"
            disabled={!may}
            value={days}
            onChange={(event) => setTyped(event.target.value.replace(/\D/g, '').slice(0, 4))}
          />
        </Labelled>
        <Problem error={save.error} />
        {may && (
          <Button weight="main" type="submit" className="self-start" disabled={typed === null || Number(days) < 1 || save.isPending}>
            Keep files {days || '…'} days
          </Button>
        )}
      </form>
    </>
  );
}
