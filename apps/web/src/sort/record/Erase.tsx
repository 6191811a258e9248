import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { RecordView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { Confirm } from '../../ui/dialogs';
import { personName } from '../../ui/people';

export function Erase({ record, open, onClose }: { record: RecordView; open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const name = personName(record);
  return (
    <Confirm
      open={open}
      onClose={onClose}
      title={t`Erase ${name}?`}
      body={
        <p>
          <Trans>
            Name, addresses, fields, notes, replies and the words in the ledger go for good, and it can’t be
            undone. Dates, states and a keyed hash of each address stay, so that what was sent and why can
            still be shown and a no still holds.
          </Trans>
        </p>
      }
      act={t`Erase ${name}`}
      onAct={async () => {
        await api.delete('supporters/{id}', { id: record.id });
        void navigate('/sort');
        void refresh(queryClient, 'supporters');
      }}
    />
  );
}
