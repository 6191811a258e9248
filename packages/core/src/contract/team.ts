import Joi from 'joi';
import { ofCore, usually } from './kinds';
import { LANGUAGES } from '../forms';
import { FACES, LETTER_WIDTHS } from '../letter';
import { isCurrency, isLocale, isTimeZone, ROLES } from '../team';
import { id } from './common';

const email = Joi.string().trim().lowercase().email({ tlds: false }).max(254);
/** What stands in one line somewhere. */
const line = (most: number) => Joi.string().trim().max(most);
const password = Joi.string().max(200);

/** Body: an email address with its password. */
export const signIn = Joi.object({
  email: Joi.string().trim().lowercase().max(254).required(),
  password: password.required(),
});

/** Body: the chapter to work in; null for all of them. */
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

const address = Joi.string()
  .trim()
  .uri({ scheme: ['http', 'https'] })
  .allow('')
  .messages({ 'string.uri': 'Write the whole address, as in https://give.example.org' });

/** Body: what the organization is called, where it is, its zone, currency, languages and year. */
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
  /** What a part of a text costs, in units of the currency. */
  textPrice: Joi.number().min(0).max(10).allow(null).default(null).meta(usually(null)),
  /** The page on which one gives: what the merge field of that name leads to. */
  givingPage: address.max(300).default('').meta(usually('')),
  /** The host of short links in texts; the server's own address where it is empty. */
  linkUrl: address
    .max(60)
    .pattern(/^https?:\/\/[^/?#]+$/)
    .messages({ 'string.pattern.base': 'Write the host alone, as in https://go.example.org' })
    .default('')
    .meta(usually('')),
  basedOn: Joi.number().integer().min(0).required(),
});

/** A colour as #RRGGBB. */
const colour = Joi.string()
  .pattern(/^#[0-9a-f]{6}$/i, '#RRGGBB')
  .required();

const styleParts = {
  logo: Joi.object({
    src: Joi.string()
      .pattern(/^\/media\/\d{1,15}$/)
      .required(),
    width: Joi.number().integer().min(24).max(600).required(),
  })
    .allow(null)
    .required(),
  main: colour,
  accent: colour,
  face: Joi.string()
    .valid(...Object.keys(FACES))
    .required(),
  width: Joi.number().integer().min(LETTER_WIDTHS.least).max(LETTER_WIDTHS.most).required(),
  footer: Joi.object()
    .pattern(Joi.string().pattern(/^[a-z]{2}$/), Joi.string().trim().max(600).allow(''))
    .required(),
};
/** Body: how the letters of the house look, and how they looked when that was begun. */
export const saveStyle = Joi.object({
  style: ofCore('HouseStyle', 'letter', Joi.object(styleParts)).required(),
  was: Joi.object(styleParts).required(),
});

const chapterParts = {
  name: line(120).required(),
  postalAddress: Joi.string().trim().max(300).allow('').required(),
  /** Where its people live: countries, regions and beginnings of postcodes, with commas between. */
  places: Joi.string().trim().max(1000).allow('').default('').meta(usually('')),
};
/** Body: a new chapter. */
export const makeChapter = Joi.object(chapterParts);
/** Body: a chapter's name, postal address and where its people live. */
export const saveChapter = Joi.object({ ...chapterParts, was: Joi.object(chapterParts).required() });

const profileParts = {
  name: line(120).required(),
  title: line(120).allow('').required(),
  mobile: Joi.string().trim().max(40).allow('').required(),
  answersTo: email.allow('').required(),
  signature: Joi.string().max(500).allow('').required(),
  /** A picture of the library beside the signature. */
  pictureId: id.allow(null).default(null).meta(usually(null)),
};
/** Body: how a teammate is seen by those whom they write to. */
export const saveProfile = Joi.object({ ...profileParts, was: Joi.object(profileParts).required() });

/** Body: one's password, the old and the new. */
export const changePassword = Joi.object({ current: password.required(), password: password.required() });
/** Body: the address to which a link for a new password goes, if it is a teammate's. */
export const forgotten = Joi.object({ email: Joi.string().trim().lowercase().max(254).required() });
/** Address behind a one-time link. */
export const linkParams = Joi.object({
  token: Joi.string()
    .pattern(/^[a-z2-7]{20,120}$/)
    .required(),
});
/** Body: the password that a one-time link sets. */
export const useLink = Joi.object({
  password: password.required(),
  name: line(120).allow('').default('').meta(usually('')),
});

const place = {
  role: Joi.string()
    .valid(...ROLES)
    .required(),
  /** Null for all that there are and will be. */
  chapterIds: Joi.array().items(id).unique().min(1).max(200).allow(null).required(),
};
/** Body: whom to let in, with a role and chapters. */
export const invite = Joi.object({ email: email.required(), name: line(120).required(), ...place });
/** `was`: where they stood when the change was begun; of two owners who change them the second is told. */
export const changeTeammate = Joi.object({ ...place, was: Joi.object(place).required() });
/** Body: who goes on with what waits for somebody who is taken out. */
export const takeOutTeammate = Joi.object({ handTo: id.required() });

/** Body: the first owner and the organization, with the word that the start printed. */
export const beginHouse = Joi.object({
  word: Joi.string().trim().max(80).required(),
  organization: Joi.object(organizationParts).required(),
  chapter: line(120).required(),
  name: line(120).required(),
  email: email.required(),
  password: password.required(),
});
