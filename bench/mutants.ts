import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import ts from 'typescript';
import { seeded } from '../src/core/numeric/chance';

/**
 * Small faults put into the code at random, one at a time, in a copy of it: which of them do the tests find? A fault is tried against the
 * tests that import its file, straight or by the fewest files between, nearest first; the first that fails has found it. Journeys,
 * types and lint are not asked. One under which the tests do not end is told apart: it hangs, or the machine is slow.
 *
 * npx tsx --tsconfig tsconfig.json bench/mutants.ts ROOM COUNT [SEED]      ROOM as src/devices, or one file
 */
const [room = 'src/devices', countText = '20', seedText = String(Date.now() % 100_000)] =
  process.argv.slice(2);
const random = seeded(Number(seedText));
const below = (most: number) => Math.floor(random() * most);
const pick = <T>(list: readonly T[]): T => list[below(list.length)]!;

const filesIn = (folder: string) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((name) => path.join(folder, name))
    .filter((name) => /[.]tsx?$/.test(name) && !/[.]d[.]ts$|\/(kept|demo|cli|migrations)\//.test(name));

interface Fault {
  readonly file: string;
  readonly line: number;
  readonly was: string;
  readonly is: string;
  readonly text: string;
}

const SWAPS: Readonly<Record<string, readonly string[]>> = {
  '<': ['<=', '>'],
  '<=': ['<', '>'],
  '>': ['>=', '<'],
  '>=': ['>', '<'],
  '===': ['!=='],
  '!==': ['==='],
  '&&': ['||'],
  '||': ['&&'],
  '??': ['&&'],
  '+': ['-'],
  '-': ['+'],
  '*': ['/'],
  '/': ['*'],
};

/** Every small fault that a file can have. */
function faultsOf(file: string): Fault[] {
  const text = readFileSync(file, 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found: Fault[] = [];
  const put = (node: ts.Node, is: string) => {
    const [from, to] = [node.getStart(source), node.getEnd()];
    const { line } = source.getLineAndCharacterOfPosition(from);
    const was = text.slice(from, to);
    if (was !== is)
      found.push({ file, line: line + 1, was, is, text: text.slice(0, from) + is + text.slice(to) });
  };
  const visit = (node: ts.Node): void => {
    // Types are looked at by the compiler, and imports by the linker.
    if (
      ts.isTypeNode(node) ||
      ts.isInterfaceDeclaration(node) ||
      ts.isTypeAliasDeclaration(node) ||
      ts.isImportDeclaration(node)
    )
      return;
    if (ts.isBinaryExpression(node))
      for (const swap of SWAPS[node.operatorToken.getText(source)] ?? []) put(node.operatorToken, swap);
    if (ts.isNumericLiteral(node)) {
      const value = Number(node.text.replaceAll('_', ''));
      put(node, String(value === 0 ? 1 : value * 2));
      put(node, String(value + 1));
    }
    if (node.kind === ts.SyntaxKind.TrueKeyword) put(node, 'false');
    if (node.kind === ts.SyntaxKind.FalseKeyword) put(node, 'true');
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      put(node, node.operand.getText(source));
    if (ts.isConditionalExpression(node)) {
      put(node, node.whenTrue.getText(source));
      put(node, node.whenFalse.getText(source));
    }
    if (ts.isIfStatement(node)) put(node.expression, 'false');
    if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression)) put(node, ';');
    if (ts.isSpreadElement(node) && ts.isArrayLiteralExpression(node.parent)) put(node, '');
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** Files that import one, by its path without ending. */
function importersOf(file: string, among: readonly string[]): string[] {
  const target = path.resolve(file).replace(/[.]tsx?$/, '');
  return among.filter((other) =>
    [...readFileSync(other, 'utf8').matchAll(/from '([^']+)'/g)].some(([, where]) => {
      const at = where!.startsWith('@/')
        ? path.resolve('src', where!.slice(2))
        : where!.startsWith('.')
          ? path.resolve(path.dirname(other), where!)
          : '';
      return at === target;
    }),
  );
}

const all = filesIn('src');
const isTest = (file: string) => /[.]test[.]tsx?$/.test(file);
/** A fault is tried against so many tests at the most. */
const MOST_TESTS = 12;
/** Folders that two files share. */
const shared = (one: string, other: string) => {
  const [a, b] = [one, other].map((name) => name.split(path.sep));
  return a!.findIndex((folder, i) => folder !== b![i]);
};
/** The tests nearest to a file: those that import it, then those by one file between, and so on; its own folder's first. */
function testsOf(file: string): string[] {
  const seen = new Set([file]);
  const tests: string[] = [];
  for (let ring = [file]; ring.length > 0 && tests.length < MOST_TESTS;) {
    const next = [...new Set(ring.flatMap((one) => importersOf(one, all)))].filter((one) => !seen.has(one));
    tests.push(...next.filter(isTest).toSorted((a, b) => shared(b, file) - shared(a, file)));
    for (const one of next) seen.add(one);
    ring = next;
  }
  return tests.slice(0, MOST_TESTS);
}
/** In pieces, so that the nearest are asked alone first. */
const PIECE = 4;
const inPieces = (tests: readonly string[]) =>
  Array.from({ length: Math.ceil(tests.length / PIECE) }, (_, i) => tests.slice(i * PIECE, (i + 1) * PIECE));

const copy = mkdtempSync(path.join(tmpdir(), 'hard-pedal-mutants-'));
for (const name of [
  'src',
  '.workers',
  'e2e',
  'docs',
  'scripts',
  'package.json',
  'tsconfig.json',
  'jest.config.mjs',
  'next.config.ts',
  'next-env.d.ts',
  'jest.setup.ts',
])
  if (existsSync(name)) cpSync(name, path.join(copy, name), { recursive: true });
symlinkSync(path.resolve('node_modules'), path.join(copy, 'node_modules'));

const JEST = 'node_modules/jest/bin/jest.js';
const sources = /[.]tsx?$/.test(room) ? [room] : filesIn(room).filter((file) => !isTest(file));
const faults = sources.flatMap(faultsOf);
/** Straight by Node: what hangs is killed, and not only what started it. */
function tryOn(piece: readonly string[]): 'passed' | 'failed' | 'hung' {
  const { status } = spawnSync(
    process.execPath,
    [JEST, '--bail', '--silent', '--forceExit', '--runInBand', '--runTestsByPath', ...piece],
    { cwd: copy, stdio: 'ignore', timeout: 300_000, killSignal: 'SIGKILL' },
  );
  return status === null ? 'hung' : status === 0 ? 'passed' : 'failed';
}

function endOf(tests: readonly string[]): 'passed' | 'failed' | 'hung' {
  for (const piece of inPieces(tests)) {
    const end = tryOn(piece);
    if (end !== 'passed') return end;
  }
  return 'passed';
}

let found = 0;
let hung = 0;
let tried = 0;
while (tried < Number(countText)) {
  const fault = pick(faults);
  const tests = testsOf(fault.file);
  const name = `${fault.file}:${fault.line}  ${fault.was.slice(0, 60).replaceAll(/\s+/g, ' ')}  →  ${fault.is.slice(0, 40).replaceAll(/\s+/g, ' ')}`;
  tried += 1;
  if (tests.length === 0) {
    console.log(`NO TEST NEAR  ${name}`);
    continue;
  }
  const place = path.join(copy, fault.file);
  const sound = readFileSync(place);
  writeFileSync(place, fault.text);
  const ends = endOf(tests);
  writeFileSync(place, sound);
  if (ends === 'failed') found += 1;
  if (ends === 'hung') hung += 1;
  const what = { passed: 'NOT FOUND', failed: 'found    ', hung: 'HUNG     ' }[ends];
  console.log(`${what}  ${tried}  ${name}`);
}
console.log(JSON.stringify({ room, seed: Number(seedText), tried, found, hung }));
rmSync(copy, { recursive: true });
