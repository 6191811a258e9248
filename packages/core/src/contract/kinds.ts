import Joi from 'joi';

/** Any words, also none. */
export const text = Joi.string().allow('');
/** Any number that JSON can say. */
export const number = Joi.number().meta({ swagger: { format: 'double' } });
/** True or false. */
export const flag = Joi.boolean();
/** Whatever it is. */
export const anything = Joi.any();

/** One of a few words, or exactly this value. */
export const only = (...values: (string | number | boolean | null)[]) =>
  typeof values[0] === 'string'
    ? Joi.string().valid(...values)
    : Joi.valid(...values).meta({ swagger: { enum: values } });
/** One of a list of words that the core keeps. */
export const oneOf = (words: readonly string[]) => Joi.string().valid(...words);

const presenceOf = (schema: Joi.Schema) => schema.$_getFlag('presence') as string | undefined;
const isNamed = (schema: Joi.Schema) =>
  ((schema.$_terms as { metas: { className?: string }[] }).metas ?? []).some((meta) => meta.className);
const nothing = Joi.valid(null).meta({ swagger: { nullable: true, enum: [null] }, swaggerOverride: true });

/** This, or null. */
export const orNull = (schema: Joi.Schema): Joi.Schema =>
  isNamed(schema) || schema.type === 'link' ? Joi.alternatives().try(schema, nothing) : schema.allow(null);
/** As many as there are of one kind. */
export const listOf = (schema: Joi.Schema) => Joi.array().items(schema);
/** By a key of any kind: how many people a place has, and the like. */
export const mapOf = (schema: Joi.Schema) => Joi.object().pattern(Joi.string().allow(''), schema);
/** The same of each of a few words. */
export const byEach = (words: readonly string[], schema: Joi.Schema) =>
  part(Object.fromEntries(words.map((word) => [word, schema])));
/** A shape out of several. */
export const eitherOf = (...schemas: Joi.Schema[]) => Joi.alternatives().try(...schemas);
/** What is told of a part beside its name. */
export const told = (words: string, schema: Joi.Schema) => schema.description(words);

/** Parts that are all there, but for those marked optional. */
export const part = (keys: Record<string, Joi.Schema>) =>
  Joi.object(
    Object.fromEntries(
      Object.entries(keys).map(([key, schema]) => [
        key,
        presenceOf(schema) === 'optional' ? schema : schema.required(),
      ]),
    ),
  );
/** Has a name, by which the API's description and the types made from it call it. */
export const named = <S extends Joi.Schema>(name: string, schema: S): S =>
  schema.meta({ className: name }) as S;
/** Parts that are all there, under a name. */
export const shape = (name: string, keys: Record<string, Joi.Schema>) => named(name, part(keys));
/** A shape that the core computes with: its type is the one of that room of the core. */
export const ofCore = <S extends Joi.Schema>(name: string, room: string, schema: S): S =>
  schema.meta({ className: name, swagger: { 'x-core': room } }) as S;
/** A shape within itself; it has its name as its id. */
export const again = (name: string) =>
  Joi.link(`#${name}`).meta({ swagger: { $ref: `#/components/schemas/${name}` }, swaggerOverride: true });

/** A page of rows, where the next one begins, and how many there are in all. */
export const pageOf = (row: Joi.Schema) => part({ rows: listOf(row), next: orNull(text), total: number });

/** Tells of a default that is empty or nothing, which the description would not say by itself. */
export const usually = (value: '' | 0 | false | null) => ({ swagger: { default: value } });
