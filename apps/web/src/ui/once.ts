import type { MouseEvent } from 'react';

/** Of a double click the second hits what has moved there meanwhile. */
export const onceOf = (act: () => void) => (event: MouseEvent) => event.detail < 2 && act();
