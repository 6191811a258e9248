import { SUPPRESSION_REASONS } from '../../permission';
import { LETTER_FORMS } from '../../print';
import { LETTER_FILES } from '../letters';
import { flag, listOf, number, oneOf, orNull, part, shape, text, told } from '../kinds';

/** Letters that wait to be posted: the files to print, and whose letter has to be taken out again. */
export const lettersShown = shape('LettersView', {
  form: oneOf(LETTER_FORMS),
  made: told('Whether the files are there and are those of the latest asking.', flag),
  done: told('Letters that are laid out.', number),
  total: told('Letters that there will be.', number),
  problem: told('Why they could not be laid out.', orNull(text)),
  files: listOf(
    part({ id: number, kind: oneOf(LETTER_FILES), name: text, letters: number, from: number, to: number }),
  ),
  refused: told(
    'Letters whose person may not be written to any more since they were laid out.',
    listOf(part({ number, supporterId: number, name: text, reason: oneOf(SUPPRESSION_REASONS) })),
  ),
  postedOn: told('The day on which they were posted, as YYYY-MM-DD.', orNull(text)),
});
