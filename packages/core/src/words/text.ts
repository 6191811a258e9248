import { say } from './speak';

/** Words for a box that say all that the words beside a box for texts must. */
export const standardTextAsk = (organization: string, perMonth: number): string =>
  say('ask.standard', { organization, perMonth });
