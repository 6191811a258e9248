import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import type { Preview } from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';
import { OnTelephone } from './OnTelephone';

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
  if (channel === 'text')
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
  if (channel === 'call')
    return <p className="p-4 overflow-y-auto whitespace-pre-wrap text-[15px]">{preview.text}</p>;
  return (
    <>
      {channel === 'email' && (
        <>
          <p className="px-4 py-2 border-b border-hair">
            <span className="text-ink2">{t`Subject`}</span> <b>{preview.subject}</b>
          </p>
          <OnTelephone senderId={senderId} preview={preview} />
        </>
      )}
      <iframe
        title={t`The letter as it will look`}
        sandbox=""
        srcDoc={preview.html}
        className="grow w-full bg-white min-h-[200px]"
      />
    </>
  );
}
