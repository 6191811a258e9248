import { t } from '@lingui/core/macro';
import type { FormDefinition } from '@goodword/core/forms';

/** The form as it will look on a telephone, drawn from the draft. Nothing in it can be pressed. */
export function FormPreview({ form }: { form: FormDefinition }) {
  return (
    <div className="sheet p-5 text-[15px] leading-[1.45]" aria-label={t`How it will look`} role="img">
      <p className="font-bold text-[20px] leading-tight pb-2">{form.title}</p>
      {form.intro && <p className="pb-3 whitespace-pre-line">{form.intro}</p>}
      {form.items
        .filter((item) => item.show === 'asked')
        .map((item) => (
          <div key={String(item.of)} className="pb-3">
            <p className="font-semibold">
              {item.label}{' '}
              <span className="font-normal text-ink2 text-[13px]">
                ({item.required ? t`required` : t`optional`})
              </span>
            </p>
            <div className="border border-ink2 rounded-paper h-[34px] mt-1" />
            {item.help && <p className="text-ink2 text-[13px]">{item.help}</p>}
          </div>
        ))}
      {form.asks.map((ask, i) => (
        <div key={i} className="grid grid-cols-[20px_1fr] gap-2 pb-3">
          <span className="border border-ink2 rounded-[2px] w-[18px] h-[18px] mt-[3px]" />
          <p className="text-[14px]">{ask.words}</p>
        </div>
      ))}
      <span className="inline-block bg-ink text-white font-semibold rounded-paper px-4 py-2">
        {form.button}
      </span>
    </div>
  );
}
