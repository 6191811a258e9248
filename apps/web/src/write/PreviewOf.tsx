import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { ToggleGroup } from 'radix-ui';
import { useState } from 'react';
import type { Preview } from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';
import { Framed } from '../ui/Framed';
import { OnTelephone } from './OnTelephone';

type View = 'mail' | 'phone' | 'small' | 'dark' | 'plain' | 'headers';

const VIEWS: Record<View, string> = {
  mail: t`as mail`,
  phone: t`telephone`,
  small: t`small telephone`,
  dark: t`dark`,
  plain: t`plain text`,
  headers: t`headers`,
};

/** Widths of telephones, in CSS pixels. Common practice, no source. */
const WIDTHS: Partial<Record<View, number>> = { phone: 390, small: 320 };

/** The letter as a reader whose program is dark sees it. */
const inDark = (html: string) =>
  html.replaceAll(/@media \(prefers-color-scheme:dark\)/g, '@media(min-width:0)');

function Page({ html, view }: { html: string; view: View }) {
  const width = WIDTHS[view];
  return (
    <div className={`grow min-h-[200px] flex ${width ? 'justify-center overflow-x-auto bg-bench p-3' : ''}`}>
      <Framed
        title={t`The letter as it will look`}
        html={view === 'dark' ? inDark(html) : html}
        className={`bg-white min-h-[200px] ${width ? 'border border-hair shrink-0' : 'w-full'}`}
        width={width}
      />
    </div>
  );
}

/** What one person reads of a mail, in each of the ways in which it may be read. */
function Mail({ preview, senderId }: { preview: Preview; senderId: number | null }) {
  const [view, setView] = useState<View>('mail');
  return (
    <>
      <p className="px-4 py-2 border-b border-hair">
        <span className="text-ink2">{t`Subject`}</span> <b>{preview.subject}</b>
      </p>
      {view === 'plain' && (
        <pre
          tabIndex={0}
          className="grow overflow-auto whitespace-pre-wrap px-4 py-3 font-mono text-[13px] min-h-[200px]"
        >
          {preview.text}
        </pre>
      )}
      {view === 'headers' && (
        <dl className="grow overflow-auto px-4 py-3 text-[13px] min-h-[200px]">
          {preview.headers.map(({ name, value }) => (
            <div key={name} className="pb-2 break-words">
              <dt className="text-ink2">{name}</dt>
              <dd className="font-mono">{value}</dd>
            </div>
          ))}
        </dl>
      )}
      {view === 'phone' && <OnTelephone senderId={senderId} preview={preview} />}
      {view !== 'plain' && view !== 'headers' && <Page html={preview.html} view={view} />}
      <ToggleGroup.Root
        type="single"
        value={view}
        onValueChange={(next) => next && setView(next as View)}
        aria-label={t`How it is read`}
        className="flex flex-wrap gap-x-4 border-t border-hair px-4 py-2 text-[13px]"
      >
        {(Object.keys(VIEWS) as View[]).map((one) => (
          <ToggleGroup.Item
            key={one}
            value={one}
            className="min-h-[24px] text-ink2 data-[state=on]:text-ink data-[state=on]:font-semibold"
          >
            {VIEWS[one]}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </>
  );
}

/** What one person reads. */
export function PreviewOf({
  channel,
  preview,
  senderId,
}: {
  channel: Channel;
  preview: Preview;
  senderId: number | null;
}) {
  if (channel === 'email') return <Mail preview={preview} senderId={senderId} />;
  if (channel === 'post') return <Page html={preview.html} view="mail" />;
  if (channel === 'call')
    return <p className="p-4 overflow-y-auto whitespace-pre-wrap text-[15px]">{preview.text}</p>;
  return (
    <div className="p-4 overflow-y-auto">
      <p className="bg-bench rounded-[10px] px-4 py-3 whitespace-pre-wrap text-[15px]">{preview.text}</p>
      <p className="text-ink2 pt-2">
        <Trans>
          <Plural value={preview.parts} one="# text segment" other="# text segments" />
        </Trans>
      </p>
    </div>
  );
}
