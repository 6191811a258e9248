/** The interface speaks English in its tests, with the sentences as they stand in the code. */
const { createRequire } = require('node:module');
const { join } = require('node:path');

const { i18n } = createRequire(join(__dirname, '../../apps/web/package.json'))('@lingui/core');
i18n.loadAndActivate({ locale: 'en', messages: {} });
