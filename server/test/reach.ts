import { dirname, join } from 'node:path';
import { productFolder } from '../src/index.ts';
import ts from 'typescript';

/** What the code behind an endpoint can do, as far as the compiler sees. */
export interface Reach {
  refusals: Set<string>;
  topics: Set<string>;
  /** Whether it waits for a job's end, and answers with what kept that from it. */
  waits: boolean;
}

const ROOT = productFolder();
const SOURCES = join(ROOT, 'server', 'src');
/** What every request goes through: its refusals are those of all endpoints. */
const WRAPPER = join(SOURCES, 'platform');

const nothing = (): Reach => ({ refusals: new Set(), topics: new Set(), waits: false });

/**
 * Follows every handler of an endpoint through all that it calls and names, and collects the refusals that are made and
 * the topics that are published there.
 *
 * @returns by the endpoint's name; work of jobs by `job` and its kind
 */
export function reachOfEndpoints(): Map<string, Reach> {
  const { config } = ts.readConfigFile(join(ROOT, 'tsconfig.json'), (f) => ts.sys.readFile(f)) as { config: object };
  const { options, fileNames } = ts.parseJsonConfigFileContent(config, ts.sys, ROOT);
  const program = ts.createProgram(
    fileNames.filter((f) => f.startsWith(SOURCES) && !f.endsWith('.test.ts')),
    { ...options, noEmit: true },
  );
  const checker = program.getTypeChecker();
  const found = new Map<string, Reach>();
  const own = program.getSourceFiles().filter((f) => f.fileName.startsWith(SOURCES));

  const literals = (node: ts.Expression): string[] => {
    const type = checker.getTypeAtLocation(node);
    return (type.isUnion() ? type.types : [type]).flatMap((t) => (t.isStringLiteral() ? [t.value] : []));
  };
  /** Bodies and values that a name stands for, in our own sources. */
  const meant = (name: ts.Node): ts.Node[] => {
    let symbol = checker.getSymbolAtLocation(name);
    if (symbol && symbol.flags & ts.SymbolFlags.Alias) symbol = checker.getAliasedSymbol(symbol);
    return (symbol?.declarations ?? []).filter(
      (d) =>
        d.getSourceFile().fileName.startsWith(SOURCES) &&
        dirname(d.getSourceFile().fileName) !== WRAPPER &&
        (ts.isFunctionLike(d) || (ts.isVariableDeclaration(d) && d.initializer) || ts.isClassDeclaration(d)),
    );
  };
  const made = new Map<ts.Node, { own: Reach; names: ts.Node[] }>();
  const lookAt = (node: ts.Node) => {
    const there = made.get(node);
    if (there) return there;
    const result = { own: nothing(), names: [] as ts.Node[] };
    made.set(node, result);
    const visit = (n: ts.Node): void => {
      if (ts.isNewExpression(n) && n.expression.getText() === 'Refusal' && n.arguments?.[0])
        for (const code of literals(n.arguments[0])) result.own.refusals.add(code);
      if (ts.isCallExpression(n)) {
        const called = n.expression.getText();
        if (called.endsWith('jobs.over')) result.own.waits = true;
        if (called === 'notFound') result.own.refusals.add('not-found');
        if (/(^|\.)publish$/.test(called) && n.arguments[0])
          for (const topic of literals(n.arguments[0])) result.own.topics.add(topic);
      }
      if (ts.isIdentifier(n)) result.names.push(...meant(n));
      ts.forEachChild(n, visit);
    };
    ts.forEachChild(node, visit);
    return result;
  };
  const reachOf = (from: ts.Node): Reach => {
    const all = nothing();
    const seen = new Set<ts.Node>([from]);
    for (const node of seen) {
      const { own: here, names } = lookAt(node);
      for (const code of here.refusals) all.refusals.add(code);
      for (const topic of here.topics) all.topics.add(topic);
      all.waits ||= here.waits;
      for (const name of names) seen.add(name);
    }
    return all;
  };
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node)) {
      const called = node.expression.getText();
      if (called === 'mountEndpoint' && node.arguments.length === 3)
        found.set(node.arguments[1]!.getText().replace(/^endpoints\./, ''), reachOf(node.arguments[2]!));
      if (/jobs\.define(<.*>)?$/s.test(called)) {
        const [kind, , work] = node.arguments;
        found.set(`job ${literals(kind!)[0]}`, reachOf(work!));
      }
    }
    ts.forEachChild(node, visit);
  };
  for (const file of own) visit(file);
  return found;
}
