import type { FormDefinition } from '@goodword/core/forms';
import { standardTextAsk } from '@goodword/core/words';

const TRUST = 'Lantern Ferry Trust';

const asked = (of: FormDefinition['items'][number]['of'], label: string, required = false, help = '') => ({
  of,
  label,
  help,
  required,
  show: 'asked' as const,
  value: '',
});

const CONFIRM: FormDefinition['confirm'] = {
  email: 'always',
  subject: 'Please confirm: Ferry news from the Lantern Ferry Trust',
  words:
    'Somebody, we hope you, asked us to write to this address. Press the button to confirm. If it was not you, do nothing, and you will hear no more.',
};

/** The form on the landing's notice board: by email, and by text for who wants it. */
export function ferryNewsForm(ids: { list: number; crossing: number; chapter: number }): FormDefinition {
  return {
    language: 'en',
    title: 'Ferry news',
    intro: 'A letter from the river about once a month: what floats, what leaks, and who is mending it.',
    items: [
      asked('firstName', 'First name', true),
      asked('lastName', 'Last name'),
      asked('email', 'Email', false, 'For the letter'),
      asked('mobile', 'Mobile', false, 'Only if you want texts; from another country begin with +'),
      asked(ids.crossing, 'Favourite crossing'),
    ],
    asks: [
      {
        channel: 'email',
        scope: `list:${ids.list}`,
        words: `${TRUST} may send me Ferry news by email, about once a month. I can leave with one click at any time.`,
      },
      {
        channel: 'email',
        scope: 'appeals',
        words: `${TRUST} may also email me when the boats need help: four or five times a year.`,
      },
      { channel: 'text', scope: `list:${ids.list}`, words: standardTextAsk(TRUST, 2) },
    ],
    button: 'Join Ferry news',
    thanks: { words: 'You are nearly aboard. Look for our mail or text, and confirm.', redirect: null },
    confirm: CONFIRM,
    tagIds: [],
    listIds: [ids.list],
    chapterId: ids.chapter,
    embedOn: ['https://www.lanternferry.test'],
    keyword: null,
  };
}

/** By text alone: the word on the banner, and a page with the same. */
export function launchDayForm(ids: { list: number; tag: number; chapter: number }): FormDefinition {
  return {
    language: 'en',
    title: 'When she floats',
    intro: 'One text on the morning of every launch.',
    items: [asked('firstName', 'First name'), asked('mobile', 'Mobile', true)],
    asks: [{ channel: 'text', scope: `list:${ids.list}`, words: standardTextAsk(TRUST, 1) }],
    button: 'Text me',
    thanks: { words: 'Answer our text with YES, and you are on.', redirect: null },
    confirm: { ...CONFIRM, email: 'rule' },
    tagIds: [ids.tag],
    listIds: [ids.list],
    chapterId: ids.chapter,
    embedOn: [],
    keyword: 'LAUNCH',
  };
}
