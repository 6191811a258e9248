import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { Group, Rule } from '@goodword/core/segment';
import { useFormat } from '../app/format';
import { ForWhom } from '../sort/ForWhom';

/** Chooses whom a passage is for, by the same sentence as a segment. */
export function PassageFor({ tree, onDone }: { tree: Rule | null; onDone: (tree: Group) => void }) {
  const format = useFormat();
  return (
    <ForWhom
      tree={tree}
      act={t`The passage is for them`}
      found={({ total, everybody }) => (
        <Trans>
          {format.number(total)} of {format.number(everybody)} people read it today. Who they are is looked at
          anew when the message leaves.
        </Trans>
      )}
      onDone={onDone}
    />
  );
}
