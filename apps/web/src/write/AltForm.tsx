import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { Button, Labelled } from '../ui/basics';

/** What is on a picture, for those who do not see it; said once more wherever it is put in. */
export function AltForm({
  src,
  start,
  onDone,
}: {
  src: string;
  start: string;
  onDone: (alt: string) => void;
}) {
  const [alt, setAlt] = useState(start);
  const [decorates, setDecorates] = useState(false);
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), onDone(decorates ? '' : alt.trim()))}
    >
      <img src={src} alt="" className="max-h-[180px] self-start" />
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
      <Button type="submit" weight="main" className="self-start" disabled={!decorates && alt.trim() === ''}>
        {t`Put it in`}
      </Button>
    </form>
  );
}
