import { DropdownMenu } from 'radix-ui';
import type { ColumnChoice, KnownField } from '@goodword/core/intake';
import { columnWords, offersFor } from './columnWords';

const ITEM = 'px-3 py-[6px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer';

interface Props {
  column: number;
  header: string;
  choice: ColumnChoice;
  fields: readonly KnownField[];
  country: string;
  faults: number;
  filled: number;
  rows: number;
  onChoose: (choice: ColumnChoice) => void;
}

/** What one column becomes, over its header and a bar of how much of it is filled and how much can't be read. */
export function ColumnCard({ column, header, choice, fields, country, faults, filled, rows, onChoose }: Props) {
  const [title, note] = columnWords(choice, fields, country);
  const { known, make } = offersFor(header, fields);
  const border =
    choice.to === 'leave'
      ? 'border-[#b6c1bd] text-ink3'
      : choice.to === 'newField'
        ? 'border-verdigris border-dashed'
        : faults > 0
          ? 'border-madder'
          : 'border-ink';
  const share = (count: number) => `${rows === 0 ? 0 : (count / rows) * 100}%`;
  return (
    <div className="p-2 pb-3" id={`column-${column}`}>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          className={`w-full text-left rounded-paper border px-2 py-[6px] bg-sheet hover:bg-[#f4f6f5] ${border}`}
          aria-label={`Column ${header}: ${title}. Change`}
        >
          <span className="block font-semibold truncate">{title}</span>
          <span className="block text-[12px] text-ink2 truncate">{note}</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="sheet p-1 max-h-[420px] overflow-y-auto min-w-[220px] z-20" align="start">
            {known.map((offer) => (
              <DropdownMenu.Item key={offer.key} className={ITEM} onSelect={() => onChoose(offer.choice)}>
                {offer.words}
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Separator className="h-px bg-hair my-1" />
            <DropdownMenu.Label className="px-3 py-1 text-ink2 text-[12.5px]">Make a field “{header}” of</DropdownMenu.Label>
            {make.map((offer) => (
              <DropdownMenu.Item key={offer.key} className={ITEM} onSelect={() => onChoose(offer.choice)}>
                {offer.words}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <div className={`mx-auto w-px h-2 ${choice.to === 'leave' ? 'bg-[#b6c1bd]' : 'bg-ink'}`} />
      <p className={`font-mono text-[12px] truncate px-1 ${choice.to === 'leave' ? 'text-ink3' : ''}`} title={header}>
        {header || '(no header)'}
      </p>
      <div className="mx-1 mt-1 h-1 bg-[#dfe5e1] flex" aria-hidden="true">
        <div className="bg-[#87a59e]" style={{ width: share(Math.max(0, filled - faults)) }} />
        <div className="bg-madder" style={{ width: share(faults) }} />
      </div>
    </div>
  );
}
