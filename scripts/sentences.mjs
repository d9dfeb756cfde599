// npm run sentences: every text that somebody may read on a screen, a label or a certificate, by its code, to be read through.
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { ROOT } from './lib/place.mjs';

/** Where texts for people are written. */
const FOLDERS = ['core', 'web', 'server', 'demo'];

/** Attributes and calls whose texts nobody reads. */
const UNREAD_ATTRIBUTES = new Set(['className', 'd', 'viewBox', 'transform', 'style', 'points']);
const UNREAD_CALLS = new Set(['raw', 'RangeError', 'useId', 'test', 'describe']);

/** At least two words, one of them in small letters: a name of a class or an SQL clause is no sentence. */
const READS = /[A-Za-z’'“”°%]{2,}[,.:;?!]? [a-z(\d“]/;
const MACHINE =
  /^(SELECT|INSERT|UPDATE|DELETE|CREATE|ALTER|DROP|WITH) |(?:^|\s)(?:flex|grid|border|text|font|bg|px|py|mt|mb|ml|gap|min-w|max-w|rounded|size)-/;

/** @param {string} folder */
function sourcesIn(folder) {
  return readdirSync(join(ROOT, folder), { recursive: true })
    .map((name) => join(ROOT, folder, String(name)))
    .filter((path) => /\.tsx?$/.test(path) && !/\.test\.tsx?$|test-support|migrations/.test(path));
}

/** The text of a literal, with what is filled in as `…`. @param {ts.Node} node */
function textOf(node) {
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (ts.isJsxText(node)) return node.text.replace(/\s+/g, ' ').trim();
  if (!ts.isTemplateExpression(node)) return null;
  return node.head.text + node.templateSpans.map(({ literal }) => `…${literal.text}`).join('');
}

/** The key, attribute or name that a text stands under. @param {ts.Node} node */
function codeOf(node) {
  for (let at = node.parent; at; at = at.parent) {
    if (ts.isJsxAttribute(at)) return at.name.getText();
    if (ts.isPropertyAssignment(at) || ts.isVariableDeclaration(at)) return at.name.getText();
    if (ts.isJsxElement(at)) return at.openingElement.tagName.getText();
    if (ts.isCallExpression(at) || ts.isNewExpression(at)) return at.expression.getText();
    if (ts.isFunctionDeclaration(at) && at.name) return at.name.text;
  }
  return '';
}

/** @param {ts.Node} node */
function isUnread(node) {
  for (let at = node.parent; at; at = at.parent) {
    if (ts.isImportDeclaration(at) || ts.isExportDeclaration(at) || ts.isTypeNode(at)) return true;
    if (ts.isJsxAttribute(at)) return UNREAD_ATTRIBUTES.has(at.name.getText());
    if (ts.isCallExpression(at) || ts.isNewExpression(at)) {
      const called = at.expression.getText().split('.').at(-1) ?? '';
      if (UNREAD_CALLS.has(called)) return true;
    }
  }
  return false;
}

for (const path of FOLDERS.flatMap(sourcesIn)) {
  const kind = path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const file = ts.createSourceFile(
    path,
    readFileSync(path, 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    kind,
  );
  /** @param {ts.Node} node */
  const visit = (node) => {
    const text = textOf(node);
    if (text !== null && READS.test(text) && !MACHINE.test(text) && !isUnread(node)) {
      const { line } = file.getLineAndCharacterOfPosition(node.getStart(file));
      console.log(`${relative(ROOT, path)}:${String(line + 1)}\t${codeOf(node)}\t${text}`);
      return;
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
}
