import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { isGroup, type Group, type Rule } from '@goodword/core/segment';
import { useFormat } from '../app/format';
import { readingByPost } from '../app/reading';
import { useSubjects } from '../sort/lines/subjects';
import { Sentence } from '../sort/Sentence';
import { Button, Loading, ProblemNote } from '../ui/basics';

const asTop = (tree: Rule | null): Group =>
  tree === null ? { kind: 'all', rules: [] } : isGroup(tree) ? tree : { kind: 'all', rules: [tree] };

/** Chooses whom a passage is for, by the same sentence as a segment. */
export function PassageFor({ tree, onDone }: { tree: Rule | null; onDone: (tree: Group) => void }) {
  const format = useFormat();
  const subjects = useSubjects(null);
  const [typed, setTyped] = useState(() => asTop(tree));
  const { data, error } = useQuery({
    ...readingByPost('segments/count', { body: { tree: typed, reach: false } }),
    enabled: typed.rules.length > 0,
    placeholderData: keepPreviousData,
  });
  if (!subjects) return <Loading what={t`what a sentence can speak of`} />;
  return (
    <div className="flex flex-col gap-4 overflow-y-auto">
      <Sentence tree={typed} steps={data?.steps} subjects={subjects} onChange={setTyped} />
      <ProblemNote error={error} />
      {data && typed.rules.length > 0 && (
        <p role="status" className="text-ink2">
          <Trans>
            {format.number(data.total)} of {format.number(data.everybody)} people read it today. Who they are
            is looked at anew when the message leaves.
          </Trans>
        </p>
      )}
      <Button
        weight="main"
        className="self-start"
        disabled={typed.rules.length === 0}
        onClick={() => onDone(typed)}
      >
        {t`The passage is for them`}
      </Button>
    </div>
  );
}
