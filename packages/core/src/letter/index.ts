export {
  imageIdOf,
  isSafeLink,
  letterFault,
  type Block,
  type Inline,
  type LetterDoc,
  type ListItem,
  type InlineMark,
} from './doc';
export { blanksIn } from './blanks';
export { letterOfText } from './plain';
export { hrefsIn, NO_WORDS, readableLines, letterTexts, type WrittenWords } from './written';
export { onTelephone } from './telephone';
export { letterDoubts, picturesOf, type LetterWeight } from './doubts';
export {
  compileLetter,
  escapeHtml,
  wrapLetter,
  type CompiledLetter,
  type Footer,
  type LetterSurroundings,
} from './compile';
