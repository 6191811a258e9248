/**
 * Writes the types of the contract from the API's description, and that from the schemas: `npm run contract`.
 * With --check it only says whether they are what the schemas make.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import openapiTS, { astToString } from 'openapi-typescript';
import { format, resolveConfig } from 'prettier';
import ts from 'typescript';
import { loadTypeScript } from './lib/load-typescript.mjs';
import { ROOT } from './lib/prepare.mjs';

const FILE = join(ROOT, 'packages/core/src/contract/generated.ts');

/** A shape that the core computes with has the core's own type. */
const ofCore = (schema, { path }) =>
  schema['x-core'] &&
  ts.factory.createImportTypeNode(
    ts.factory.createLiteralTypeNode(ts.factory.createStringLiteral(`../${schema['x-core']}`)),
    undefined,
    ts.factory.createIdentifier(path.split('/').at(-1)),
  );

/** The file of types as the schemas of now make it. */
export async function contractTypes() {
  const { description } = loadTypeScript(join(ROOT, 'apps/server/src/description.ts'));
  const document = await description();
  const made = await openapiTS(JSON.parse(JSON.stringify(document)), {
    transform: ofCore,
    rootTypes: true,
    rootTypesNoSchemaPrefix: true,
  });
  // What a path has not is left out, as is what every answer has: it would be four lines of five.
  const lean = astToString(made)
    .replace(/^ +\w+\?: never;\n/gm, '')
    .replace(/^ +headers: \{\n +\[name: string\]: unknown;\n +\};\n/gm, '')
    .replace(/^ +parameters: \{\n +\};\n/gm, '')
    .replace(/^ +default: \{\n +content: \{\n[^}]*\};\n +\};\n/gm, '')
    .replace(/^ +\/\*\* (Format: \w+|@enum \{.*\}) \*\/\n/gm, '')
    .replace(/^ +\/\*\* @description (Done|Problem details[^*]*)\*\/\n/gm, '');
  const words = '/* Made from the schemas beside it by `npm run contract`; changes belong there. */\n\n';
  return format(words + lean, { ...(await resolveConfig(FILE)), parser: 'typescript' });
}

const now = await contractTypes();
if (!process.argv.includes('--check')) writeFileSync(FILE, now);
else if (readFileSync(FILE, 'utf8') !== now) {
  console.error('The types of the contract are not what its schemas make; run "npm run contract".');
  process.exit(1);
}
process.exit(0);
