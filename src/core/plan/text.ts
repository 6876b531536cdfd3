import { LineCounter, isScalar, parseDocument, visit } from 'yaml';

/** Longest texts that are read: JSON is read fast, YAML slowly. */
const MOST_JSON = 64_000_000;
const MOST_YAML = 16_000_000;
/** Brackets open at once beyond which a text is no plan document. */
const MOST_DEPTH = 200;

export type TextResult = { ok: true; document: unknown } | { ok: false; code: string; sentence: string };

/**
 * Reads JSON or YAML text as a document, in bounded time and memory: too long or too deeply nested text is refused before
 * it is parsed, and YAML aliases, by which a short text can become a huge document, are not followed. Never throws.
 */
export function readText(text: string): TextResult {
  const json = /^\s*\{/.test(text);
  const most = json ? MOST_JSON : MOST_YAML;
  if (text.length > most)
    return refused(
      'too-long',
      `The text has ${text.length} characters; ${json ? 'JSON' : 'YAML'} is read up to ${most / 1e6} million.`,
    );
  if (depthOf(text) > MOST_DEPTH)
    return refused('too-deep', `Brackets are nested more than ${MOST_DEPTH} deep; a plan is flat.`);
  try {
    if (json) return { ok: true, document: JSON.parse(text) as unknown };
  } catch (e) {
    // YAML can begin with a brace too; anything long is JSON that is broken.
    if (text.length > MOST_YAML)
      return refused('broken-file', `This is no JSON: ${(e as Error).message.slice(0, 120)}.`);
  }
  try {
    return { ok: true, document: fromYaml(text) };
  } catch (e) {
    return refused(
      'broken-file',
      `This is neither JSON nor YAML: ${(e as Error).message.split('\n')[0]!.slice(0, 120)}`,
    );
  }
}

/** YAML as a value. Keys that stand twice are found here: the package compares each with each. */
function fromYaml(text: string): unknown {
  const lines = new LineCounter();
  const document = parseDocument(text, { uniqueKeys: false, prettyErrors: false, lineCounter: lines });
  if (document.errors[0]) throw document.errors[0];
  visit(document, {
    Map: (_, { items }) => {
      const seen = new Set<unknown>();
      for (const { key } of items) {
        if (!isScalar(key)) continue;
        if (seen.has(key.value))
          throw new Error(`line ${lines.linePos(key.range?.[0] ?? 0).line}: the key ${String(key.value)} stands twice`);
        seen.add(key.value);
      }
    },
  });
  return document.toJS({ maxAliasCount: 0 }) as unknown;
}

function refused(code: string, sentence: string): TextResult {
  return { ok: false, code, sentence };
}

/** Most brackets open at once, quotes not looked at: digit maps in texts are balanced and shallow. */
function depthOf(text: string): number {
  let depth = 0;
  let most = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === 0x5b || c === 0x7b) most = Math.max(most, ++depth);
    else if ((c === 0x5d || c === 0x7d) && depth > 0) depth--;
  }
  return most;
}
