/** What a page has and jsdom has not. */
const { Blob, File } = require('node:buffer');
const { TextDecoder, TextEncoder } = require('node:util');
const { configure } = require('@testing-library/react');

// Files as Node has them: those of jsdom can't be read.
Object.assign(globalThis, { Blob, File, TextDecoder, TextEncoder, IS_REACT_ACT_ENVIRONMENT: true });
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
Element.prototype.scrollIntoView ??= () => {};
Element.prototype.hasPointerCapture ??= () => false;
Element.prototype.setPointerCapture ??= () => {};
Element.prototype.releasePointerCapture ??= () => {};
// Nothing is laid out here: whatever is measured is as large as a page.
Object.defineProperty(Element.prototype, 'clientHeight', { configurable: true, get: () => 600 });
Object.defineProperty(Element.prototype, 'clientWidth', { configurable: true, get: () => 960 });
// A test says what must come, not within which second: the machine may have other things to do.
configure({ asyncUtilTimeout: 30_000 });
// What one test left half typed is not there in the next.
beforeEach(() => localStorage.clear());
