import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { NodeViewContent, NodeViewWrapper, type ReactNodeViewProps } from '@tiptap/react';
import { useState } from 'react';
import type { Rule } from '@goodword/core/segment';
import { useFormat } from '../app/format';
import { readingByPost } from '../app/reading';
import { Drawer } from '../ui/dialogs';
import { PassageFor } from './PassageFor';

/** The sentence of a passage in words, with how many people it fits now. */
function useWhom(tree: Rule | null) {
  const { data, error } = useQuery({
    ...readingByPost('segments/count', {
      body: { tree: tree ?? { kind: 'any', rules: [] }, reach: false },
    }),
    enabled: tree !== null,
    placeholderData: keepPreviousData,
    staleTime: 30_000,
    retry: false,
  });
  const joined = tree?.kind === 'any' ? t` or ` : t` and `;
  return { words: data?.steps.map(({ words }) => words).join(joined), data, error };
}

/** A passage in the editor: whom it is for stands at its edge, with the count; the other wording below it. */
export function PersonalView({ node, updateAttributes, editor, deleteNode }: ReactNodeViewProps) {
  const tree = node.attrs.tree as Rule | null;
  const format = useFormat();
  const [choosing, setChoosing] = useState(false);
  const { words, data, error } = useWhom(tree);
  return (
    <NodeViewWrapper className="letter-personal" data-letter-personal="">
      <p contentEditable={false} className="letter-edge">
        {error ? (
          <span className="text-madder">{t`This asks for something that is gone.`} </span>
        ) : (
          <Trans>Only to those who </Trans>
        )}
        <button
          type="button"
          className="underline underline-offset-2 decoration-1"
          disabled={!editor.isEditable}
          aria-label={t`Whom the passage is for: ${words ?? t`nobody yet`}`}
          onClick={() => setChoosing(true)}
        >
          {words ?? t`choose whom…`}
        </button>
        {data && (
          <Trans>
            : {format.number(data.total)} of {format.number(data.everybody)}
          </Trans>
        )}
        {editor.isEditable && (
          <button
            type="button"
            className="float-right min-h-[24px] px-1 text-ink2 hover:text-madder"
            aria-label={t`Take the passage out`}
            onClick={() => deleteNode()}
          >
            {t`take out`}
          </button>
        )}
      </p>
      <NodeViewContent className="letter-wordings" />
      <Drawer
        open={choosing}
        onClose={() => (setChoosing(false), editor.commands.focus())}
        title={t`Whom the passage is for`}
        note={t`The rest read the other wording, or nothing`}
        wide
      >
        <PassageFor
          tree={tree}
          onDone={(next) => (updateAttributes({ tree: next }), setChoosing(false), editor.commands.focus())}
        />
      </Drawer>
    </NodeViewWrapper>
  );
}
