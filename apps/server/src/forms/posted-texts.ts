import { type FormRow } from './forms.repository';

export type PostedTexts = Record<string, string | undefined>;

/** Only single texts count: a name given twice, or as a list, is nobody's honest answer. */
export function textsOf(body: unknown): PostedTexts {
  const out: PostedTexts = {};
  for (const [key, value] of Object.entries((body ?? {}) as Record<string, unknown>))
    if (typeof value === 'string') out[key] = value;
  return out;
}

/** Hidden items may be set by the address of the page: `?field_12=harbour-poster`. */
export function hiddenFrom(form: FormRow, query: PostedTexts): PostedTexts {
  const hidden = form.definition.items
    .filter((item) => item.show === 'hidden')
    .map((item) => (typeof item.of === 'number' ? `field_${item.of}` : item.of));
  return Object.fromEntries(
    hidden
      .filter((name) => typeof query[name] === 'string')
      .map((name) => [name, String(query[name]).slice(0, 300)]),
  );
}
