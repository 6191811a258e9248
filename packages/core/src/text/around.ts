/** How to end texts, in the languages that supporters' pages speak. STOP is read in all of them. */
const WAY_OUT: Record<string, string> = {
  en: 'Reply STOP to end.',
  es: 'Responda STOP para terminar.',
  fr: 'Envoyez STOP pour ne plus en recevoir.',
  de: 'STOP beendet es.',
};

const words = (text: string) => text.toLocaleLowerCase().replace(/\s+/g, ' ').trim();

/**
 * Whether a text says who sends it: by the whole name anywhere, or by a beginning of it before the first
 * colon.
 */
function namesSender(body: string, organization: string): boolean {
  const [text, name] = [words(body), words(organization)];
  if (text.includes(name)) return true;
  const [lead = ''] = text.split(':');
  return lead !== text && lead.length >= 3 && `${name} `.startsWith(`${lead} `);
}

/**
 * What a text to many must carry and the writer left out: who sends it (common practice of carriers; CRTC and
 * CASL s. 6(2)(a) ask for it) and how to end it (47 CFR 64.1200(b)(3); common practice: in every text, or now
 * and then). Empty where the text says it itself.
 */
export function aroundText(
  body: string,
  organization: string,
  language: string,
): { lead: string; end: string } {
  return {
    lead: namesSender(body, organization) ? '' : `${organization}: `,
    end: /\bSTOP\b/.test(body) ? '' : ` ${WAY_OUT[language.slice(0, 2)] ?? WAY_OUT.en}`,
  };
}
