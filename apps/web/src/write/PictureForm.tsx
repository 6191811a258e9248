import { t } from '@lingui/core/macro';
import { useState } from 'react';
import type { LetterPicture, Side } from '@goodword/core/letter';
import { Button, Labelled } from '../ui/basics';
import { LinkField } from './LinkField';

/** What is said of a picture in a letter, apart from which it is. */
export type PictureWords = Required<Pick<LetterPicture, 'alt' | 'width' | 'side' | 'href'>>;

/** What is on a picture, for those who do not see it; how wide and where it stands, and where it leads. */
export function PictureForm({
  src,
  start,
  onDone,
}: {
  src: string;
  start: PictureWords;
  onDone: (words: PictureWords) => void;
}) {
  const [alt, setAlt] = useState(start.alt ?? '');
  const [decorates, setDecorates] = useState(false);
  const [width, setWidth] = useState(start.width === null ? '' : String(start.width));
  const [side, setSide] = useState<Side | ''>(start.side ?? '');
  const [href, setHref] = useState(start.href ?? '');
  const done = () =>
    onDone({
      alt: decorates ? '' : alt.trim(),
      width: width === '' ? null : Number(width),
      side: side === '' ? null : side,
      href: href.trim() === '' ? null : href.trim(),
    });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4 overflow-y-auto"
      onSubmit={(event) => (event.preventDefault(), done())}
    >
      <img src={src} alt="" className="max-h-[150px] self-start" />
      <Labelled
        label={t`What is on the picture`}
        hint={t`Read aloud to those who do not see it, and shown where pictures are not loaded.`}
      >
        <input
          className="input"
          autoFocus
          maxLength={300}
          required={!decorates}
          disabled={decorates}
          value={decorates ? '' : alt}
          onChange={(event) => setAlt(event.target.value)}
        />
      </Labelled>
      <label className="flex gap-2 items-center">
        <input type="checkbox" checked={decorates} onChange={(event) => setDecorates(event.target.checked)} />
        {t`It only decorates, and says nothing`}
      </label>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`Where it stands`}>
          <select
            className="input"
            value={side}
            onChange={({ target }) => setSide(target.value as Side | '')}
          >
            <option value="">{t`by itself`}</option>
            <option value="start">{t`at the left, words beside it`}</option>
            <option value="end">{t`at the right, words beside it`}</option>
          </select>
        </Labelled>
        <Labelled label={t`Width in pixels`} hint={t`Empty: as wide as there is room`}>
          <input
            className="input"
            type="number"
            min={20}
            max={1200}
            value={width}
            onChange={({ target }) => setWidth(target.value)}
          />
        </Labelled>
      </div>
      <LinkField label={t`Where a press on it leads`} required={false} value={href} onChange={setHref} />
      <Button type="submit" weight="main" className="self-start" disabled={!decorates && alt.trim() === ''}>
        {t`Put it in`}
      </Button>
    </form>
  );
}
