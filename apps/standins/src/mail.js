'use strict';
Object.defineProperty(exports, '__esModule', { value: true });
//# sourceMappingURL=mail.js.map
