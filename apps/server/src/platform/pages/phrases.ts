import { LANGUAGES, type Language } from '@goodword/core/forms';
import type { Channel, PermissionState } from '@goodword/core/permission';
import { EN, type Phrases } from './phrases-en';
import { ES } from './phrases-es';
import { FR } from './phrases-fr';
import { DE } from './phrases-de';

export const PHRASES: Record<Language, Phrases> = { en: EN, es: ES, fr: FR, de: DE };

/** The language of supporters' pages that is nearest to a locale (BCP 47): its own, else English. */
export function pageLanguage(locale: string): Language {
  const language = locale.slice(0, 2).toLowerCase();
  return LANGUAGES.find((one) => one === language) ?? 'en';
}

export function phrase(text: string, values: Record<string, string | number>): string {
  return text.replace(/\{(\w+)\}/g, (all, key: string) => (key in values ? String(values[key]) : all));
}

export function channelPhrase(p: Phrases, channel: Channel): string {
  return { email: p.byEmail, text: p.byText, call: p.byCall, post: p.byPost }[channel];
}

export function statePhrase(p: Phrases, state: PermissionState): string {
  return {
    yes: p.stateYes,
    implied: p.stateImplied,
    asked: p.stateAsked,
    never: p.stateNever,
    no: p.stateNo,
  }[state];
}
