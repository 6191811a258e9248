'use strict';
Object.defineProperty(exports, '__esModule', { value: true });
//# sourceMappingURL=text.js.map
