export {
  ALIGNMENTS,
  imageIdOf,
  isSafeLink,
  LETTER_VERSION,
  SIDES,
  type Alignment,
  type Block,
  type ColumnBlock,
  type Inline,
  type InlineMark,
  type LetterDoc,
  type ListItem,
  type OwnHtml,
  type PassageBlock,
  type PersonalBlock,
  type LetterPicture,
  type Side,
} from './doc';
export {
  ASK_BASES,
  askAmounts,
  friendlyAmount,
  namedAmounts,
  USUAL_ASK,
  type AskBase,
  type AskRule,
  type CountedGift,
} from './ask';
export { blanksIn } from './blanks';
export { compileLetter, screenStyle, wrapLetter, type CompiledLetter, type LetterFrame } from './compile';
export { letterDoubts, picturesOf, type LetterWeight } from './doubts';
export { letterFault } from './fault';
export { asksForAmounts } from './asks';
export { ASK_NAMES, askKey, giftAddress } from './gifts';
export { type LetterSurroundings, type ServedPicture } from './html';
export { directionOf, escapeHtml, escapeLines } from './markup';
export { currentLetter } from './migrate';
export { letterOfText } from './plain';
export {
  contrast,
  FACES,
  isColour,
  LEAST_CONTRAST,
  LETTER_WIDTHS,
  luminance,
  onColour,
  PAPER,
  USUAL_STYLE,
  type Face,
  type HouseStyle,
} from './style';
export { onTelephone } from './telephone';
export { isOwnWayOut, MOST_OWN_HTML, ownBlocks } from './own';
export { blocksOf, distinctRules, letterRules, readBlocks } from './walk';
export { giftFacts, type GiftFacts, type GiftSum } from './gift-facts';
export {
  hrefsIn,
  letterParagraphs,
  letterTexts,
  NO_WORDS,
  readableLines,
  type KeptWords,
  type WrittenWords,
} from './written';
