import { useEffect, useRef } from 'react';
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
  // Notes are compared by what they say. What a remedy does may have changed without a word of its note
  // changing, so the newest of that note is asked.
  const latest = useRef(notes);
  latest.current = notes;
  useEffect(() => {
    const act = (of: string) => () => latest.current.find((note) => note.key === of)?.remedy?.act();
    show(
      notes.map((note) => (note.remedy ? { ...note, remedy: { ...note.remedy, act: act(note.key) } } : note)),
    );
  }, [key, show]);
  useEffect(() => () => show([]), [show]);
}

/** Whether a note that speaks of this anchor is lit. */
export function useLit(anchor: string): {
  className: string;
  onMouseEnter(): void;
  onMouseLeave(): void;
  id: string;
} {
  const lit = useMarginStore((state) => state.lit === anchor);
  const light = useMarginStore((state) => state.light);
  return {
    id: anchor,
    className: lit ? 'noted' : '',
    onMouseEnter: () => light(anchor),
    onMouseLeave: () => light(null),
  };
}
