import Joi from 'joi';
import { LANGUAGES, type Language } from '../forms';
import { isCurrency, isLocale, isTimeZone, ROLES, type Role } from '../team';
import { id } from './common';

const email = Joi.string().trim().lowercase().email({ tlds: false }).max(254);
/** What stands in one line somewhere. */
const line = (most: number) => Joi.string().trim().max(most);
const password = Joi.string().max(200);

export const signIn = Joi.object({
  email: Joi.string().trim().lowercase().max(254).required(),
  password: password.required(),
});

export const chooseChapter = Joi.object({ chapterId: id.allow(null).required() });

const known = (is: (value: string) => boolean, what: string) =>
  Joi.string()
    .max(60)
    .custom((value: string, helpers) =>
      is(value) ? value : helpers.message({ custom: `“{{#value}}” is no ${what} that is known` }),
    );

const organizationParts = {
  name: line(120).required(),
  legalName: line(200).allow('').required(),
  /** In one line or several; it stands in one in footers. */
  postalAddress: Joi.string().trim().max(300).allow('').required(),
  country: Joi.string()
    .pattern(/^[A-Z]{2}$/)
    .required()
    .messages({ 'string.pattern.base': 'Choose the country' }),
  timeZone: known(isTimeZone, 'time zone').required(),
  locale: known(isLocale, 'language and country').required(),
  currency: known(isCurrency, 'currency').required(),
};

export const saveOrganization = Joi.object({
  ...organizationParts,
  fiscalMonth: Joi.number().integer().min(1).max(12).required(),
  languages: Joi.array()
    .items(Joi.string().valid(...LANGUAGES))
    .unique()
    .min(1)
    .required()
    .messages({ 'array.min': 'At least one language is needed' }),
  fromEmail: email.allow('').required(),
  bounceDomain: Joi.string().trim().lowercase().domain({ tlds: false }).max(200).allow('').required(),
  textFrom: Joi.string()
    .trim()
    .pattern(/^\+[1-9]\d{6,14}$/)
    .allow('')
    .required()
    .messages({ 'string.pattern.base': 'Write the number with + and the country, as in +12065550100' }),
  basedOn: Joi.number().integer().min(0).required(),
});

const chapterParts = {
  name: line(120).required(),
  postalAddress: Joi.string().trim().max(300).allow('').required(),
  /** Where its people live: countries, regions and beginnings of postcodes, with commas between. */
  places: Joi.string().trim().max(1000).allow('').default(''),
};
export const makeChapter = Joi.object(chapterParts);
export const saveChapter = Joi.object({ ...chapterParts, was: Joi.object(chapterParts).required() });

const profileParts = {
  name: line(120).required(),
  title: line(120).allow('').required(),
  mobile: Joi.string().trim().max(40).allow('').required(),
  answersTo: email.allow('').required(),
  signature: Joi.string().max(500).allow('').required(),
};
export const saveProfile = Joi.object({ ...profileParts, was: Joi.object(profileParts).required() });

export const changePassword = Joi.object({ current: password.required(), password: password.required() });
export const forgotten = Joi.object({ email: Joi.string().trim().lowercase().max(254).required() });
export const linkParams = Joi.object({
  token: Joi.string()
    .pattern(/^[a-z2-7]{20,120}$/)
    .required(),
});
export const useLink = Joi.object({ password: password.required(), name: line(120).allow('').default('') });

const place = {
  role: Joi.string()
    .valid(...ROLES)
    .required(),
  /** Null for all that there are and will be. */
  chapterIds: Joi.array().items(id).unique().min(1).max(200).allow(null).required(),
};
export const invite = Joi.object({ email: email.required(), name: line(120).required(), ...place });
/** `was`: where they stood when the change was begun; of two owners who change them the second is told. */
export const changeTeammate = Joi.object({ ...place, was: Joi.object(place).required() });
export const takeOutTeammate = Joi.object({ handTo: id.required() });

export const beginHouse = Joi.object({
  word: Joi.string().trim().max(80).required(),
  organization: Joi.object(organizationParts).required(),
  chapter: line(120).required(),
  name: line(120).required(),
  email: email.required(),
  password: password.required(),
});

export interface SessionView {
  teammate: {
    id: number;
    name: string;
    email: string;
    role: Role;
    mobile: string;
    chapterIds: number[] | null;
  };
  organization: {
    id: number;
    name: string;
    country: string;
    locale: string;
    currency: string;
    timeZone: string;
    textFrom: string;
    languages: Language[];
  };
  /** The chapter being worked in; null for all that the teammate may see. */
  chapter: { id: number; name: string } | null;
  chapters: { id: number; name: string }[];
  csrf: string;
  standins: { mailroom: string | null; handsets: string | null };
}

export interface OrganizationView {
  name: string;
  legalName: string;
  postalAddress: string;
  country: string;
  timeZone: string;
  fiscalMonth: number;
  currency: string;
  locale: string;
  languages: Language[];
  fromEmail: string;
  bounceDomain: string;
  textFrom: string;
  /** Where the logo is to be had; null where there is none. */
  logo: string | null;
  version: number;
  chapters: { id: number; name: string; postalAddress: string; places: string; people: number }[];
  /** What is still missing before a message can leave, a sentence each. */
  missing: string[];
}

export interface Profile {
  name: string;
  email: string;
  title: string;
  mobile: string;
  answersTo: string;
  signature: string;
}

export interface SessionLine {
  id: number;
  network: string;
  browser: string;
  since: string;
  usedAt: string;
  isThis: boolean;
}

export interface TeammateView {
  id: number;
  name: string;
  email: string;
  role: Role;
  /** Those they are bound to; null for who works in all. */
  chapterIds: number[] | null;
  /** Invited and not yet here; here; gone. */
  state: 'invited' | 'here' | 'gone';
  signedInAt: string | null;
  /** What became of the last mail with a link; null where there was none. */
  invitation: {
    state: 'waiting' | 'sent' | 'failed' | 'expired';
    detail: string | null;
    expiresAt: string;
  } | null;
  sessions: number;
}

/** What waits for a teammate, to be handed on. */
export interface WaitingFor {
  messages: number;
  batches: number;
  callLists: number;
}

export interface LinkView {
  kind: 'invitation' | 'password';
  name: string;
  email: string;
  organization: string;
}
