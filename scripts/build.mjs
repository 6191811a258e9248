import { build } from './lib/build.mjs';
import { ensurePackages, say, stop } from './lib/prepare.mjs';

ensurePackages();
await build().catch((error) => stop(error.message));
say('Built.');
