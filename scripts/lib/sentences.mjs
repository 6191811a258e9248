/**
 * Whether the interface's catalog holds the sentences that stand in its code: no fewer, no more, and under
 * the ids that the build asks for.
 */
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';

const CATALOG = 'apps/web/src/locales/en.po';
const MACROS = [['@lingui/swc-plugin', { useLinguiV5IdGeneration: true }]];

const entriesOf = (catalog) =>
  new Set(catalog.split(/\n(?=\n)/).map((entry) => /^msgid [^]*?(?=^msgstr )/m.exec(entry)?.[0].trim()));

/** The ids of the sentences of a catalog, as they are made from what they say. */
function idsOf(catalog, makeId) {
  const said = [...entriesOf(catalog)]
    .filter(Boolean)
    .map((entry) =>
      [...entry.matchAll(/"((?:[^"\\]|\\.)*)"/g)].map(([quoted]) => JSON.parse(quoted)).join(''),
    );
  return new Set(said.map((message) => makeId(message)));
}

/**
 * What the build would ask for: two programs read the macros, and number the values in a sentence each in its
 * way.
 */
function askedFor(root, catalog) {
  const require = createRequire(join(root, 'apps/web/package.json'));
  const { transformSync } = createRequire(join(root, 'package.json'))('@swc/core');
  const known = idsOf(catalog, require('@lingui/message-utils/generateMessageId').generateMessageId);
  const files = readdirSync(join(root, 'apps/web/src'), { recursive: true }).filter(
    (name) => /\.tsx?$/.test(name) && !/\.test\.|\.d\.ts$/.test(name),
  );
  return files.flatMap((name) => {
    const source = readFileSync(join(root, 'apps/web/src', name), 'utf8');
    if (!source.includes("/macro'")) return [];
    const parser = { syntax: 'typescript', tsx: name.endsWith('x') };
    const { code } = transformSync(source, {
      filename: name,
      jsc: { target: 'es2022', parser, experimental: { plugins: MACROS } },
    });
    const ids = [...code.matchAll(/\bid[:=] ?"([\w+/]{6})"/g)].map(([, id]) => id);
    return ids
      .filter((id) => /[A-Z0-9+/]/.test(id) && !known.has(id))
      .map((id) => `${name}: a sentence (${id}) that the build would not find; name the values in it`);
  });
}

/**
 * Says of each sentence that is missing, left over or not found what to do; the catalog itself stays as it
 * is.
 */
export function newSentences(root) {
  const path = join(root, CATALOG);
  const before = readFileSync(path, 'utf8');
  try {
    execFileSync(join(root, 'node_modules/.bin/lingui'), ['extract', '--clean'], {
      cwd: join(root, 'apps/web'),
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    const now = readFileSync(path, 'utf8');
    const [held, found] = [entriesOf(before), entriesOf(now)];
    const missing = [...found]
      .filter((entry) => !held.has(entry))
      .map((entry) => `${CATALOG} misses ${entry}`);
    const over = [...held]
      .filter((entry) => !found.has(entry))
      .map((entry) => `${CATALOG} holds what nobody says: ${entry}`);
    const all = [...missing, ...over];
    return [
      ...all.slice(0, 20),
      ...(all.length > 0 ? ['Write the catalog anew with `npm run sentences`.'] : []),
      ...askedFor(root, now),
    ];
  } finally {
    writeFileSync(path, before);
  }
}
