// One project at a time, as mutation testing wants it (scripts/mutate.mjs): the tests of a folder of the
// core, or those of the server that are about the room in question.
const { projects } = require('./jest.config.cjs');
const named = (name) => {
  const one = projects.find(({ displayName }) => displayName === name);
  return {
    ...one,
    setupFilesAfterEnv: [...one.setupFilesAfterEnv, '<rootDir>/scripts/lib/no-shrinking.cjs'],
  };
};
const { MUTATE: folder = 'permission' } = process.env;
const server = ['permission', 'sending', 'evidence'].map(
  (room) => `<rootDir>/apps/server/src/${room}/**/*.test.ts`,
);
module.exports = folder.startsWith('server/')
  ? {
      ...named('server'),
      testMatch: [...server, '<rootDir>/apps/server/src/{promise,loop,choices,join}.test.ts'],
    }
  : { ...named('core'), testMatch: [`<rootDir>/packages/core/src/${folder}/**/*.test.ts`] };
