import { plural, t } from '@lingui/core/macro';
import { Link, useLocation } from 'react-router';
import { guideOf } from '../help/sections';
import { useMarginStore, type Note } from './margin';

const TONES = {
  fault: 'border-madder',
  doubt: 'border-ochremark',
  good: 'border-verdigris',
  plain: 'border-ink3',
} as const;

function NoteView({ note }: { note: Note }) {
  const light = useMarginStore((state) => state.light);
  const lit = useMarginStore((state) => note.anchor !== undefined && state.lit === note.anchor);
  return (
    <li
      className={`border-l-[3px] pl-3 ${TONES[note.tone]} ${lit ? 'bg-sheet' : ''}`}
      onMouseEnter={() => light(note.anchor ?? null)}
      onMouseLeave={() => light(null)}
    >
      <p className="font-semibold text-[13px]">{note.title}</p>
      {(note.body || note.remedy) && (
        <p className="text-ink2 text-[13px]">
          {note.body}{' '}
          {note.remedy && (
            <button className="link text-ink" onClick={note.remedy.act}>
              {note.remedy.words}
            </button>
          )}
        </p>
      )}
    </li>
  );
}

/** What the guides say of this page. */
function HelpLink() {
  const guide = guideOf(useLocation().pathname);
  if (guide === null) return null;
  return (
    <p className="pt-5 text-[13px]">
      <Link className="link text-ink2" to={`/help?at=${guide}`}>
        {t`How this is done`}
      </Link>
    </p>
  );
}

/** The column where the program speaks. It folds away when it has nothing to say. */
export function Margin() {
  const notes = useMarginStore((state) => state.notes);
  if (notes.length === 0) return null;
  const count = notes.filter((note) => note.tone !== 'plain').length;
  return (
    <aside
      aria-label={t`Margin`}
      className="w-[250px] shrink-0 overflow-y-auto pt-[18px] pb-6 max-[900px]:w-auto max-[900px]:overflow-visible"
      tabIndex={0}
    >
      <div className="flex justify-between text-[12px] font-semibold text-ink2 pb-2">
        <h2>{t`Margin`}</h2>
        <span>{count === 0 ? '' : plural(count, { one: '# note', other: '# notes' })}</span>
      </div>
      <ul className="flex flex-col gap-4" aria-live="polite">
        {notes.map((note) => (
          <NoteView key={note.key} note={note} />
        ))}
      </ul>
      <HelpLink />
    </aside>
  );
}
