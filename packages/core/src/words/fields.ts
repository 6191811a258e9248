import { FIELD_TYPES } from '../fields';
import { STANDARD_FIELDS } from '../segment';
import { each } from './speak';

/** What kinds of fields are called. */
export const FIELD_TYPE_WORDS = each('field-type', FIELD_TYPES);
/** The fields that everybody has, as they are named in sentences. */
export const STANDARD_FIELD_WORDS = each('standard-field', STANDARD_FIELDS);
