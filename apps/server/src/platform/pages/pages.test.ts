import { LANGUAGES } from '@goodword/core/forms';
import { languageOf, lines, supporterPage } from './page';
import { channelPhrase, phrase, PHRASES, statePhrase } from './phrases';

const holes = (text: string) => [...text.matchAll(/\{(\w+)\}/g)].map((found) => found[1]).sort();

describe('phrases', () => {
  const keys = Object.keys(PHRASES.en) as (keyof typeof PHRASES.en)[];

  test.each(LANGUAGES.filter((language) => language !== 'en'))(
    '%s says everything that English says, with the same blanks',
    (language) => {
      const other = PHRASES[language];
      expect(Object.keys(other).sort()).toEqual([...keys].sort());
      for (const key of keys) {
        expect([key, other[key].trim()]).not.toEqual([key, '']);
        expect([key, holes(other[key])]).toEqual([key, holes(PHRASES.en[key])]);
      }
    },
  );

  test.each(LANGUAGES.filter((language) => language !== 'en'))(
    '%s is a language of its own: few phrases are left in English',
    (language) => {
      const same = keys.filter((key) => PHRASES[language][key] === PHRASES.en[key]);
      // "no" is no in Spanish, "Mobile" is Mobile in French.
      expect(same.length).toBeLessThanOrEqual(2);
    },
  );

  test('words that people must text are the same in every language: they are what the program reads', () => {
    for (const language of LANGUAGES) {
      expect(PHRASES[language].confirmText).toContain('YES');
      expect(PHRASES[language].stoppedTexts).toContain('START');
    }
  });

  test('blanks are filled, and what is unknown is left', () => {
    expect(phrase('{a} and {b}', { a: 1 })).toBe('1 and {b}');
    expect(phrase('{a}{a}', { a: '{b}' })).toBe('{b}{b}');
    expect([channelPhrase(PHRASES.de, 'post'), statePhrase(PHRASES.es, 'never')]).toEqual([
      'Post',
      'ahora no',
    ]);
  });
});

describe('pages', () => {
  test('follow what was asked, then what the browser likes, then what is given', () => {
    const of = (query: object, accept?: string) =>
      languageOf({ query, headers: { 'accept-language': accept } }, LANGUAGES, 'en');
    expect(of({ lang: 'de' }, 'fr')).toBe('de');
    expect(of({ lang: 'xx' }, 'fr-CA,fr;q=0.8')).toBe('fr');
    expect(of({ lang: ['de', 'fr'] }, 'zh, es')).toBe('es');
    expect(of({}, undefined)).toBe('en');
  });

  test('name their language, fit a telephone, and escape their title', () => {
    const html = supporterPage('A <b> & c', '<p>x</p>', { language: 'fr' });
    expect(html).toContain('<html lang="fr">');
    expect(html).toContain('width=device-width');
    expect(html).not.toContain('<title>A <b>');
    expect(html).not.toContain('<script');
    expect(lines('a <\nb')).toBe('a &#60;<br>b');
  });
});
