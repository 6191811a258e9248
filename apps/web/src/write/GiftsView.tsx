import { t } from '@lingui/core/macro';
import { NodeViewWrapper, type ReactNodeViewProps } from '@tiptap/react';
import { USUAL_ASK } from '@goodword/core/letter';
import { askWords } from '@goodword/core/words';
import { useFormat } from '../app/format';
import { useAsk } from './asking';

/** The amounts as buttons, with an example of each; the rule stands under them in words. */
export function GiftsView({ node, selected }: ReactNodeViewProps) {
  const format = useFormat();
  const ask = useAsk() ?? USUAL_ASK;
  const href = String(node.attrs.href);
  return (
    <NodeViewWrapper className={`letter-gifts ${selected ? 'outline outline-2 outline-verdigris' : ''}`}>
      <div contentEditable={false} aria-label={t`Gift buttons, leading to ${href}`} role="img">
        {ask.otherwise.map((amount, at) => (
          <span key={at} className="letter-gift">
            {format.money(amount)}
          </span>
        ))}
        <p className="letter-note">{askWords(ask, format.money)}</p>
      </div>
    </NodeViewWrapper>
  );
}
