import { useEffect } from 'react';
import { create } from 'zustand';

/** Something the program has to say, beside the thing it speaks of. */
export interface Note {
  key: string;
  tone: 'fault' | 'doubt' | 'good' | 'plain';
  title: string;
  body?: string;
  /** The id of the element that it speaks of. */
  anchor?: string;
  remedy?: { words: string; act: () => void };
}

interface MarginState {
  notes: Note[];
  lit: string | null;
  show(notes: Note[]): void;
  light(anchor: string | null): void;
}

export const useMarginStore = create<MarginState>()((set) => ({
  notes: [],
  lit: null,
  show: (notes) => set({ notes }),
  light: (lit) => set({ lit }),
}));

/** Shows a view's notes while it is on the page. */
export function useMargin(notes: Note[]): void {
  const show = useMarginStore((state) => state.show);
  const key = JSON.stringify(notes.map(({ remedy, ...rest }) => [rest, remedy?.words]));
  useEffect(() => {
    show(notes);
    // The notes are compared by what they say; their remedies are fresh whenever that changes.
  }, [key, show]);
  useEffect(() => () => show([]), [show]);
}

/** Whether a note that speaks of this anchor is lit. */
export function useLit(anchor: string): { className: string; onMouseEnter(): void; onMouseLeave(): void; id: string } {
  const lit = useMarginStore((state) => state.lit === anchor);
  const light = useMarginStore((state) => state.light);
  return { id: anchor, className: lit ? 'noted' : '', onMouseEnter: () => light(anchor), onMouseLeave: () => light(null) };
}
