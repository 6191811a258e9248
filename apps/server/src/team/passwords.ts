import { hash, verify } from '@node-rs/argon2';
import { zxcvbn, zxcvbnOptions } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { dictionary as english, translations } from '@zxcvbn-ts/language-en';
import { Invalid } from '../platform/errors';

/**
 * argon2id with the first recommended parameters of RFC 9106 §4 scaled to memory at hand: 64 MiB, 3 passes, 1
 * lane.
 */
export function hashPassword(password: string): Promise<string> {
  return hash(password, { memoryCost: 65_536, timeCost: 3, parallelism: 1 });
}

/** Compared against where there is no such teammate or no password yet, so that the answer takes as long. */
const decoy = hashPassword('nobody has this password');

export async function isPassword(known: string | null | undefined, typed: string): Promise<boolean> {
  const right = await verify(known ?? (await decoy), typed).catch(() => false);
  return right && typeof known === 'string';
}

/**
 * NIST SP 800-63B-4 §3.1.1.2 asks for 15 where a password stands alone; a shorter one may pass here where it
 * is hard to guess.
 */
const SHORTEST = 10;
/** zxcvbn's scale of 0 to 4; 3 is more than 10^8 guesses. */
const LEAST_SCORE = 3;
/** Of a password without what is known of the person, at least so much must be left. */
const LEAST_OWN = 8;

// Bounded in length and in the spellings that are tried: without, forty characters of digits and signs take
// seconds.
zxcvbnOptions.setOptions({
  dictionary: { ...dictionary, ...english },
  translations,
  graphs: adjacencyGraphs,
  l33tMaxSubstitutions: 5,
  maxLength: 64,
});

/**
 * Refuses a password that is too easy: short, among the common ones, or made of what is known of the person.
 * `about` are words that somebody who guesses would try first.
 */
export function refuseEasy(password: string, about: readonly string[]): void {
  const say = (message: string) => {
    throw new Invalid([{ field: 'password', code: 'easy', message }]);
  };
  if ([...password].length < SHORTEST)
    say(`Use at least ${SHORTEST} characters. Four words that have nothing to do with each other do well.`);
  const words = [
    'good',
    'word',
    ...about.flatMap((one) => one.toLowerCase().split(/[^\p{L}\p{N}]+/u)),
  ].filter((one) => one.length > 2);
  const own = words.reduce((left, word) => left.replaceAll(word, ''), password.toLowerCase());
  if (own.replace(/[^\p{L}\p{N}]/gu, '').length < LEAST_OWN && own.length < password.length)
    say(
      'That is made of names that are known here. Four words that have nothing to do with each other do well.',
    );
  const { score, feedback } = zxcvbn(password, words);
  if (score >= LEAST_SCORE) return;
  const why = feedback.warning ? `${feedback.warning.replace(/\.$/, '')}. ` : '';
  say(`That is guessed quickly. ${why}Four words that have nothing to do with each other do well.`);
}
