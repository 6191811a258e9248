import { readAs, TEXT_LIMIT, WRITTEN_AS_KEPT, type FieldKind } from '../field-kind';

/** A web address, with its scheme put before it where it was left out; null for anything else. */
function readLink(text: string): string | null {
  try {
    const url = new URL(/^[a-z][a-z0-9+.-]*:/i.test(text) ? text : `https://${text}`);
    const sound =
      (url.protocol === 'https:' || url.protocol === 'http:') &&
      url.hostname.includes('.') &&
      !/\s/.test(text) &&
      url.href.length <= TEXT_LIMIT;
    return sound ? url.href : null;
  } catch {
    return null;
  }
}

/** A web address. */
export const linkKind: FieldKind = {
  ...WRITTEN_AS_KEPT,
  asks: ['contains', 'filled', 'empty'],
  read: readAs(readLink, 'value.link'),
};
