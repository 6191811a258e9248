import { LANGUAGES, type Language } from '@goodword/core/forms';
import { escapeHtml as e } from '@goodword/core/letter';
import { standardTextAsk } from '@goodword/core/words';
import { lines, supporterPage } from '../platform/pages/page';
import { channelPhrase, phrase, PHRASES, statePhrase } from '../platform/pages/phrases';
import { type Phrases } from '../platform/pages/phrases-en';
import { imprint, logoOf } from '../team/team.repository';
import type { PreferenceLine, PreferencesView } from './preferences.service';

const NAMES: Record<Language, string> = { en: 'English', es: 'Español', fr: 'Français', de: 'Deutsch' };

export interface PageNotice {
  /** What has just been done. */
  done?: keyof Phrases;
  /** What could not be done. */
  not?: keyof Phrases;
  fault?: { input: string; phrase: keyof Phrases; value: string };
}

/**
 * Everything on one page, without script: what they get and why, pause, leave, correct, take a copy, be
 * erased.
 */
export function preferencesPage(view: PreferencesView, path: string, said: PageNotice = {}): string {
  const p = PHRASES[view.language];
  const organization = view.organization.name;
  const title = phrase(p.choicesTitle, { organization });
  const day = (at: number) =>
    new Intl.DateTimeFormat(view.language, { dateStyle: 'long', timeZone: 'UTC' }).format(at);
  const done = said.done
    ? `<p class="done" role="status">${e(p[said.done])}</p>`
    : said.not
      ? `<p class="fault" role="alert">${e(p[said.not])}</p>`
      : '';
  const paused =
    view.pausedUntil && view.inTime
      ? `<form method="post"><p class="done">${e(phrase(p.paused, { day: day(view.pausedUntil) }))}</p><button name="act" value="pause-0" class="plain">${e(p.unpause)}</button></form>`
      : '';
  const body = `<h1>${e(title)}</h1>${done}${paused}${choosing(view, p)}
<h2>${e(p.pauseTitle)}</h2><p>${e(p.pauseBody)}</p><form method="post">${[30, 60, 90].map((days) => `<button class="plain" name="act" value="pause-${days}">${e(phrase(p.pauseDays, { days }))}</button>`).join('')}</form>
${view.fresh ? personal(view, p, path, said) : stale(p)}
<p class="lang small">${(view.organization.languages ?? LANGUAGES)
    .filter((language) => language !== view.language)
    .map((language) => `<a href="?lang=${language}" lang="${language}">${NAMES[language]}</a>`)
    .join('')}</p><p class="small">${e(imprint(view.organization))}</p>`;
  return supporterPage(title, body, { language: view.language, logo: logoOf(view.organization) });
}

function choosing(view: PreferencesView, p: Phrases): string {
  const channels = [...new Set(view.choices.map((choice) => choice.channel))];
  const groups = channels.map(
    (channel) =>
      `<fieldset style="border:0;padding:0;margin:0"><legend><strong>${e(capital(channelPhrase(p, channel)))}</strong></legend>${channel === 'text' ? `<p class="small">${e(standardTextAsk(view.organization.name, 2))}</p>` : ''}${view.choices
        .filter((choice) => choice.channel === channel)
        .map((choice) => box(choice, p))
        .join('')}</fieldset>`,
  );
  const stopped = view.stopped.map(
    () => `<p>${e(phrase(p.stoppedTexts, { number: view.organization.text_from }))}</p>`,
  );
  const nothing = `<form method="post"><button class="plain" name="act" value="nothing">${e(p.nothing)}</button></form>`;
  // A link older than its time shows nothing but the ways out.
  if (!view.inTime) return nothing;
  if (view.choices.length === 0) return stopped.join('') + nothing;
  return `<p>${e(p.choicesIntro)}</p><form method="post"><input type="hidden" name="wasSaid" value="1">${groups.join('')}${stopped.join('')}<button name="act" value="choose">${e(p.save)}</button></form>${nothing}`;
}

function box(choice: PreferenceLine, p: Phrases): string {
  const key = `${choice.channel}.${choice.scope}`;
  const why = choice.why ? `<br><span class="small">${e(p.whyTitle)}: ${lines(choice.why)}</span>` : '';
  return `<input type="hidden" name="shown" value="${key}">${choice.on ? `<input type="hidden" name="was" value="${key}">` : ''}<label class="check"><input type="checkbox" name="on" value="${key}"${choice.on ? ' checked' : ''}><span>${e(choice.name)} <span class="small">(${e(statePhrase(p, choice.state))})</span>${why}</span></label>`;
}

function personal(view: PreferencesView, p: Phrases, path: string, said: PageNotice): string {
  const fault = said.fault;
  const input = (name: string, type: string, label: string, value: string, autocomplete: string) => {
    const wrong = fault?.input === name;
    return `<label class="field">${e(label)}<input type="${type}" name="${name}" value="${e(wrong ? fault.value : value)}" autocomplete="${autocomplete}" maxlength="254"${wrong ? ` aria-invalid="true" aria-describedby="${name}-fault"` : ''}>${wrong ? `<small class="fault" id="${name}-fault" role="alert">${e(phrase(p[fault.phrase], { value: fault.value }))}</small>` : ''}</label>`;
  };
  const erase = view.erasureAsked
    ? `<p class="done">${e(p.eraseAsked)}</p>`
    : `<form method="post"><button class="plain" name="act" value="erase">${e(p.erase)}</button></form>`;
  return `<h2>${e(p.yoursTitle)}</h2><p class="small">${e(p.yoursBody)}</p><form method="post">
${input('firstName', 'text', p.first, view.person.first_name, 'given-name')}${input('lastName', 'text', p.last, view.person.last_name, 'family-name')}
${input('email', 'email', p.email, view.email ?? '', 'email')}${input('mobile', 'tel', p.mobile, view.mobile ?? '', 'tel')}<button name="act" value="yours">${e(p.saveYours)}</button></form>
<h2>${e(p.dataTitle)}</h2><p><a href="${e(path)}/data.json">${e(p.download)}</a></p>${erase}`;
}

function stale(p: Phrases): string {
  return `<h2>${e(p.yoursTitle)}</h2><p>${e(p.oldLink)}</p><form method="post"><button class="plain" name="act" value="fresh">${e(p.freshLink)}</button></form>`;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
