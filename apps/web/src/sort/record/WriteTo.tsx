import { t } from '@lingui/core/macro';
import type { RecordView } from '@goodword/core/contract';
import { Drawer } from '../../ui/dialogs';
import { personName } from '../../ui/people';
import { LetterTo } from './LetterTo';

/** Writes to one person from their record. */
export default function WriteTo({
  record,
  open,
  onClose,
}: {
  record: RecordView;
  open: boolean;
  onClose: () => void;
}) {
  return (
    <Drawer
      open={open}
      onClose={onClose}
      wide
      title={t`Write to ${personName(record)}`}
      note={t`Delivered and kept like any other message`}
    >
      <LetterTo record={record} />
    </Drawer>
  );
}
