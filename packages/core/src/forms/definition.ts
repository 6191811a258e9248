import { said, type Said } from '../common';
import { isListScope, type Channel, type Scope } from '../permission';
import { textAskFaults } from '../text';

/** Languages that supporters' pages speak (ISO 639-1). */
export const LANGUAGES = ['en', 'es', 'fr', 'de'] as const;
export type Language = (typeof LANGUAGES)[number];

/** What a form may ask of the person beside custom fields (by their id). */
export const FORM_PARTS = ['firstName', 'lastName', 'email', 'mobile', 'country', 'post'] as const;
export type FormPart = (typeof FORM_PARTS)[number];

/**
 * One thing a form knows of a person: asked of them, hidden (taken from the address of the page, such as
 * where a poster hung), or constant (always the same, never taken from the browser).
 */
export interface FormItem {
  of: FormPart | number;
  label: string;
  help: string;
  required: boolean;
  show: 'asked' | 'hidden' | 'constant';
  /** The constant, or what a hidden item is when the address says nothing. */
  value: string;
}

/** One permission asked: its own box, never ticked beforehand, with its own words, which are the evidence. */
export interface FormAsk {
  channel: Channel;
  scope: Scope;
  words: string;
}

/** A sign-up form. Each saved version is kept, so that it can be shown what somebody saw. */
export interface FormDefinition {
  language: Language;
  title: string;
  intro: string;
  items: FormItem[];
  asks: FormAsk[];
  button: string;
  thanks: { words: string; redirect: string | null };
  /**
   * "always" asks to confirm by email wherever they are; "rule" leaves it to the house rules of the place.
   */
  confirm: { email: 'rule' | 'always'; subject: string; words: string };
  tagIds: number[];
  listIds: number[];
  /** The chapter that new people join. */
  chapterId: number;
  /** Origins of pages that may frame the form, such as `https://www.example.org`. */
  embedOn: string[];
  /** The word that joins by text; the form's text asks are what it agrees to. */
  keyword: string | null;
}

/** What keeps a form from being saved or opened, and at which of its parts. */
export interface FormFault {
  field: string;
  said: Said;
}

/** What keeps a form from being opened. */
export function formFaults(
  form: FormDefinition,
  known: {
    organization: string;
    fields: ReadonlySet<number>;
    openLists: ReadonlySet<number>;
    /** Fields that have to be answered wherever they are asked, and those that a form can't ask for. */
    required?: ReadonlySet<number>;
    unaskable?: ReadonlySet<number>;
  },
): FormFault[] {
  const faults: FormFault[] = [];
  const fault = (field: string, why: Said) => faults.push({ field, said: why });
  const parts = new Set(form.items.map((item) => item.of));
  if (parts.size < form.items.length) fault('items', said('form.twice'));
  if (!parts.has('email') && !parts.has('mobile')) fault('items', said('form.no-address'));
  form.items.forEach((item, i) => {
    if (typeof item.of === 'number' && !known.fields.has(item.of))
      fault(`items.${i}`, said('form.field-gone', { label: item.label }));
    if (typeof item.of === 'number' && known.unaskable?.has(item.of))
      fault(`items.${i}`, said('form.file', { label: item.label }));
    if (
      typeof item.of === 'number' &&
      known.required?.has(item.of) &&
      item.show === 'asked' &&
      !item.required
    )
      fault(`items.${i}`, said('form.must', { label: item.label }));
    if (item.show === 'asked' && item.label.trim() === '') fault(`items.${i}`, said('form.label'));
    if (item.show !== 'asked' && item.required)
      fault(`items.${i}`, said('form.not-asked', { label: item.label }));
    if (item.show !== 'asked' && (item.of === 'email' || item.of === 'mobile' || item.of === 'post'))
      fault(`items.${i}`, said('form.address-asked'));
    if (item.show === 'constant' && item.value === '')
      fault(`items.${i}`, said('form.constant', { label: item.label }));
  });
  if (form.asks.length === 0) fault('asks', said('form.no-permission'));
  form.asks.forEach((ask, i) => askFaults(form, ask, known).forEach((why) => fault(`asks.${i}`, why)));
  if (form.keyword !== null && !form.asks.some((ask) => ask.channel === 'text'))
    fault('keyword', said('form.keyword'));
  return faults;
}

function askFaults(form: FormDefinition, ask: FormAsk, known: Parameters<typeof formFaults>[1]): Said[] {
  const faults: Said[] = [];
  const asks = (part: FormPart) => form.items.some((item) => item.of === part);
  if (ask.words.trim().length < 10) faults.push(said('ask.words'));
  if (ask.channel === 'email' && !asks('email')) faults.push(said('ask.email'));
  if ((ask.channel === 'text' || ask.channel === 'call') && !asks('mobile')) faults.push(said('ask.phone'));
  if (ask.channel === 'post') faults.push(said('ask.post'));
  if (isListScope(ask.scope) && !known.openLists.has(Number(ask.scope.slice(5))))
    faults.push(said('ask.list'));
  if (ask.channel === 'text')
    faults.push(
      ...textAskFaults(ask.words, known.organization).map((missing) => said('ask.text', { missing })),
    );
  return faults;
}

/** Name of the input of an item or an ask, as it is posted. */
export function inputName(item: FormItem): string {
  return typeof item.of === 'number' ? `field_${item.of}` : item.of;
}

/** The name of the box that stands for a permission of a form, in its HTML. */
export function askName(at: number): string {
  return `agree_${at}`;
}
