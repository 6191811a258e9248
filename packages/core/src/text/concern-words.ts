/*
 * Words by which people say, in an answer, what a house has to do something about. Common practice of whoever
 * reads answers, in the languages of supporters' pages; no source. They only point: a person decides.
 */

/** What an answer may be about, besides an answer. */
export const CONCERN_KINDS = ['leaving', 'address', 'gift', 'complaint'] as const;
export type ConcernKind = (typeof CONCERN_KINDS)[number];

/** By kind and language, what a sentence says; read without regard to case and accents. */
export const CONCERN_SENTENCES: Record<ConcernKind, Record<'en' | 'de' | 'es' | 'fr', readonly RegExp[]>> = {
  // What plainly asks to stop is not among them: it holds the channel and is asked about (`readIntent`).
  leaving: {
    en: [
      /\b(?:too (?:many|much)|fewer|less) (?:e-?mails?|mails?|messages?|texts?|letters?)\b/,
      /\bget (?:me|us) off\b/,
      /\b(?:do not|don't|not) (?:want|wish|like|need) (?:to )?(?:get|receive|hear|be on|any|these|your)\b/,
    ],
    de: [
      /\b(?:zu viele|weniger) (?:e-?mails?|mails?|nachrichten|sms|briefe)\b/,
      /\bnicht mehr\b.{0,60}\b(?:angeschrieben|bekommen|erhalten)\b/,
    ],
    es: [/\bdemasiad[oa]s (?:correos?|mensajes|cartas)\b/, /\b(?:quítenme|bórrenme)\b/],
    fr: [
      /\btrop (?:de |d')(?:e-?mails?|mails?|courriels?|messages|lettres|sms)\b/,
      /\bne (?:veux|souhaite|désire) (?:plus|pas)\b/,
    ],
  },
  address: {
    en: [
      /\b(?:new|changed?|different|other|correct|updated?) (?:(?:e-?mail|postal|home|mailing) )?address\b/,
      /\b(?:new|changed?|different|other|correct|updated?) (?:number|phone|mobile|cell)\b/,
      /\b(?:new|changed?|different|other) e-?mail\b/,
      /\b(?:i|we)(?:'ve| have|'re| are|'m| am)? (?:just |recently )?(?:moved|moving|relocated)\b/,
      /\b(?:write|e-?mail|text|reach|contact) (?:to )?(?:me|us) (?:instead )?(?:at|on)\b.{0,40}(?:@|\d{5})/,
      /\bsend (?:it|them|this|mail) (?:instead )?(?:to|on|under)\b.{0,40}(?:@|\d{5})/,
      /\b(?:address|e-?mail|number) (?:has|have|is|was) (?:changed|wrong|old|out of date|no longer)\b/,
    ],
    de: [
      /\b(?:neue|andere|geänderte|aktuelle|richtige) (?:e-?mail-?)?(?:adresse|anschrift|mail)\b/,
      /\b(?:neue|andere|geänderte|aktuelle|richtige) (?:handy|telefon)?nummer\b/,
      /\b(?:umgezogen|ziehe um|ziehen um|umzug)\b/,
      /\b(?:adresse|anschrift|nummer) (?:hat sich geändert|stimmt nicht|ist falsch)\b/,
    ],
    es: [
      /\b(?:nueva|otra) (?:dirección|direccion)\b/,
      /\b(?:nuevo|otro) (?:correo|número|numero|teléfono|telefono|móvil|movil|celular)\b/,
      /\b(?:me he mudado|nos hemos mudado|me mudé|nos mudamos|me mude)\b/,
    ],
    fr: [
      /\bnouve(?:lle|au) (?:adresse|numéro|numero|e-?mail|courriel|mail)\b/,
      /\b(?:déménag|demenag)/,
      /\b(?:adresse|numéro) a changé\b/,
    ],
  },
  gift: {
    en: [
      /\b(?:i|we)(?:'ve|'d like to|'ll| will| want to| have)? (?:just |already )?(?:give|gave|given)\b/,
      /\b(?:i|we)(?:'ve|'d like to| would like to|'ll| will| want to| have)? (?:just |already )?donated?\b/,
      /\b(?:i|we)(?:'ve|'ll| will| have)? (?:just |already )?(?:pledged?|contributed?)\b/,
      /\b(?:sent?|mailed) (?:you )?(?:a |the )?(?:check|cheque|gift|donation|money)\b/,
      /\b(?:my|our|a|another|the) (?:gift|donation|check|cheque|pledge|contribution)\b/,
      /\bhow (?:can|do|could) (?:i|we) (?:give|donate|help with money|pay)\b/,
    ],
    de: [
      /\b(?:spende|gespendet|überwiesen|überweise|überweisung|dauerauftrag|spendenquittung)\b/,
      /\bwie kann ich (?:spenden|helfen)\b/,
    ],
    es: [
      /\b(?:he donado|doné|quiero donar|hemos donado|mi donativo|mi donación)\b/,
      /\b(?:transferencia|recibo de donación)\b/,
      /\bcómo puedo (?:donar|ayudar)\b/,
    ],
    fr: [
      /\b(?:mon don|notre don|j'ai donné|j'ai fait un don|un don de|virement|reçu fiscal)\b/,
      /\bcomment (?:donner|faire un don)\b/,
    ],
  },
  complaint: {
    en: [
      /\b(?:complain(?:t|ing)?|furious|outraged?|outrageous|unacceptable)\b/,
      /\b(?:disgrace(?:ful)?|appall(?:ed|ing)|harass\w*)\b/,
      /\b(?:lawyer|attorney|sue you|legal action|report you|authorities)\b/,
      /\b(?:data protection|gdpr|ccpa|privacy law)\b/,
      /\b(?:how|where) did you get my\b|\bwho gave you my\b/,
      /\b(?:never|not) (?:agreed|signed up|asked for|gave (?:you )?(?:my )?(?:consent|permission))\b/,
    ],
    de: [
      /\b(?:beschwer\w*|unverschämt\w*|frechheit|empört|inakzeptabel|belästig\w*)\b/,
      /\b(?:anwalt|rechtsanwalt|anzeige|datenschutz\w*|dsgvo|aufsichtsbehörde)\b/,
      /\bwoher haben sie meine\b/,
    ],
    es: [
      /\b(?:queja|quejarme|reclamación|indignad[oa]|inaceptable|vergüenza|acoso)\b/,
      /\b(?:abogad[oa]|denunci\w*|protección de datos|rgpd)\b/,
      /\b(?:de dónde|de donde|cómo|como) (?:han sacado|tienen|consiguieron) mi\b/,
    ],
    fr: [
      /\b(?:plainte|me plaindre|scandaleux|inadmissible|inacceptable|honteux|harcèlement)\b/,
      /\b(?:avocat|cnil|rgpd|protection des données)\b/,
      /\b(?:comment|où) avez[- ]vous (?:eu|obtenu|trouvé) m/,
    ],
  },
};

/** What says the opposite, taken out of a sentence before it is read. */
export const NO_CONCERN: readonly RegExp[] = [
  /\b(?:no|not a|without|nothing to) complain(?:ts?|ing)?(?: about| at all)?\b/g,
  /\b(?:keine|ohne) beschwerden?\b/g,
  /\b(?:ninguna|sin) queja\b/g,
  /\baucune plainte\b/g,
  /\b(?:do not|don'?t|never|please don'?t) stop (?:writing|sending|texting|e-?mailing)\b/g,
];
