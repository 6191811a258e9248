import { LABEL_KINDS } from '../print';
import { each } from './speak';

/** Sheets of labels, as shops name them. */
export const LABEL_WORDS = each('label', LABEL_KINDS);
