import { t } from '@lingui/core/macro';
import type { Channel } from '@goodword/core/permission';

/** What words of each channel are. */
export const KIND_OF_WORDS: Record<Channel, string> = {
  email: t`Email`,
  text: t`Text`,
  post: t`Letter`,
  call: t`Call script`,
};

/** One of them, within a sentence. */
export const ONE_OF_WORDS: Record<Channel, string> = {
  email: t`an email`,
  text: t`a text`,
  post: t`a letter`,
  call: t`a call script`,
};

/** What a step on it does, in the sentence of a plan: “text *Two planks left* to everybody”. */
export const ACT_WORDS: Record<Channel, string> = {
  email: t`email`,
  text: t`text`,
  post: t`post the letter`,
  call: t`say by phone`,
};
