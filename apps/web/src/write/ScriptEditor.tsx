import { t } from '@lingui/core/macro';
import type { Registry } from '@goodword/core/merge';
import { MergeField } from './MergeField';

/** What a caller has before them: words to be said, and what to do with the answer. */
export function ScriptEditor({
  value,
  registry,
  editable,
  onChange,
}: {
  value: string;
  registry: Registry;
  editable: boolean;
  onChange: (text: string) => void;
}) {
  return (
    <div className="sheet p-5 flex flex-col gap-3 grow">
      <h2 className="subtitle -mb-[44px]" id="script-title">
        {t`The script`}
      </h2>
      <MergeField
        long
        beside="above"
        registry={registry}
        aria-labelledby="script-title"
        className="input grow min-h-[240px] text-[16px]"
        readOnly={!editable}
        maxLength={4000}
        value={value}
        onChange={onChange}
      />
      <p className="text-ink2">{t`It stands beside each call, with the name of whoever is called.`}</p>
    </div>
  );
}
