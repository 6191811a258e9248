'use strict';
Object.defineProperty(exports, '__esModule', { value: true });
exports.chance = chance;
const node_crypto_1 = require('node:crypto');
/** A number from 0 to 1 that is the same for the same seed and words: chance that can be repeated. */
function chance(seed, ...words) {
  return (
    (0, node_crypto_1.createHash)('sha256')
      .update([seed, ...words].join('\n'))
      .digest()
      .readUInt32BE(0) /
    2 ** 32
  );
}
//# sourceMappingURL=chance.js.map
