/** Runs a module of the core or the server from its source, with no build before it. */
import { readFileSync } from 'node:fs';
import Module, { createRequire } from 'node:module';
import { join } from 'node:path';
import { transformSync } from '@swc/core';
import { ROOT } from './prepare.mjs';

const options = {
  jsc: {
    target: 'es2022',
    parser: { syntax: 'typescript', decorators: true },
    transform: { legacyDecorator: true, decoratorMetadata: true },
  },
  module: { type: 'commonjs' },
};

export function loadTypeScript(path) {
  const require = createRequire(import.meta.url);
  const resolve = Module._resolveFilename;
  Module._resolveFilename = (name, ...rest) => {
    const room = /^@goodword\/core\/(.+)$/.exec(name)?.[1];
    return resolve(room ? join(ROOT, 'packages/core/src', room, 'index.ts') : name, ...rest);
  };
  Module._extensions['.ts'] = (module, filename) =>
    module._compile(transformSync(readFileSync(filename, 'utf8'), { ...options, filename }).code, filename);
  return require(path);
}
