import type { Text } from './text';
/** The phones that were texted last, each with its conversation and a line to answer on. */
export declare function phonesPage(texts: readonly Text[], wanted: string): string;
