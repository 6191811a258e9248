import { Extension } from '@tiptap/core';
import { NodeSelection, TextSelection, type EditorState, type Transaction } from '@tiptap/pm/state';

/**
 * Moves the block that the cursor is in one up or down among its neighbours; false where there is none. What
 * was selected in it stays selected.
 */
export function moveBlock(state: EditorState, by: 1 | -1, dispatch?: (tr: Transaction) => void): boolean {
  const { selection, doc } = state;
  const { $from } = selection;
  // A block of words within a list item is moved with the item.
  const whole = selection instanceof NodeSelection;
  for (let depth = whole ? $from.depth : $from.depth - 1; depth >= 0; depth--) {
    const parent = $from.node(depth);
    const at = $from.index(depth);
    const other = at + by;
    if (other < 0 || other >= parent.childCount || parent.type.name === 'personal') continue;
    const moved = parent.child(at);
    const start = whole && depth === $from.depth ? selection.from : $from.before(depth + 1);
    const target = by < 0 ? start - parent.child(other).nodeSize : start + parent.child(other).nodeSize;
    if (!dispatch) return true;
    const tr = state.tr.delete(start, start + moved.nodeSize).insert(target, moved);
    const shift = target - start;
    tr.setSelection(
      whole
        ? NodeSelection.create(tr.doc, selection.from + shift)
        : TextSelection.create(tr.doc, selection.anchor + shift, selection.head + shift),
    );
    dispatch(tr.scrollIntoView());
    return doc !== tr.doc;
  }
  return false;
}

/** Alt with an arrow moves the block that the cursor is in. */
export const MovedBlocks = Extension.create({
  name: 'movedBlocks',
  addKeyboardShortcuts() {
    const move = (by: 1 | -1) => () => moveBlock(this.editor.state, by, this.editor.view.dispatch);
    return { 'Alt-ArrowUp': move(-1), 'Alt-ArrowDown': move(1) };
  },
});
