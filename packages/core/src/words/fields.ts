import { FIELD_TYPES } from '../fields';
import { each } from './speak';

export const FIELD_TYPE_WORDS = each('field-type', FIELD_TYPES);
