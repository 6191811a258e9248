/** A catalog as the build reads it. */
declare module '*.po' {
  import type { Messages } from '@lingui/core';

  export const messages: Messages;
}
