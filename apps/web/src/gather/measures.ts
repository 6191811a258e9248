/** Rows that are shown under the columns. */
export const PREVIEW = 2000;
/** Bytes of the first look at a long file, for a preview at once. */
export const FIRST_BYTES = 1 << 20;
/** Bytes from which a file is long: it is looked at before it is read. */
export const LONG = 2 * FIRST_BYTES;
