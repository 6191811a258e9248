import type { MergeName } from '@goodword/core/merge';
import { type Editor } from '@tiptap/react';

/** Beyond so many letters nobody is typing the name of a field any more. */
const LONGEST = 40;

/** A merge field that is being typed: where its brace stands, and what stands behind it. */
export interface Brace {
  from: number;
  typed: string;
}

/**
 * The brace that is still open before the caret; null where none is, or where more than a name stands behind
 * it.
 */
export function openBrace(before: string): Brace | null {
  const from = before.lastIndexOf('{');
  const typed = before.slice(from + 1);
  // A brace behind a backslash stands for itself.
  const isNone =
    from < 0 || before[from - 1] === '\\' || typed.length > LONGEST || /[},\n\ufffc]/.test(typed);
  return isNone ? null : { from, typed };
}

/** Fields whose name begins so, then those that hold it. */
export function offeredFields(names: readonly MergeName[], typed: string): MergeName[] {
  const word = typed.trim().toLowerCase();
  const begins = names.filter(({ name }) => name.toLowerCase().startsWith(word));
  return [
    ...begins,
    ...names.filter((one) => !begins.includes(one) && one.name.toLowerCase().includes(word)),
  ];
}

/**
 * The text with a field in the place of what was typed of it, and where the caret is then. One brace of each
 * kind, whatever stood there.
 */
export function withField(text: string, caret: number, name: string): { text: string; caret: number } {
  const open = openBrace(text.slice(0, caret));
  const from = open?.from ?? caret;
  const rest = text.slice(caret).replace(/^\}/, '');
  return { text: `${text.slice(0, from)}{${name}}${rest}`, caret: from + name.length + 2 };
}

/** The brace that is open before the caret, in its own paragraph. */
export function braceAt({ state }: Editor): Brace | null {
  const { $from, empty } = state.selection;
  return empty ? openBrace($from.parent.textBetween(0, $from.parentOffset, undefined, '\ufffc')) : null;
}

/** Puts a field in the place of what was typed of it, else at the caret. */
export function putField(editor: Editor, name: string): void {
  const { $from } = editor.state.selection;
  const brace = braceAt(editor);
  const after = $from.parent.textBetween($from.parentOffset, $from.parent.content.size, undefined, '\ufffc');
  const [from, to] = [
    brace ? $from.start() + brace.from : $from.pos,
    $from.pos + (brace && after.startsWith('}') ? 1 : 0),
  ];
  editor
    .chain()
    .focus()
    .insertContentAt({ from, to }, { type: 'text', text: `{${name}}` })
    .run();
}

/** Below the caret, whatever the letter is scrolled to. */
export function underCaret(editor: Editor): React.CSSProperties {
  const { left, bottom } = editor.view.coordsAtPos(editor.state.selection.from);
  return { position: 'fixed', left, top: bottom + 4, marginTop: 0 };
}
