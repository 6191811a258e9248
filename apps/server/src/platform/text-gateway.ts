import type { Config } from './config';
import type { Database } from './database';
import { watchedTexts } from './providers';
import { SmppTextOut } from './smpp-out';
import { isSmpp, smppPlaceOf } from './smpp-session';
import { HttpTextOut, NO_TEXTS, type TextOut } from './text-out';
import { TextSegments } from './text-segments';

/** The gateway that the configuration names, by whichever way it is spoken to. */
export function textOutOf(
  { TEXT_URL: url, TEXT_KEY: key, PUBLIC_URL: ours }: Config,
  database: Database,
): TextOut {
  if (url === '') return NO_TEXTS;
  if (!isSmpp(url)) return watchedTexts(new HttpTextOut({ url, key, callback: `${ours}/hooks/text` }));
  const segments = new TextSegments(database);
  return watchedTexts(new SmppTextOut(smppPlaceOf(url), (of, ids) => segments.keep(of, ids)));
}
