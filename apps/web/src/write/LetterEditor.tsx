import { t } from '@lingui/core/macro';
import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import { useEffect, useId, useRef, useState, type ReactNode } from 'react';
import type { LetterDoc } from '@goodword/core/letter';
import type { Registry } from '@goodword/core/merge';
import { MergeOffer, useOffer } from './MergeOffer';
import { mergeMarks } from './mergeMarks';
import { MovedBlocks } from './movedBlocks';
import { cleaned } from './cleaned';
import { letterNodes } from './letterNodes';
import { droppedFrom, droppedWords } from './pasted';
import { Tools } from './LetterTools';
import { braceAt, putField, underCaret } from './braces';

/**
 * Where writing goes on for who comes with the Tab key: the gap between a greeting and a name, else the end.
 */
function whereWordsGo(doc: Editor['state']['doc']): number {
  let gap: number | null = null;
  doc.forEach((block, offset, i) => {
    if (gap === null && i > 0 && block.type.name === 'paragraph' && block.content.size === 0)
      gap = offset + 1;
  });
  return gap ?? doc.content.size;
}

/** The letter's own canvas. */
export function LetterEditor({
  value,
  registry,
  editable,
  onChange,
  foot,
}: {
  value: LetterDoc | null;
  registry: Registry;
  editable: boolean;
  onChange: (doc: LetterDoc) => void;
  /** What else is said of the letter, at its foot. */
  foot?: ReactNode;
}) {
  // The editor keeps the keys that it was made with.
  const keys = useRef<(event: { key: string }) => boolean>(() => false);
  const list = useId();
  const [dropped, setDropped] = useState<string[]>([]);
  const plain = useRef(value?.plain ?? false);
  plain.current = value?.plain ?? false;
  const editor = useEditor({
    extensions: [...letterNodes, MovedBlocks, mergeMarks(() => registry)],
    content: value ?? { type: 'doc', content: [{ type: 'paragraph' }] },
    editable,
    editorProps: {
      attributes: { 'aria-label': t`The letter`, role: 'textbox', 'aria-multiline': 'true' },
      handleKeyDown: (_view, event) => keys.current(event),
      handlePaste: (_view, event) => (
        setDropped(droppedFrom(event.clipboardData?.getData('text/html') ?? '')),
        false
      ),
    },
    onCreate: ({ editor: now }) => now.commands.setTextSelection(whereWordsGo(now.state.doc)),
    onUpdate: ({ editor: now }) => onChange(cleaned(now.getJSON() as LetterDoc, plain.current)),
    shouldRerenderOnTransaction: true,
  });
  useEffect(() => editor?.setEditable(editable), [editor, editable]);
  const offer = useOffer(
    editor && editable && editor.isFocused ? braceAt(editor) : null,
    registry,
    (name) => editor && putField(editor, name),
  );
  keys.current = offer.onKey;
  if (!editor) return null;
  return (
    <div className="sheet flex flex-col min-h-0 grow">
      {editable && <Tools editor={editor} registry={registry} />}
      {dropped.length > 0 && (
        <p role="status" className="flex gap-3 border-b border-hair px-4 py-2 text-[13px] text-ink2">
          <span className="grow">{droppedWords(dropped)}</span>
          <button type="button" className="link" onClick={() => setDropped([])}>
            {t`Good`}
          </button>
        </p>
      )}
      <div className="letter overflow-y-auto grow px-7 py-5">
        <EditorContent editor={editor} />
      </div>
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-t border-hair px-4 py-2 text-[13px] text-ink2">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            disabled={!editable}
            checked={plain.current}
            onChange={({ target }) => onChange(cleaned(editor.getJSON() as LetterDoc, target.checked))}
          />
          {t`plain, without the logo`}
        </label>
        {foot}
      </div>
      <MergeOffer
        id={list}
        offer={offer}
        onPick={(name) => putField(editor, name)}
        style={offer.names.length > 0 ? underCaret(editor) : undefined}
      />
    </div>
  );
}
