// Small faults that could be in the source: each is one change of a condition, a bound, a constant, or a call left out.
import ts from 'typescript';

/** What an operator becomes. */
const TURNED = {
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: '!==',
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: '===',
  [ts.SyntaxKind.LessThanToken]: '<=',
  [ts.SyntaxKind.LessThanEqualsToken]: '<',
  [ts.SyntaxKind.GreaterThanToken]: '>=',
  [ts.SyntaxKind.GreaterThanEqualsToken]: '>',
  [ts.SyntaxKind.AmpersandAmpersandToken]: '||',
  [ts.SyntaxKind.BarBarToken]: '&&',
  [ts.SyntaxKind.PlusToken]: '-',
  [ts.SyntaxKind.MinusToken]: '+',
};

/** Calls that only say something to whoever runs it. */
const SAYS = /\blog\.|\bconsole\.|\.catch\(/;

/**
 * Every fault a text could have.
 * @returns {{ from: number, to: number, with: string, what: string, line: number, of: string }[]} places in the text, what
 *   stands there instead, and the function it is in
 */
export function faultsIn(name, text) {
  const source = ts.createSourceFile(
    name,
    text,
    ts.ScriptTarget.Latest,
    true,
    name.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const faults = [];
  const add = (node, instead, what, of) => {
    const from = node.getStart(source);
    const { line } = source.getLineAndCharacterOfPosition(from);
    faults.push({ from, to: node.getEnd(), with: instead, what, line: line + 1, of });
  };
  const walk = (node, of) => {
    if (
      ts.isTypeNode(node) ||
      ts.isImportDeclaration(node) ||
      ts.isExportDeclaration(node) ||
      ts.isInterfaceDeclaration(node) ||
      ts.isTypeAliasDeclaration(node)
    )
      return;
    const inner = nameOf(node) ?? of;
    if (ts.isBinaryExpression(node)) {
      const turned = TURNED[node.operatorToken.kind];
      const texts = [node.left, node.right].some(
        (side) => ts.isStringLiteralLike(side) || ts.isTemplateExpression(side),
      );
      const arithmetic =
        node.operatorToken.kind === ts.SyntaxKind.PlusToken || node.operatorToken.kind === ts.SyntaxKind.MinusToken;
      if (turned && !(arithmetic && texts))
        add(node.operatorToken, turned, `${node.operatorToken.getText(source)} is ${turned}`, inner);
    }
    if ((ts.isIfStatement(node) || ts.isWhileStatement(node)) && !ts.isBinaryExpression(node.expression))
      add(node.expression, `!(${node.expression.getText(source)})`, 'the condition is turned', inner);
    if (ts.isConditionalExpression(node) && !ts.isBinaryExpression(node.condition))
      add(node.condition, `!(${node.condition.getText(source)})`, 'the choice is turned', inner);
    if (ts.isNumericLiteral(node) && !/^0[xb]/i.test(node.getText(source))) {
      const n = Number(node.text.replaceAll('_', ''));
      add(node, String(n + 1), `${node.text} is ${n + 1}`, inner);
    }
    if (node.kind === ts.SyntaxKind.TrueKeyword) add(node, 'false', 'true is false', inner);
    if (node.kind === ts.SyntaxKind.FalseKeyword) add(node, 'true', 'false is true', inner);
    if (ts.isExpressionStatement(node) && callIn(node.expression) && !SAYS.test(node.getText(source)))
      add(node, ';', 'the call is left out', inner);
    node.forEachChild((child) => walk(child, inner));
  };
  walk(source, '');
  return faults;
}

function callIn(node) {
  if (ts.isAwaitExpression(node) || ts.isVoidExpression(node)) return callIn(node.expression);
  return ts.isCallExpression(node) && node.expression.kind !== ts.SyntaxKind.SuperKeyword;
}

function nameOf(node) {
  if ((ts.isFunctionDeclaration(node) || ts.isMethodDeclaration(node)) && node.name) return node.name.getText();
  if (
    ts.isVariableDeclaration(node) &&
    node.initializer &&
    (ts.isArrowFunction(node.initializer) || ts.isFunctionExpression(node.initializer))
  )
    return node.name.getText();
  return null;
}

/** Numbers between 0 and 1, the same for the same seed (mulberry32). */
export function chance(seed) {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}
