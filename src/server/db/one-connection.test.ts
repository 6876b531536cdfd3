import { resolve } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import ts from 'typescript';

/*
 * Inside a transaction only its own connection can be reached: refused at run time by `pool.ts`, and seen here before anything
 * runs. Whatever code a transaction's work or a function that takes a `Writer` can call, by the compiler's own knowledge of
 * names, never comes to one of the three doors of the pool.
 */

const DOORS = new Set(['reading', 'snapshot', 'writing']);

type Place = ts.Node;

/** The code that `root` may run and from where: functions it names, and functions those name. */
class Calls {
  private readonly checker: ts.TypeChecker;
  private readonly named = new Map<Place, Place[]>();

  constructor(private readonly program: ts.Program) {
    this.checker = program.getTypeChecker();
  }

  /** What an identifier stands for: a function's body, or null for anything else. */
  private body(name: ts.Node): Place | null {
    let symbol = this.checker.getSymbolAtLocation(name);
    if (symbol && symbol.flags & ts.SymbolFlags.Alias) symbol = this.checker.getAliasedSymbol(symbol);
    const declared = symbol?.valueDeclaration;
    if (!declared || declared.getSourceFile().isDeclarationFile) return null;
    if (ts.isFunctionDeclaration(declared) || ts.isMethodDeclaration(declared)) return declared;
    if (ts.isVariableDeclaration(declared) && declared.initializer && ts.isArrowFunction(declared.initializer))
      return declared;
    return null;
  }

  /** Whether a branch is only taken outside of transactions, by asking so. */
  private isGuarded(node: ts.Node): boolean {
    return ts.isIfStatement(node) && /!isInTransaction\(\)/.test(node.expression.getText());
  }

  private namedBy(place: Place): Place[] {
    const known = this.named.get(place);
    if (known) return known;
    const found = new Set<Place>();
    const visit = (node: ts.Node): void => {
      if (ts.isTypeNode(node) || this.isGuarded(node)) return;
      if (ts.isIdentifier(node)) {
        const body = this.body(node);
        if (body && body !== place) found.add(body);
      }
      ts.forEachChild(node, visit);
    };
    visit(place);
    const list = [...found];
    this.named.set(place, list);
    return list;
  }

  /** The way from `root` to a door of the pool, by names; null where there is none. */
  wayToDoor(root: Place): string[] | null {
    const from = new Map<Place, Place | null>([[root, null]]);
    for (const place of from.keys()) {
      const name = (place as ts.NamedDeclaration).name?.getText() ?? '(work)';
      if (place.getSourceFile().fileName.endsWith('/db/pool.ts')) {
        if (!DOORS.has(name)) continue;
        const way: string[] = [];
        for (let at: Place | null = place; at; at = from.get(at) ?? null)
          way.unshift((at as ts.NamedDeclaration).name?.getText() ?? `work in ${at.getSourceFile().fileName}`);
        return way;
      }
      for (const next of this.namedBy(place)) if (!from.has(next)) from.set(next, place);
    }
    return null;
  }
}

/** Every piece of code that runs inside a transaction: what `writing` is given, and whatever takes a `Writer`. */
function* insideTransactions(file: ts.SourceFile): Generator<Place> {
  const found: Place[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && node.expression.getText() === 'writing' && node.arguments[0])
      found.push(node.arguments[0]);
    if (ts.isFunctionLike(node) && node.parameters.some((p) => p.type?.getText() === 'Writer')) found.push(node);
    ts.forEachChild(node, visit);
  };
  visit(file);
  yield* found;
}

function programOf(files: string[], texts: Record<string, string> = {}): ts.Program {
  const options: ts.CompilerOptions = {
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    target: ts.ScriptTarget.ES2022,
    noLib: true,
    types: [],
    noEmit: true,
    paths: { '@/*': [resolve('src/*')] },
  };
  const host = ts.createCompilerHost(options);
  const read = host.readFile.bind(host);
  const there = host.fileExists.bind(host);
  host.readFile = (name) => texts[name] ?? read(name);
  host.fileExists = (name) => name in texts || there(name);
  host.getSourceFile = (name, version) => {
    const text = host.readFile(name);
    return text === undefined ? undefined : ts.createSourceFile(name, text, version, true);
  };
  // What packages do is not looked into: none of them knows the pool.
  host.resolveModuleNameLiterals = (literals, from) =>
    literals.map(({ text }) =>
      /^[.@]\/|^\.\./.test(text)
        ? ts.resolveModuleName(text, from, options, host)
        : { resolvedModule: undefined, failedLookupLocations: [] },
    );
  return ts.createProgram(files, options, host);
}

function ways(program: ts.Program): { looked: number; ways: string[][] } {
  const calls = new Calls(program);
  const found: string[][] = [];
  let looked = 0;
  for (const file of program.getSourceFiles()) {
    if (file.fileName.endsWith('/db/pool.ts') || file.fileName.endsWith('.test.ts')) continue;
    for (const root of insideTransactions(file)) {
      looked += 1;
      const way = calls.wayToDoor(root);
      if (way) found.push(way);
    }
  }
  return { looked, ways: found };
}

describe('work inside a transaction', () => {
  it('cannot come to a door of the pool, whichever function it calls', () => {
    const files = ts.sys.readDirectory('src/server', ['.ts'], ['**/*.test.ts']).map((f) => resolve(f));
    const { looked, ways: found } = ways(programOf(files));
    expect(found).toEqual([]);
    expect(looked).toBeGreaterThan(60);
  });

  it('is found where it does, three calls away', () => {
    const folder = resolve('src/server/db');
    const wrong = `${folder}/wrong.ts`;
    const text = `import { reading, writing, type Writer } from './pool';
      const look = () => reading(async () => 1);
      async function step(c: Writer) { return [1].map(() => look()); }
      export const act = () => writing(async (c) => { await step(c); });`;
    const { ways: found } = ways(programOf([wrong], { [wrong]: text }));
    expect(found).toEqual([
      ['step', 'look', 'reading'],
      [`work in ${wrong}`, 'step', 'look', 'reading'],
    ]);
  });
});
