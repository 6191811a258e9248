import { Drawer } from '../ui/dialogs';

const KEYS: [string, string][] = [
  ['Ctrl K', 'Find anybody and anything'],
  ['Alt 1 to Alt 5', 'Go to a station'],
  ['Tab, Shift Tab', 'From one thing to the next'],
  ['↑ ↓ Page Up Page Down Home End', 'Move in a table'],
  ['Letters', 'Jump to a name in a table'],
  ['Enter', 'Open what is marked'],
  ['Esc', 'Close what lies on top'],
  ['?', 'These keys'],
];

export default function Keys({ onClose }: { onClose: () => void }) {
  return (
    <Drawer open onClose={onClose} title="Keys">
      <dl className="sheet p-4 grid grid-cols-[auto_1fr] gap-x-6 gap-y-3">
        {KEYS.map(([key, words]) => (
          <div key={key} className="contents">
            <dt className="font-mono text-[12.5px]">{key}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </Drawer>
  );
}
