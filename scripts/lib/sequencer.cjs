const { default: Sequencer } = require('@jest/test-sequencer');

/**
 * The groups of the server's tests before all else, in the order in which they were dealt: the longest must
 * not begin last.
 */
module.exports = class extends Sequencer {
  sort(tests) {
    const groupOf = ({ path }) => Number(/group-(\d+)\.test\.ts$/.exec(path)?.[1] ?? Infinity);
    return [...super.sort(tests)].sort((a, b) => groupOf(a) - groupOf(b) || 0);
  }
};
