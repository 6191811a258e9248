import { t } from '@lingui/core/macro';
import { useLocation } from 'react-router';
import { Drawer } from '../ui/dialogs';

const KEYS: [string, string][] = [
  [t`Ctrl K`, t`Find anybody and anything`],
  [t`Alt 1 to Alt 5`, t`Go to a station`],
  [t`Tab, Shift Tab`, t`From one thing to the next`],
  [t`↑ ↓ Page Up Page Down Home End`, t`Move in a table`],
  [t`Letters`, t`Jump to a name in a table`],
  ['Enter', t`Open what is marked`],
  [t`Esc`, t`Close what lies on top`],
  ['?', t`These keys`],
];

/** What else there is on some pages, by how their addresses begin. */
const KEYS_OF: readonly [string, [string, string][]][] = [
  [
    '/hear-back/replies',
    [
      ['a', t`Answer the one that is open`],
      ['d', t`Mark it as done, or open it again`],
      ['p', t`Put it aside`],
      ['g', t`Give it to somebody`],
      ['n', t`Write a note`],
      ['1 2 3 4', t`Do what the Margin offers`],
    ],
  ],
];

export default function Keys({ onClose }: { onClose: () => void }) {
  const { pathname } = useLocation();
  const here = KEYS_OF.flatMap(([path, keys]) => (pathname.startsWith(path) ? keys : []));
  return (
    <Drawer open onClose={onClose} title={t`Keys`}>
      <dl className="sheet p-4 grid grid-cols-[auto_1fr] gap-x-6 gap-y-3">
        {[...here, ...KEYS].map(([key, words]) => (
          <div key={key} className="contents">
            <dt className="font-mono text-[12.5px]">{key}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </Drawer>
  );
}
