/** Small faults as a tired hand makes them: a comparison turned, a sign lost, a number off by one, a condition left out. */
import ts from 'typescript';

/** @type {Readonly<Record<string, string>>} */
const TURNED = {
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
  '===': '!==',
  '!==': '===',
  '+': '-',
  '-': '+',
  '*': '/',
  '/': '*',
  '&&': '||',
  '||': '&&',
  '??': '&&',
};

/**
 * @typedef {{ start: number, end: number, text: string, line: number }} Fault
 * @param {string} name @param {string} source
 * @returns {Fault[]} every place where one can be put, in the order of the file
 */
export function faultsIn(name, source) {
  const file = ts.createSourceFile(name, source, ts.ScriptTarget.Latest, true);
  /** @type {Fault[]} */
  const faults = [];
  /** @param {ts.Node} node @param {string} text */
  const put = (node, text) => {
    const start = node.getStart(file);
    faults.push({
      start,
      end: node.getEnd(),
      text,
      line: file.getLineAndCharacterOfPosition(start).line + 1,
    });
  };
  /** @param {ts.Node} node */
  const walk = (node) => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const turned = TURNED[node.operatorToken.getText(file)];
      const joins = [node.left, node.right].some(
        (side) => ts.isStringLiteralLike(side) || ts.isTemplateExpression(side),
      );
      if (turned !== undefined && !joins) put(node.operatorToken, turned);
    } else if (ts.isNumericLiteral(node) && !ts.isElementAccessExpression(node.parent)) {
      put(node, node.text === '0' ? '1' : node.text === '1' ? '2' : String(Number(node.text) * 1.5));
    } else if (node.kind === ts.SyntaxKind.TrueKeyword) put(node, 'false');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) put(node, 'true');
    else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      put(node, node.operand.getText(file));
    else if (ts.isIfStatement(node)) put(node.expression, 'false');
    ts.forEachChild(node, walk);
  };
  walk(file);
  return faults;
}
