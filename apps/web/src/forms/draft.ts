import { t } from '@lingui/core/macro';
import type { FieldView } from '@goodword/core/contract';
import { FORM_PARTS, type FormDefinition, type FormItem, type FormPart } from '@goodword/core/forms';
import type { Channel } from '@goodword/core/permission';
import { standardTextAsk } from '@goodword/core/words';

export const PART_WORDS: Record<FormPart, string> = {
  firstName: t`First name`,
  lastName: t`Last name`,
  email: t`Email`,
  mobile: t`Mobile`,
  country: t`Country`,
  post: t`Postal address`,
};

/** Everything that a form can ask, and does not yet. */
export function askable(
  form: FormDefinition,
  fields: readonly FieldView[],
): { of: FormItem['of']; words: string; field?: FieldView }[] {
  const asked = new Set(form.items.map((item) => item.of));
  return [
    ...FORM_PARTS.map((of) => ({ of, words: PART_WORDS[of] })),
    ...fields
      .filter(({ type }) => type !== 'file')
      .map((field) => ({ of: field.id, words: field.name, field })),
  ].filter((one) => !asked.has(one.of));
}

/** A field brings its help with it, and that it has to be answered. */
export function withItem(
  form: FormDefinition,
  of: FormItem['of'],
  label: string,
  field?: Pick<FieldView, 'help' | 'required'>,
): FormDefinition {
  const item: FormItem = {
    of,
    label,
    help: field?.help ?? '',
    required: field?.required ?? false,
    show: 'asked',
    value: '',
  };
  return { ...form, items: [...form.items, item] };
}

export function changeItem(
  form: FormDefinition,
  at: number,
  change: Partial<FormItem> | null,
): FormDefinition {
  const items = form.items.flatMap((item, i) =>
    i === at ? (change === null ? [] : [{ ...item, ...change }]) : [item],
  );
  return { ...form, items };
}

/** Moves one item to the place of another; the order of everything else stays. */
export function moveItem(form: FormDefinition, from: number, to: number): FormDefinition {
  const items = [...form.items];
  const [moved] = items.splice(from, 1);
  if (moved) items.splice(to, 0, moved);
  return { ...form, items };
}

/** A new box, with words that are a good start. */
export function withAsk(form: FormDefinition, channel: Channel, organization: string): FormDefinition {
  const words =
    channel === 'text'
      ? standardTextAsk(organization, 2)
      : channel === 'call'
        ? t`${organization} may call me about news.`
        : t`${organization} may email me its news. I can leave with one click at any time.`;
  return { ...form, asks: [...form.asks, { channel, scope: 'news', words }] };
}

/** What is pasted into another page: the frame that sizes itself, or the plain form. */
export function embedCode(kind: 'frame' | 'plain', url: string, form: FormDefinition, title: string): string {
  const [origin, slug] = [new URL(url).origin, url.split('/').at(-1)!];
  const e = (text: string) => text.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;');
  if (kind === 'frame')
    return `<script src="${origin}/join/frame.js" data-form="${slug}" data-title="${e(title)}"></script>`;
  const inputs = form.items
    .filter((item) => item.show !== 'constant')
    .map((item) => {
      const name = typeof item.of === 'number' ? `field_${item.of}` : item.of;
      if (item.show === 'hidden') return `  <input type="hidden" name="${name}" value="${e(item.value)}">`;
      const type = item.of === 'email' ? 'email' : item.of === 'mobile' ? 'tel' : 'text';
      return `  <label>${e(item.label)} <input type="${type}" name="${name}"${item.required ? ' required' : ''}></label>`;
    });
  const asks = form.asks.map(
    (ask, i) => `  <label><input type="checkbox" name="agree_${i}" value="1"> ${e(ask.words)}</label>`,
  );
  return [
    `<form method="post" action="${url}" accept-charset="utf-8">`,
    ...inputs,
    ...asks,
    `  <button>${e(form.button)}</button>`,
    '</form>',
  ].join('\n');
}
