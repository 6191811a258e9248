import Joi from 'joi';
import { FORM_PARTS, LANGUAGES } from '../forms';
import { ofCore, usually } from './kinds';
import { channel, id, name, scope } from './common';

const item = Joi.object({
  of: Joi.alternatives()
    .try(id, Joi.string().valid(...FORM_PARTS))
    .required(),
  label: Joi.string().trim().max(120).allow('').required(),
  help: Joi.string().trim().max(300).allow('').required(),
  required: Joi.boolean().required(),
  show: Joi.string().valid('asked', 'hidden', 'constant').required(),
  value: Joi.string().trim().max(300).allow('').required(),
});

/** What a form asks and says. */
export const formDefinition = ofCore(
  'FormDefinition',
  'forms',
  Joi.object({
    language: Joi.string()
      .valid(...LANGUAGES)
      .required(),
    title: Joi.string().trim().min(1).max(120).required(),
    intro: Joi.string().trim().max(1000).allow('').required(),
    items: Joi.array().items(item).max(40).required(),
    asks: Joi.array()
      .items(
        Joi.object({
          channel: channel.required(),
          scope: scope.required(),
          words: Joi.string().trim().max(1000).allow('').required(),
        }),
      )
      .max(12)
      .required(),
    button: Joi.string().trim().min(1).max(60).required(),
    thanks: Joi.object({
      words: Joi.string().trim().max(1000).allow('').required(),
      redirect: Joi.string()
        .uri({ scheme: ['https'] })
        .max(500)
        .allow(null)
        .required(),
    }).required(),
    confirm: Joi.object({
      email: Joi.string().valid('rule', 'always').required(),
      subject: Joi.string().trim().min(1).max(150).required(),
      words: Joi.string().trim().min(1).max(1500).required(),
    }).required(),
    tagIds: Joi.array().items(id).max(20).required(),
    listIds: Joi.array().items(id).max(20).required(),
    chapterId: id.required(),
    embedOn: Joi.array()
      .items(
        Joi.string().pattern(/^https?:\/\/[a-z0-9.-]+(:\d+)?$/i, 'an origin such as https://www.example.org'),
      )
      .max(20)
      .required(),
    keyword: Joi.string()
      .trim()
      .uppercase()
      .pattern(/^[A-Z0-9]{3,20}$/, 'three to twenty letters or digits')
      .allow(null)
      .required(),
  }),
);

/** Body: a new form, which begins with the words for its list. */
export const makeForm = Joi.object({
  name: name.required(),
  listId: id.allow(null).default(null).meta(usually(null)),
});
/** Body: what a form asks and says; each save is a version that entries name. */
export const saveForm = Joi.object({
  name: name.required(),
  slug: Joi.string()
    .trim()
    .lowercase()
    .pattern(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'small letters, digits and single dashes')
    .min(3)
    .max(60)
    .required(),
  definition: formDefinition.required(),
  /** The version that was being edited. */
  version: Joi.number().integer().min(1).required(),
});
/** Body: whether the form is open to the public. */
export const openFormSchema = Joi.object({ open: Joi.boolean().required() });
/** Address of a form's public page. */
export const slugParams = Joi.object({ slug: Joi.string().max(60).required() });
/** Anything: the form itself says what counts, and the size of the whole is bounded before it is read. */
export const postedForm = Joi.object().pattern(Joi.string().max(80), Joi.any()).max(120);
/** Query of a public page: hidden values, the language, whether it stands in a frame. */
export const pageQuery = Joi.object().pattern(Joi.string().max(80), Joi.any()).max(60);
/** Body of the preference page: what was ticked, and which of its buttons was pressed. */
export const postedPreferences = Joi.object().pattern(Joi.string().max(80), Joi.any()).max(300);
