export { readAnswer, type AnswerFault, type FormAnswer } from './answer';
export {
  askName,
  FORM_PARTS,
  formFaults,
  inputName,
  LANGUAGES,
  type FormAsk,
  type FormDefinition,
  type FormFault,
  type FormItem,
  type FormPart,
  type Language,
} from './definition';
export { numberCountry, partName, POSTAL_INPUTS, postedAddress, postedText, type Posted } from './posted';
