/*
 * Words by which people say, in an answer, what a house has to do something about. Common practice of whoever
 * reads answers, in the languages of supporters' pages; no source. They only point: a person decides.
 */

/** What an answer may be about, besides an answer. */
export const CONCERN_KINDS = ['leaving', 'address', 'gift', 'complaint'] as const;
export type ConcernKind = (typeof CONCERN_KINDS)[number];

/** By kind and language, what a sentence says; read without regard to case and accents. */
export const CONCERN_SENTENCES: Record<ConcernKind, Record<'en' | 'de' | 'es' | 'fr', readonly RegExp[]>> = {
  leaving: {
    en: [
      /\btoo (?:many|much) (?:e-?mails?|mails?|messages?|texts?|letters?)\b/,
      /\b(?:fewer|less) (?:e-?mails?|mails?|messages?|texts?|letters?)\b/,
      /\b(?:take|remove|drop|delete) (?:me|us|him|her|my (?:name|e-?mail|number|address))\b|\bget (?:me|us) off\b/,
      /\b(?:do not|don['’]?t|no longer|not) (?:want|wish|like|need) (?:to )?(?:get|receive|hear|be on|any|these|your)\b/,
      /\bstop (?:writing|texting|e-?mailing|mailing|sending|contacting|calling|asking|bothering)\b/,
      /\bleave (?:me|us) alone\b/,
    ],
    de: [
      /\bzu viele (?:e-?mails?|mails?|nachrichten|sms|briefe)\b/,
      /\bweniger (?:e-?mails?|mails?|nachrichten|sms|briefe)\b/,
      /\b(?:keine|nicht mehr|kein)\b.{0,60}\b(?:mails?|e-?mails?|nachrichten|sms|briefe|post|angeschrieben)\b/,
      /\b(?:austragen|abmelden|abbestellen|kündigen|streichen sie)\b/,
    ],
    es: [
      /\bdemasiad[oa]s (?:correos?|mensajes|cartas)\b/,
      /\b(?:no quiero|no deseo|dejen? de|dejad de)\b.{0,40}\b(?:recibir|enviar|mandar|escribir|correos?|mensajes)/,
      /\b(?:darme de baja|quítenme|quitenme|bórrenme|borrenme)\b/,
    ],
    fr: [
      /\btrop (?:de |d['’])(?:e-?mails?|mails?|courriels?|messages|lettres|sms)\b/,
      /\bne (?:veux|souhaite|désire) (?:plus|pas)\b/,
      /\b(?:arrêtez|cessez) de\b/,
      /\b(?:désinscri|désabonn|retirez[- ]moi|enlevez[- ]moi)/,
    ],
  },
  address: {
    en: [
      /\b(?:new|changed?|different|other|current|correct|updated?) (?:e-?mail|mail|postal|home|mailing)? ?(?:address|number|phone|mobile|cell)\b/,
      /\b(?:new|changed?|different|other) e-?mail\b/,
      /\b(?:i|we)(?:['’]ve| have|['’]re| are|['’]m| am)? (?:just |recently )?(?:moved|moving|relocated)\b/,
      /\b(?:write|e-?mail|text|reach|contact|send (?:it|them|this|mail)) (?:to )?(?:me|us)? ?(?:instead )?(?:at|to|on|under)\b.{0,40}(?:@|\d{5})/,
      /\b(?:address|e-?mail|number) (?:has|have|is|was) (?:changed|wrong|old|out of date|no longer)\b/,
    ],
    de: [
      /\b(?:neue|andere|geänderte|aktuelle|richtige) (?:e-?mail-?)?(?:adresse|anschrift|nummer|handynummer|telefonnummer|mail)\b/,
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
      /\b(?:i|we)(?:['’]ll|['’]ve|['’]d like to| will| would like to| want to| have| just)? (?:just |already )?(?:give|gave|given|donate|donated|sent? (?:you )?(?:a )?(?:check|cheque|gift|donation|money)|mailed (?:a )?(?:check|cheque)|pledged?|contributed?)\b/,
      /\b(?:my|our|a|another|the) (?:gift|donation|check|cheque|pledge|contribution)\b/,
      /\bhow (?:can|do|could) (?:i|we) (?:give|donate|help with money|pay)\b/,
    ],
    de: [
      /\b(?:spende|gespendet|überwiesen|überweise|überweisung|dauerauftrag|spendenquittung)\b/,
      /\bwie kann ich (?:spenden|helfen)\b/,
    ],
    es: [
      /\b(?:he donado|doné|quiero donar|hemos donado|mi donativo|mi donación|transferencia|recibo de donación)\b/,
      /\bcómo puedo (?:donar|ayudar)\b/,
    ],
    fr: [
      /\b(?:mon don|notre don|j['’]ai donné|j['’]ai fait un don|un don de|virement|reçu fiscal)\b/,
      /\bcomment (?:donner|faire un don)\b/,
    ],
  },
  complaint: {
    en: [
      /\b(?:complain|complaint|complaining|furious|outrageous|outraged|disgrace|disgraceful|unacceptable|appalled|appalling|harass\w*)\b/,
      /\b(?:lawyer|attorney|sue you|legal action|report you|authorities|data protection|gdpr|ccpa|privacy law)\b/,
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
  /\b(?:do not|don['’]?t|never|please don['’]?t) stop (?:writing|sending|texting|e-?mailing)\b/g,
];
