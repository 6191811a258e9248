import { t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import type { SegmentCount } from '@goodword/core/contract';
import { isGroup, type Group, type Rule } from '@goodword/core/segment';
import { readingByPost } from '../app/reading';
import { Button, Loading, ProblemNote } from '../ui/basics';
import { useSubjects } from './lines/subjects';
import { Sentence } from './Sentence';

const asTop = (tree: Rule | null): Group =>
  tree === null ? { kind: 'all', rules: [] } : isGroup(tree) ? tree : { kind: 'all', rules: [tree] };

/** Chooses whom something is for, by the same sentence as a segment. */
export function ForWhom({
  tree,
  act,
  found,
  onDone,
}: {
  tree: Rule | null;
  act: string;
  /** What there is to say of those who fit it today. */
  found: (count: SegmentCount) => ReactNode;
  onDone: (tree: Group) => void;
}) {
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
          {found(data)}
        </p>
      )}
      <Button
        weight="main"
        className="self-start"
        disabled={typed.rules.length === 0}
        onClick={() => onDone(typed)}
      >
        {act}
      </Button>
    </div>
  );
}
