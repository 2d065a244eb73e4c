// Draws who imports whom: no circle between the folders of a room, and in the server nothing of a storey above.
// `npm run roads` says it; `npm run roads -- --all` every way between two folders as well.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { ROOT } from './install.mjs';

const ROOMS = ['contract', 'core', 'server', 'standins', 'web'];
/** Storeys of the server from the ground up: its folders. What stands beside them is a program or puts the parts together. */
const STOREYS = ['ground', 'formats', 'ports', 'engine', 'nouns', 'steps', 'api'];
/** The noun of a file: its folder, in the server the folder within its storey. */
const nounOf = (room, path) => {
  const parts = path.split('/');
  return parts.slice(0, room === 'server' && parts.length > 2 && STOREYS.includes(parts[0]) ? 2 : 1).join('/');
};

/** From 'folder > folder' to the files that make the way. */
function waysOf(room) {
  const from = join(ROOT, room, 'src');
  const folderOf = (path) => nounOf(room, relative(from, path));
  const ways = new Map();
  for (const name of readdirSync(from, { recursive: true, encoding: 'utf8' })) {
    if (!/\.tsx?$/.test(name) || /\.test\.tsx?$/.test(name)) continue;
    const path = join(from, name);
    const text = readFileSync(path, 'utf8');
    for (const [, plain, later] of text.matchAll(/(?:^|\s)from\s+'(\.[^']+)'|import\('(\.[^']+)'\)/g)) {
      const to = join(dirname(path), plain ?? later);
      const [a, b] = [folderOf(path), folderOf(to)];
      if (a === b || b === '..') continue;
      const way = `${a} > ${b}`;
      ways.set(way, [...(ways.get(way) ?? []), `${name} → ${relative(from, to)}`]);
    }
  }
  return ways;
}

/** Folders that reach each other, however far round (Tarjan 1972, strongly connected components). */
function circlesOf(ways) {
  const next = new Map();
  for (const way of ways.keys()) {
    const [a, b] = way.split(' > ');
    next.set(a, [...(next.get(a) ?? []), b]);
    if (!next.has(b)) next.set(b, []);
  }
  const [number, low, open, circles] = [new Map(), new Map(), [], []];
  const visit = (at) => {
    number.set(at, number.size);
    low.set(at, number.get(at));
    open.push(at);
    for (const to of next.get(at)) {
      if (!number.has(to)) visit(to);
      if (open.includes(to)) low.set(at, Math.min(low.get(at), low.get(to)));
    }
    if (low.get(at) !== number.get(at)) return;
    const circle = open.splice(open.indexOf(at));
    if (circle.length > 1) circles.push(circle.sort());
  };
  for (const at of next.keys()) if (!number.has(at)) visit(at);
  return circles;
}

let wrong = 0;
for (const room of ROOMS) {
  const ways = waysOf(room);
  const circles = circlesOf(ways);
  const upward = [];
  if (room === 'server')
    for (const [way, files] of ways) {
      const [a, b] = way.split(' > ');
      const storeys = [a, b].map((folder) => STOREYS.indexOf(folder.split('/')[0]));
      if (storeys[1] >= 0 && storeys[0] >= 0 && storeys[0] < storeys[1]) upward.push(`${way}: ${files.join(', ')}`);
      if (storeys[0] >= 0 && storeys[1] < 0) upward.push(`${way}: ${files.join(', ')}`);
    }
  if (process.argv.includes('--all'))
    for (const [way, files] of [...ways].sort()) console.log(`${room}: ${way} (${files.length})`);
  console.log(`${room}: ${ways.size} ways, ${circles.length} circles, ${upward.length} upward`);
  for (const circle of circles) console.log(`  a circle: ${circle.join(', ')}`);
  for (const said of new Set(upward)) console.log(`  ${said}`);
  wrong += circles.length + upward.length;
}
process.exitCode = wrong === 0 ? 0 : 1;
