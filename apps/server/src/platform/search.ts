/** Words as they stand in a LIKE, where `%` and `_` mean something else. */
export const likeEscape = (text: string): string => text.replace(/[\\%_]/g, '\\$&');

/** A LIKE for whatever has the words within it. */
export const likeWords = (text: string): string => `%${likeEscape(text)}%`;
