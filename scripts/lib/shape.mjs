/**
 * What the code looks like from outside: names that stand for two things, files that the docs name and nobody
 * has, and the sizes of functions and files. The first two are faults; the figures are printed.
 */
import { readFileSync, readdirSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';

const LAYERS = [
  ['core', 'packages/core/src/'],
  ['server', 'apps/server/src/'],
  ['web', 'apps/web/src/'],
  ['stand-ins', 'apps/standins/src/'],
  ['demo', 'demo/src/'],
  ['bench', 'bench/src/'],
];
const WIDEST = 110;

function* filesIn(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (['node_modules', 'dist', 'screenshots'].includes(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesIn(path);
    else yield path;
  }
}

const isTest = (name) => /\.test\.tsx?$|\/testing(\/|\.)/.test(name);

/**
 * @param {string} root the repository. @returns {{ faults: string[]; figures: string[] }} sentences for `npm
 * run check`
 */
export function shapeOf(root) {
  const all = ['packages', 'apps', 'demo', 'bench', 'scripts', 'e2e', 'docs'].flatMap((part) => [
    ...filesIn(join(root, part)),
  ]);
  const names = all.map((path) => relative(root, path));
  const sources = names.filter(
    (name) =>
      /\.tsx?$/.test(name) && !/\bgenerated\.ts$/.test(name) && LAYERS.some(([, at]) => name.startsWith(at)),
  );
  const read = sources.map((name) => ({ name, ...look(name, readFileSync(join(root, name), 'utf8')) }));
  const twice = saidTwice(read);
  const faults = [
    ...twice,
    ...unknownFiles(root, names),
    ...unknownFunctions(root, read),
    ...untold(read),
    ...read.flatMap(({ name, tooWide }) => tooWide.map((line) => `${name}:${line} is over ${WIDEST} wide`)),
  ];
  return {
    faults,
    figures: [
      ...LAYERS.map((layer) => figuresOf(layer, read)),
      `names that stand for two things: ${twice.length}`,
    ],
  };
}

/** What a file exports, how long its functions are, and how wide it is. */
function look(name, text) {
  const file = ts.createSourceFile(
    name,
    text,
    ts.ScriptTarget.Latest,
    true,
    name.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const [exported, functions, called] = [[], [], []];
  const lineOf = (at) => file.getLineAndCharacterOfPosition(at).line;
  const visit = (node) => {
    if ((ts.isFunctionLike(node) || ts.isClassStaticBlockDeclaration(node)) && node.body)
      functions.push(lineOf(node.end) - lineOf(node.getStart()) + 1);
    if (ts.isFunctionDeclaration(node) && node.name) called.push(node.name.text);
    if (ts.isMethodDeclaration(node) && ts.isClassDeclaration(node.parent))
      called.push(`${node.parent.name?.text}.${node.name.getText()}`);
    ts.forEachChild(node, visit);
  };
  visit(file);
  for (const statement of file.statements) {
    if (!statement.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword)) continue;
    // Of a list of words the type of its members says nothing more.
    const ofList =
      ts.isTypeAliasDeclaration(statement) &&
      /^(\(typeof \w+\)\[number\]|keyof typeof \w+)$/.test(statement.type.getText());
    const told = ofList || ts.getJSDocCommentsAndTags(statement).length > 0;
    const declared = ts.isVariableStatement(statement) ? statement.declarationList.declarations : [statement];
    for (const one of declared)
      if (one.name && ts.isIdentifier(one.name)) exported.push({ name: one.name.text, told });
  }
  const lines = text.split('\n');
  // What stands within quotes, a pattern or between tags is as long as it is.
  const quoted = new Set();
  const mark = (node) => {
    const literal = ts.isStringLiteralLike(node) || ts.isTemplateExpression(node) || ts.isJsxText(node);
    if (literal || ts.isRegularExpressionLiteral(node) || ts.isJsxAttribute(node))
      for (let line = lineOf(node.getStart()); line <= lineOf(node.end); line++) quoted.add(line);
    ts.forEachChild(node, mark);
  };
  mark(file);
  // A statement can be broken anywhere; what a migration does stays what it was.
  const isOurSql = name.includes('server/') && !name.includes('/migrations/');
  const isStatement = (line) =>
    /\b(SELECT|INSERT INTO|UPDATE|DELETE|JOIN|WHERE|GROUP BY|ORDER BY)\b.*[:.=(]/.test(line);
  const tooWide = lines.flatMap((line, i) =>
    line.length > WIDEST && (!quoted.has(i) || (isOurSql && isStatement(line))) && !/^\s*\/\/ @ts/.test(line)
      ? [i + 1]
      : [],
  );
  return {
    exported,
    functions,
    called,
    tooWide,
    lines: lines.length - 1,
    widest: Math.max(...lines.map((line) => line.length)),
    wide: lines.filter((line) => line.length > WIDEST).length,
  };
}

function saidTwice(read) {
  const at = new Map();
  // Each migration is an up and a down; a test may call its own what it likes.
  for (const { name, exported } of read.filter(({ name }) => !isTest(name) && !name.includes('/migrations/')))
    for (const one of exported) at.set(one.name, (at.get(one.name) ?? new Set()).add(name));
  return [...at]
    .filter(([, files]) => files.size > 1)
    .map(([name, files]) => `${name} is exported by ${[...files].join(' and ')}: one name for one thing`);
}

/** Files that docs and comments name, which must be somewhere. */
function unknownFiles(root, names) {
  const known = new Set(
    names.flatMap((name) => name.split('/').map((_part, i, parts) => parts.slice(i).join('/'))),
  );
  const shown = (name) => name.replace(/^(core|server|web)\//, '');
  return names
    .filter((name) => /^docs\/.*\.md$/.test(name))
    .flatMap((name) =>
      [...readFileSync(join(root, name), 'utf8').matchAll(/`([\w@./-]+\.(?:tsx?|mjs|cjs))`/g)]
        .map(([, file]) => file)
        .filter((file) => !known.has(file) && !known.has(shown(file)))
        .map((file) => `${name} names ${file}, which is not there`),
    );
}

/** What the core gives to others says what it is. */
function untold(read) {
  const core = read.filter(({ name }) => name.startsWith('packages/core/src/') && !isTest(name));
  return core.flatMap(({ name, exported }) =>
    exported
      .filter(({ told }) => !told)
      .map((one) => `${name} exports ${one.name} without saying what it is`),
  );
}

/** Functions, `written()` so, on the page that leads through the code. */
function unknownFunctions(root, read) {
  // A method may be named alone.
  const known = new Set(
    read.flatMap(({ called }) => called.flatMap((name) => [name, name.split('.').at(-1)])),
  );
  const page = 'docs/architecture.md';
  return [...readFileSync(join(root, page), 'utf8').matchAll(/`([\w.]+)\(\)`/g)]
    .map(([, name]) => name)
    .filter((name) => !known.has(name))
    .map((name) => `${page} names ${name}(), which is not there`);
}

function figuresOf([layer, at], read) {
  const files = read.filter(
    ({ name }) => name.startsWith(at) && !isTest(name) && !name.includes('/migrations/'),
  );
  const functions = files.flatMap((file) => file.functions).sort((a, b) => a - b);
  const lines = files.map((file) => file.lines).sort((a, b) => a - b);
  const exported = files.flatMap((file) => file.exported);
  const nth = (sorted, share) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
  const told =
    exported.length === 0
      ? 100
      : Math.round((exported.filter((one) => one.told).length / exported.length) * 100);
  const wide = files.reduce((sum, file) => sum + file.wide, 0);
  return [
    `${layer}: ${files.length} files (median ${nth(lines, 0.5)} lines, longest ${lines.at(-1) ?? 0})`,
    `functions median ${nth(functions, 0.5)}, 90th ${nth(functions, 0.9)}, longest ${functions.at(-1) ?? 0}`,
    `${told} % of exported names told`,
    `${wide} lines over ${WIDEST}, widest ${Math.max(0, ...files.map((file) => file.widest))}`,
  ].join('; ');
}
