import { speaker } from '@goodword/core/words';
import en from './en.json';

/** What the server says to people: its refusals, each a sentence of its catalog. */
export const { say: sentence } = speaker<keyof typeof en>(en);
