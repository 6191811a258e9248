import { LANGUAGES, type Language } from '@goodword/core/forms';
import { escapeHtml as e } from '@goodword/core/letter';
import { standardTextAsk } from '@goodword/core/words';
import { tag } from '../platform/pages/markup';
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
      ? posted(
          `<p class="done">${e(phrase(p.paused, { day: day(view.pausedUntil) }))}</p>`,
          button('pause-0', p.unpause),
        )
      : '';
  const pauses = [30, 60, 90].map((days) => button(`pause-${days}`, phrase(p.pauseDays, { days })));
  const others = (view.organization.languages ?? LANGUAGES).filter((one) => one !== view.language);
  const languages = others.map((lang) => tag('a', { href: `?lang=${lang}`, lang }, NAMES[lang]));
  const body = `<h1>${e(title)}</h1>${done}${paused}${choosing(view, p)}
<h2>${e(p.pauseTitle)}</h2><p>${e(p.pauseBody)}</p>${posted(...pauses)}
${view.fresh ? personal(view, p, path, said) : stale(p)}
<p class="lang small">${languages.join('')}</p><p class="small">${e(imprint(view.organization))}</p>`;
  return supporterPage(title, body, { language: view.language, logo: logoOf(view.organization) });
}

function choosing(view: PreferencesView, p: Phrases): string {
  const channels = [...new Set(view.choices.map((choice) => choice.channel))];
  const groups = channels.map((channel) => {
    const of = view.choices.filter((choice) => choice.channel === channel);
    const terms = standardTextAsk(view.organization.name, 2);
    return tag(
      'fieldset',
      { style: 'border:0;padding:0;margin:0' },
      `<legend><strong>${e(capital(channelPhrase(p, channel)))}</strong></legend>`,
      channel === 'text' ? `<p class="small">${e(terms)}</p>` : '',
      ...of.map((choice) => box(choice, p)),
    );
  });
  const stopped = view.stopped.map(
    () => `<p>${e(phrase(p.stoppedTexts, { number: view.organization.text_from }))}</p>`,
  );
  const nothing = posted(button('nothing', p.nothing));
  // A link older than its time shows nothing but the ways out.
  if (!view.inTime) return nothing;
  if (view.choices.length === 0) return stopped.join('') + nothing;
  const save = button('choose', p.save, null);
  const form = posted(hidden('wasSaid', '1'), ...groups, ...stopped, save);
  return `<p>${e(p.choicesIntro)}</p>${form}${nothing}`;
}

function box(choice: PreferenceLine, p: Phrases): string {
  const key = `${choice.channel}.${choice.scope}`;
  const why = choice.why ? `<br><span class="small">${e(p.whyTitle)}: ${lines(choice.why)}</span>` : '';
  const ticked = tag('input', { type: 'checkbox', name: 'on', value: key, checked: choice.on });
  const state = `<span class="small">(${e(statePhrase(p, choice.state))})</span>`;
  const label = tag('label', { class: 'check' }, ticked, `<span>${e(choice.name)} ${state}${why}</span>`);
  return hidden('shown', key) + (choice.on ? hidden('was', key) : '') + label;
}

function personal(view: PreferencesView, p: Phrases, path: string, said: PageNotice): string {
  const fault = said.fault;
  const input = (name: string, type: string, label: string, value: string, autocomplete: string) => {
    const wrong = fault?.input === name;
    const id = `${name}-fault`;
    const typed = tag('input', {
      type,
      name,
      value: wrong ? fault.value : value,
      autocomplete,
      maxlength: 254,
      'aria-invalid': wrong && 'true',
      'aria-describedby': wrong && id,
    });
    const told = wrong ? e(phrase(p[fault.phrase], { value: fault.value })) : '';
    const alert = wrong ? tag('small', { class: 'fault', id, role: 'alert' }, told) : '';
    return tag('label', { class: 'field' }, e(label), typed, alert);
  };
  const erase = view.erasureAsked
    ? `<p class="done">${e(p.eraseAsked)}</p>`
    : posted(button('erase', p.erase));
  const form = posted(
    input('firstName', 'text', p.first, view.person.first_name, 'given-name'),
    input('lastName', 'text', p.last, view.person.last_name, 'family-name'),
    input('email', 'email', p.email, view.email ?? '', 'email'),
    input('mobile', 'tel', p.mobile, view.mobile ?? '', 'tel'),
    button('yours', p.saveYours, null),
  );
  return `<h2>${e(p.yoursTitle)}</h2><p class="small">${e(p.yoursBody)}</p>${form}
<h2>${e(p.dataTitle)}</h2><p><a href="${e(path)}/data.json">${e(p.download)}</a></p>${erase}`;
}

function stale(p: Phrases): string {
  return `<h2>${e(p.yoursTitle)}</h2><p>${e(p.oldLink)}</p>${posted(button('fresh', p.freshLink))}`;
}

const posted = (...parts: string[]) => tag('form', { method: 'post' }, ...parts);

const hidden = (name: string, value: string) => tag('input', { type: 'hidden', name, value });

const button = (act: string, words: string, look: string | null = 'plain') =>
  tag('button', { class: look, name: 'act', value: act }, e(words));

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
