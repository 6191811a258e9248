/** Milliseconds after which nobody waits any longer for the page to have drawn. */
const PATIENCE = 1500;
/** Milliseconds that are left of a frame in which there is nothing to do. */
const CALM = 5;
const CALM_FRAMES = 3;

/**
 * Resolves when the page has drawn what it was just told and has nothing to do for some frames, or after 1.5
 * s all the same. What is heavy and can wait begins after it, since it would take the processor from the
 * drawing.
 */
export async function afterRest(patience = PATIENCE): Promise<void> {
  const until = performance.now() + patience;
  for (let calm = 0; calm < CALM_FRAMES;) {
    const left = until - performance.now();
    if (left <= 0) return;
    calm = (await idle(left)) >= CALM ? calm + 1 : 0;
  }
}

/** Milliseconds that the page has nothing to do for, asked when it next has nothing to do. */
function idle(patience: number): Promise<number> {
  return new Promise((done) => {
    // Not every browser tells when it has nothing to do.
    if (typeof requestIdleCallback === 'undefined') setTimeout(() => done(CALM), 50);
    else
      requestIdleCallback((deadline) => requestAnimationFrame(() => done(deadline.timeRemaining())), {
        timeout: patience,
      });
  });
}
