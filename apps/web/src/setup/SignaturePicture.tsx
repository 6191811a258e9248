import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { Button } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { PictureLibrary } from '../write/PictureLibrary';

/** The picture beside one's signature in letters: of the library, or none. */
export function SignaturePicture({
  pictureId,
  onChange,
}: {
  pictureId: number | null;
  onChange: (pictureId: number | null) => void;
}) {
  const [choosing, setChoosing] = useState(false);
  const pick = (src: string) => (onChange(Number(src.split('/').at(-1))), setChoosing(false));
  return (
    <div className="flex items-center gap-3">
      {pictureId !== null && (
        <img
          src={`/media/${pictureId}/200`}
          alt={t`The picture beside your signature`}
          className="w-[64px]"
        />
      )}
      <Button onClick={() => setChoosing(true)}>
        {pictureId === null ? t`A picture beside the signature…` : t`Another picture…`}
      </Button>
      {pictureId !== null && <Button onClick={() => onChange(null)}>{t`No picture`}</Button>}
      <Drawer open={choosing} onClose={() => setChoosing(false)} title={t`The picture beside your signature`}>
        <PictureLibrary onPick={pick} />
      </Drawer>
    </div>
  );
}
