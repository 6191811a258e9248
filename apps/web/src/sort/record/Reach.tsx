import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useState } from 'react';
import type { RecordView } from '@goodword/core/contract';
import { useFormat } from '../../app/format';
import { useMay } from '../../app/session';
import { NewFieldSheet } from '../../setup/fields/FieldSheet';
import { Drawer } from '../../ui/dialogs';
import { AddGift } from './AddGift';
import { Addresses } from './Addresses';
import { FieldValueRow } from './FieldValueRow';
import { RecordRow, RecordSection } from './parts';

function Giving({ record }: { record: RecordView }) {
  const format = useFormat();
  const may = useMay('organizer');
  const [adding, setAdding] = useState(false);
  const [last] = record.gifts;
  const largest = record.gifts.reduce((max, gift) => Math.max(max, gift.amount), 0);
  return (
    <RecordSection
      title={t`Giving`}
      side={
        may && (
          <button className="link text-[12.5px] text-ink2" onClick={() => setAdding(!adding)}>
            {t`Enter a gift`}
          </button>
        )
      }
    >
      {adding && <AddGift record={record} onDone={() => setAdding(false)} />}
      {last ? (
        <>
          <RecordRow label={t`Last gift`}>
            <Trans>
              {format.money(last.amount)} on {format.day(last.on)}
            </Trans>
          </RecordRow>
          <RecordRow label={t`Largest`}>{format.money(largest)}</RecordRow>
          <RecordRow label={t`In all`}>
            {format.money(record.gifts.reduce((sum, gift) => sum + gift.amount, 0))},{' '}
            {plural(record.gifts.length, { one: '# gift', other: '# gifts' })}
          </RecordRow>
        </>
      ) : (
        <p className="text-ink2 py-2">{t`No gift on file.`}</p>
      )}
    </RecordSection>
  );
}

/** Addresses, fields in their sections, and giving; everything editable where it stands. */
export function Reach({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const [making, setMaking] = useState(false);
  const sections = [...new Set(record.fields.map((field) => field.section))];
  return (
    <div
      className="sheet p-4 overflow-y-auto min-h-0"
      tabIndex={0}
      role="region"
      aria-label={t`What is known`}
    >
      <Addresses record={record} />
      {sections.map((section) => (
        <RecordSection key={section} title={section}>
          {record.fields
            .filter((field) => field.section === section)
            .map((field) => (
              <RecordRow key={field.id} label={field.name}>
                <FieldValueRow record={record} field={field} />
              </RecordRow>
            ))}
        </RecordSection>
      ))}
      {may && (
        <p className="pb-4">
          <button className="link text-[12.5px] text-ink2" onClick={() => setMaking(true)}>
            {t`Make a field`}
          </button>
        </p>
      )}
      <Giving record={record} />
      <Drawer
        open={making}
        onClose={() => setMaking(false)}
        title={t`Make a field`}
        note={t`For everybody’s record`}
      >
        <NewFieldSheet onDone={() => setMaking(false)} />
      </Drawer>
    </div>
  );
}
