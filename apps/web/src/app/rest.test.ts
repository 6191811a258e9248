import { afterRest } from './rest';

interface Frames {
  /**
   * Milliseconds that are left of each frame in which the page is next asked; the last stands for all after
   * it.
   */
  left: number[];
  asked: number;
}

function frames(left: number[]): Frames {
  const made: Frames = { left, asked: 0 };
  Object.assign(globalThis, {
    requestAnimationFrame: (then: () => void) => setTimeout(then),
    requestIdleCallback: (then: (deadline: { timeRemaining: () => number }) => void) => {
      const now = made.left[Math.min(made.asked++, made.left.length - 1)]!;
      setTimeout(() => then({ timeRemaining: () => now }));
    },
  });
  return made;
}
afterEach(() => Object.assign(globalThis, { requestIdleCallback: undefined }));

describe('the page is at rest', () => {
  test('after three frames in a row with time left in them', async () => {
    const made = frames([12, 12, 0, 12]);
    await afterRest();
    expect(made.asked).toBe(6);
  });

  test('or when nobody wants to wait any longer, however much there is to draw', async () => {
    const made = frames([0]);
    const before = performance.now();
    await afterRest(120);
    expect(performance.now() - before).toBeGreaterThanOrEqual(115);
    expect(made.asked).toBeGreaterThan(3);
  });

  test('in a browser that does not tell, after a while', async () => {
    const before = performance.now();
    await afterRest();
    expect(performance.now() - before).toBeGreaterThanOrEqual(140);
  });
});
