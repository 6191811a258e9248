/**
 * Draws docs/architecture.svg from the code: rooms as boxes, an arrow for each room that uses another. `npm
 * run picture`.
 */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Graphviz } from '@hpcc-js/wasm-graphviz';
import { ensurePackages, ROOT, say } from './lib/prepare.mjs';

ensurePackages();
const LAYERS = { web: 'apps/web/src', server: 'apps/server/src', core: 'packages/core/src' };
/** Rooms that nearly all others use: their arrows would hide all else. */
const EVERYWHERE = new Set([
  'web/ui',
  'web/app',
  'server/platform',
  'server/testing',
  'core/common',
  'core/contract',
  'core/words',
]);

const cruised = JSON.parse(
  execFileSync(
    join(ROOT, 'node_modules/.bin/depcruise'),
    [
      'packages',
      'apps',
      '--config',
      '.dependency-cruiser.cjs',
      '--output-type',
      'json',
      '--exclude',
      '(^|/)dist/|\\.test\\.tsx?$|/testing/',
    ],
    { cwd: ROOT, maxBuffer: 1 << 28 },
  ),
);

/** "server/intake" of apps/server/src/intake/checking/stager.ts; null of files beside the rooms. */
function roomOf(path) {
  for (const [layer, at] of Object.entries(LAYERS)) {
    if (!path.startsWith(`${at}/`)) continue;
    const [room, file] = path.slice(at.length + 1).split('/');
    return file ? `${layer}/${room}` : null;
  }
  return null;
}

const files = new Map();
const arrows = new Map();
for (const { source, dependencies } of cruised.modules) {
  const from = roomOf(source);
  if (!from) continue;
  files.set(from, (files.get(from) ?? 0) + 1);
  for (const { resolved } of dependencies) {
    const to = roomOf(resolved);
    // Between the layers there is one arrow each, and rooms of one name are of one subject.
    const within = to?.split('/')[0] === from.split('/')[0];
    if (within && to !== from && !EVERYWHERE.has(to) && !EVERYWHERE.has(from))
      arrows.set(`${from}\n${to}`, [from, to]);
  }
}

/** An arrow is left out where the same is reached by way of others. */
function plain(all) {
  const next = all.reduce((map, one) => map.set(one[0], [...(map.get(one[0]) ?? []), one]), new Map());
  const reaches = (from, to, skip, seen = new Set()) =>
    (next.get(from) ?? []).some(([a, b]) => {
      if (`${a}\n${b}` === skip || seen.has(b)) return false;
      seen.add(b);
      return b === to || reaches(b, to, skip, seen);
    });
  return all.filter(([from, to]) => !reaches(from, to, `${from}\n${to}`));
}

const box = (room) =>
  `"${room}" [label="${room.split('/')[1]}\\n${files.get(room)}"${EVERYWHERE.has(room) ? ' style="filled,dashed"' : ''}]`;
const clusters = Object.keys(LAYERS).map((layer) => {
  const rooms = [...files.keys()].filter((room) => room.startsWith(`${layer}/`)).sort();
  return `subgraph "cluster_${layer}" { label="${layer}"; ${rooms.map(box).join('; ')} }`;
});
const dot = `digraph rooms {
  graph [compound=true, rankdir=TB, fontname="sans-serif", fontsize=16, color="#8b989d", nodesep=0.18, ranksep=0.5]
  node [shape=box, style=filled, fillcolor="#f6f4ee", color="#8b989d", fontname="sans-serif", fontsize=11, margin="0.08,0.04"]
  edge [color="#5b6a70", arrowsize=0.5, penwidth=0.7]
  ${clusters.join('\n  ')}
  "web/app" -> "core/contract" [ltail=cluster_web, lhead=cluster_core, minlen=4, penwidth=2]
  "server/platform" -> "core/contract" [ltail=cluster_server, lhead=cluster_core, minlen=3, penwidth=2]
  ${plain([...arrows.values()].sort())
    .map(([from, to]) => `"${from}" -> "${to}"`)
    .join('\n  ')}
}`;
const graphviz = await Graphviz.load();
writeFileSync(join(ROOT, 'docs/architecture.svg'), graphviz.layout(dot, 'svg', 'dot'));
say(`${files.size} rooms, ${arrows.size} arrows: docs/architecture.svg`);
