import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { parse, type Registry } from '@goodword/core/merge';

function marksOf(doc: Node, registry: () => Registry): DecorationSet {
  const marks: Decoration[] = [];
  doc.descendants((node, at) => {
    if (!node.isText || !node.text) return;
    const { pieces, faults } = parse(node.text);
    for (const piece of pieces) {
      if (piece.kind !== 'merge') continue;
      const known = registry().find(piece.name) !== null;
      marks.push(
        Decoration.inline(at + piece.span.from, at + piece.span.to, {
          class: known ? 'merge-field' : 'merge-fault',
        }),
      );
    }
    for (const fault of faults)
      marks.push(Decoration.inline(at + fault.span.from, at + fault.span.to, { class: 'merge-fault' }));
  });
  return DecorationSet.create(doc, marks);
}

/** Marks merge fields while they are typed: known ones in verdigris, what can't be read in madder. */
export function mergeMarks(registry: () => Registry) {
  return Extension.create({
    name: 'mergeMarks',
    addProseMirrorPlugins: () => [
      new Plugin<DecorationSet>({
        state: {
          init: (_config, state) => marksOf(state.doc, registry),
          apply: (tr, old) => (tr.docChanged ? marksOf(tr.doc, registry) : old),
        },
        props: {
          decorations(state) {
            return this.getState(state);
          },
        },
      }),
    ],
  });
}
