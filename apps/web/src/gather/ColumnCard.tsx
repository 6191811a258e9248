import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import type { BatchKind, ColumnChoice, KnownField } from '@goodword/core/intake';
import { Button, Labelled } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { columnWords, offersFor } from './columnWords';
import { NewField } from './NewField';

const ITEM = 'px-3 py-[6px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer';

interface Props {
  column: number;
  header: string;
  choice: ColumnChoice;
  what: BatchKind;
  fields: readonly KnownField[];
  country: string;
  faults: number;
  filled: number;
  rows: number;
  /** How sure the guess is, 0 to 1; null where a person chose. */
  confidence: number | null;
  /** The column's cells in the preview, for the choices of a new field. */
  values: () => readonly string[];
  onChoose: (choice: ColumnChoice) => void;
  onStrip: (text: string) => void;
}

/**
 * What one column becomes, over its header and a bar of how much of it is filled and how much can't be read.
 */
export function ColumnCard({
  column,
  header,
  choice,
  what,
  fields,
  country,
  faults,
  filled,
  rows,
  confidence,
  values,
  onChoose,
  onStrip,
}: Props) {
  const [title, note] = columnWords(choice, fields, country);
  const [making, setMaking] = useState<ColumnChoice | null>(null);
  const [stripping, setStripping] = useState(false);
  const startMaking = () =>
    setMaking(
      choice.to === 'newField'
        ? choice
        : { to: 'newField', name: header.slice(0, 60) || 'Unnamed', type: 'text' },
    );
  const border =
    choice.to === 'leave'
      ? 'border-[#b6c1bd] text-ink3'
      : choice.to === 'newField'
        ? 'border-verdigris border-dashed'
        : faults > 0
          ? 'border-madder'
          : 'border-ink';
  const share = (count: number) => `${rows === 0 ? 0 : (count / rows) * 100}%`;
  const unsure = confidence !== null && confidence < 0.65 && choice.to !== 'leave';
  return (
    <div className="p-2 pb-3" id={`column-${column}`}>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          className={`w-full text-left rounded-paper border px-2 py-[6px] bg-sheet hover:bg-[#f4f6f5] ${border}`}
          aria-label={t`Column ${header}: ${title}. Change`}
        >
          <span className="block font-semibold truncate">{title}</span>
          <span className="block text-[12px] text-ink2 truncate">{unsure ? t`${note}, a guess` : note}</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            className="sheet p-1 max-h-[440px] overflow-y-auto min-w-[240px] z-20"
            align="start"
          >
            <Offers
              header={header}
              fields={fields}
              what={what}
              onChoose={onChoose}
              onMake={startMaking}
              onStrip={() => setStripping(true)}
            />
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {making?.to === 'newField' && (
        <NewField
          start={making}
          values={values()}
          onClose={() => setMaking(null)}
          onMake={(made) => (setMaking(null), onChoose(made))}
        />
      )}
      {stripping && (
        <Strip
          header={header}
          onClose={() => setStripping(false)}
          onStrip={(text) => (setStripping(false), onStrip(text))}
        />
      )}
      <div className={`mx-auto w-px h-2 ${choice.to === 'leave' ? 'bg-[#b6c1bd]' : 'bg-ink'}`} />
      <p
        className={`font-mono text-[12px] truncate px-1 ${choice.to === 'leave' ? 'text-ink3' : ''}`}
        title={header}
      >
        {header || t`(no header)`}
      </p>
      <div className="mx-1 mt-1 h-1 bg-[#dfe5e1] flex" aria-hidden="true">
        <div className="bg-[#87a59e]" style={{ width: share(Math.max(0, filled - faults)) }} />
        <div className="bg-madder" style={{ width: share(faults) }} />
      </div>
    </div>
  );
}

interface OffersProps {
  header: string;
  fields: readonly KnownField[];
  what: BatchKind;
  onChoose: (choice: ColumnChoice) => void;
  onMake: () => void;
  onStrip: () => void;
}

/** Everything that the column can become; worked out when somebody looks. */
function Offers({ header, fields, what, onChoose, onMake, onStrip }: OffersProps) {
  const { known, make } = offersFor(header, fields, what);
  return (
    <>
      <DropdownMenu.Item className={ITEM} onSelect={() => onChoose({ to: 'leave' })}>
        {t`Leave out`}
      </DropdownMenu.Item>
      {known.map(([group, offers]) => (
        <DropdownMenu.Group key={group}>
          <DropdownMenu.Label className="px-3 pt-2 pb-1 text-ink2 text-[12.5px]">{group}</DropdownMenu.Label>
          {offers.map((offer) => (
            <DropdownMenu.Item key={offer.key} className={ITEM} onSelect={() => onChoose(offer.choice)}>
              {offer.words}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Group>
      ))}
      {make.length > 0 && (
        <>
          <DropdownMenu.Separator className="h-px bg-hair my-1" />
          <DropdownMenu.Label className="px-3 py-1 text-ink2 text-[12.5px]">
            <Trans>Make a field “{header}” of</Trans>
          </DropdownMenu.Label>
          {make.map((offer) => (
            <DropdownMenu.Item key={offer.key} className={ITEM} onSelect={() => onChoose(offer.choice)}>
              {offer.words}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item className={ITEM} onSelect={onMake}>
            {t`Name, section, choices…`}
          </DropdownMenu.Item>
        </>
      )}
      <DropdownMenu.Separator className="h-px bg-hair my-1" />
      <DropdownMenu.Item className={ITEM} onSelect={onStrip}>
        {t`Take a text out of every cell…`}
      </DropdownMenu.Item>
    </>
  );
}

/** Which text is taken out of every cell; the Margin offers the way back. */
function Strip({
  header,
  onClose,
  onStrip,
}: {
  header: string;
  onClose: () => void;
  onStrip: (text: string) => void;
}) {
  const [text, setText] = useState('');
  return (
    <Drawer open onClose={onClose} title={t`Take a text out of “${header}”`}>
      <form className="flex flex-col gap-3" onSubmit={(event) => (event.preventDefault(), onStrip(text))}>
        <Labelled label={t`The text`} hint={t`Wherever it stands in a cell, such as “mailto:” or “(guest)”.`}>
          <input
            autoFocus
            className="input"
            value={text}
            maxLength={200}
            onChange={(event) => setText(event.target.value)}
          />
        </Labelled>
        <Button weight="main" type="submit" className="self-start" disabled={text === ''}>
          {t`Take it out of every cell`}
        </Button>
      </form>
    </Drawer>
  );
}
