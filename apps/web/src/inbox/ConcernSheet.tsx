import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { reading } from '../app/reading';
import { Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { AddGift } from '../sort/record/AddGift';
import { AddressForm } from '../sort/record/AddressForm';
import { Addresses } from '../sort/record/Addresses';
import type { FoundConcern } from './concernNotes';

/** What they wrote of, taken up on their record with their words above it. */
export function ConcernSheet({
  supporterId,
  concern,
  onClose,
}: {
  supporterId: number;
  concern: FoundConcern | null;
  onClose: () => void;
}) {
  const record = useQuery({ ...reading('supporters/{id}', { id: supporterId }), enabled: concern !== null });
  const title = concern?.kind === 'gift' ? t`A gift that they write of` : t`Where they can be reached`;
  return (
    <Drawer open={concern !== null} onClose={onClose} title={title} note={t`Kept on their record`}>
      {concern && (
        <div className="sheet p-4 flex flex-col gap-3 overflow-y-auto">
          <blockquote
            className="border-l-[3px] border-ink3 pl-3 whitespace-pre-wrap"
            aria-label={t`What they wrote`}
          >
            {concern.item.words}
          </blockquote>
          <ProblemNote error={record.error} />
          {!record.data && !record.error && <Loading what={t`the record`} />}
          {record.data && concern.kind === 'gift' && (
            <AddGift record={record.data} start={concern.named ?? ''} onDone={onClose} />
          )}
          {record.data && concern.kind === 'address' && (
            <>
              {concern.named !== null && (
                <AddressForm record={record.data} start={concern.named} onDone={onClose} />
              )}
              <Addresses record={record.data} />
            </>
          )}
        </div>
      )}
    </Drawer>
  );
}
