// How long functions and the parts of screens are. `npm run lengths` names those over 60 lines; none may be longer than
// the most here, and few as long as that.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { ROOT } from './install.mjs';

const ROOMS = ['contract', 'core', 'server', 'standins', 'web'];
const LONG = 60;
/** Tables of routes and of sentences are long and simple; what a screen draws is not. */
const MOST = { functions: 100, screens: 80 };
/** So many may be longer than that; it is made less, never more. */
const FEW = { functions: 0, screens: 14 };

const isFunction = (node) =>
  (ts.isFunctionDeclaration(node) ||
    ts.isMethodDeclaration(node) ||
    ts.isArrowFunction(node) ||
    ts.isFunctionExpression(node) ||
    ts.isConstructorDeclaration(node)) &&
  node.body;

function functionsOf(path) {
  const kind = path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const source = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true, kind);
  const found = [];
  const line = (at) => source.getLineAndCharacterOfPosition(at).line;
  const visit = (node) => {
    if (isFunction(node)) {
      const name = node.name?.getText() ?? node.parent?.name?.getText?.() ?? 'one without a name';
      found.push({ name, lines: line(node.end) - line(node.getStart()) + 1 });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const long = { functions: [], screens: [] };
for (const room of ROOMS) {
  const from = join(ROOT, room, 'src');
  for (const file of readdirSync(from, { recursive: true, encoding: 'utf8' })) {
    if (!/\.tsx?$/.test(file) || /\.test\.tsx?$/.test(file)) continue;
    for (const { name, lines } of functionsOf(join(from, file)))
      if (lines > LONG) long[room === 'web' ? 'screens' : 'functions'].push({ name, lines, file: `${room}/${file}` });
  }
}
let tooLong = 0;
for (const [of, list] of Object.entries(long)) {
  list.sort((a, b) => b.lines - a.lines);
  console.log(`${of}: ${list.length} over ${LONG} lines, the longest ${list[0]?.lines ?? 0}`);
  if (list.length > FEW[of]) {
    console.error(`more than ${FEW[of]} ${of} are over ${LONG} lines; --all names them`);
    tooLong++;
  }
  for (const { name, lines, file } of list)
    if (lines > MOST[of]) {
      console.error(`${file}: ${name} has ${lines} lines, more than ${MOST[of]}`);
      tooLong++;
    } else if (process.argv.includes('--all')) console.log(`  ${String(lines).padStart(3)} ${name}, ${file}`);
}
process.exitCode = tooLong === 0 ? 0 : 1;
