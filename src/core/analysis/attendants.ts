import { attendantModeIsMissing, dialledAtAttendant, greetingOf } from '../destinations';
import { ATTENDANT_MODES, type Attendant, type AttendantKey, type AttendantMode } from '../plan';
import { ladderOf, type Exchange } from '../routing';
import { at, type Problem } from './problem';
import { spokenKeys, type SpokenKey } from './spoken-keys';

/** What is wrong or doubtful with attendants (ENGINE E14). */
export function attendantProblems(exchange: Exchange): Problem[] {
  return exchange.plan.attendants.flatMap((object) => {
    const keys = exchange.attendantKeys.get(object.id) ?? [];
    return [
      ...modes(exchange, object),
      ...greetings(object, keys),
      ...promises(exchange, object, keys),
      ...ends(object, keys),
      ...waits(exchange, object, keys),
      ...outside(exchange, object),
    ];
  });
}

const toldBy = new WeakMap<object, SpokenKey[]>();

/** The keys that a prompt or a version of it names, read once. */
function toldIn(version: { text: string }): SpokenKey[] {
  let told = toldBy.get(version);
  if (!told) toldBy.set(version, (told = spokenKeys(version.text)));
  return told;
}

const said = (object: Attendant, mode: AttendantMode) => (object.hours ? ` when ${mode}` : '');

function modes(exchange: Exchange, object: Attendant): Problem[] {
  const wanted = object.hours ? (['open', 'closed'] as const) : (['open'] as const);
  return wanted
    .filter((mode) => attendantModeIsMissing(exchange, object, mode))
    .map((mode) => ({
      type: 'mode-missing',
      severity: 'error',
      object: at('attendant', object),
      sentence: `${object.name} has neither a greeting nor a key when ${mode}: callers are released.`,
      mend: `Say what happens when ${mode}.`,
    }));
}

/** Modes that ask for a key and say nothing. */
function greetings(object: Attendant, keys: readonly AttendantKey[]): Problem[] {
  const silent = (mode: AttendantMode) =>
    greetingOf(object, mode) === null &&
    (mode === 'open' || (object.hours !== null && keys.some((k) => k.mode === mode && k.key.length === 1)));
  return ATTENDANT_MODES.filter(silent).map((mode) => ({
    type: 'prompt-missing',
    severity: 'doubt',
    object: at('attendant', object),
    sentence: `${object.name} greets nobody${said(object, mode)}: callers hear silence before the keys.`,
    mend: 'Name a greeting.',
  }));
}

/** Keys that the greeting names and that do nothing, and keys that nobody is told of. */
function promises(exchange: Exchange, object: Attendant, keys: readonly AttendantKey[]): Problem[] {
  return ATTENDANT_MODES.flatMap((mode) => {
    const id = greetingOf(object, mode);
    const prompt = id === null ? undefined : exchange.prompts.get(id);
    if (!prompt) return [];
    const set = keys.filter((k) => k.mode === mode && k.key.length === 1);
    const doubt = (type: string, severity: Problem['severity'], sentence: string, mend: string): Problem => ({
      type,
      severity,
      object: at('attendant', object),
      sentence,
      mend,
    });
    return [prompt, ...prompt.versions].flatMap((version): Problem[] => {
      const { language } = version;
      const told = toldIn(version);
      if (told.length === 0) return [];
      const where = prompt.versions.length > 0 ? ` (${language})` : '';
      const empty = told
        .filter((t) => !set.some((k) => k.key === t.key))
        .map(({ key, what }) =>
          doubt(
            'greeting-promises',
            'doubt',
            `The greeting of ${object.name}${said(object, mode)}${where} says ${key}${what ? ` for ${what}` : ''}; key ${key} is empty.`,
            `Set key ${key}, or say something else.`,
          ),
        );
      const untold = set
        .filter((k) => !told.some((t) => t.key === k.key))
        .map((k) =>
          doubt(
            'key-untold',
            'note',
            `Key ${k.key} of ${object.name}${said(object, mode)} is set, and the greeting${where} does not say so.`,
            `Say in the greeting what key ${k.key} does.`,
          ),
        );
      return [...empty, ...untold];
    });
  });
}

/** Callers who press nothing must go somewhere in every mode that has something. */
function ends(object: Attendant, keys: readonly AttendantKey[]): Problem[] {
  const used = new Set(keys.map((k) => k.mode));
  return [...used]
    .filter((mode) => !keys.some((k) => k.mode === mode && (k.key === 'no key' || k.key === 'too many tries')))
    .map((mode) => ({
      type: 'dead-end',
      severity: 'doubt',
      object: at('attendant', object),
      sentence: `Callers who press nothing at ${object.name} when ${mode} are released, cause 19.`,
      mend: 'Say where “no key” leads.',
    }));
}

/** A key that dialled extensions begin with makes everyone who presses it wait. */
function waits(exchange: Exchange, object: Attendant, keys: readonly AttendantKey[]): Problem[] {
  const slow = slowKeys(exchange, object);
  return keys.flatMap((k) => {
    const one = k.key.length === 1 ? slow.get(k.key) : undefined;
    if (one === undefined) return [];
    return [
      {
        type: 'key-waits',
        severity: 'note' as const,
        object: at('attendant', object),
        sentence: `Key ${k.key} of ${object.name} when ${k.mode} waits ${object.digitSeconds} s: extensions such as ${one} begin with it.`,
        mend: `Take another key than ${k.key}.`,
      },
    ];
  });
}

/** Keys after which an attendant waits for more digits, each with one extension that begins with it. */
export function slowKeys(exchange: Exchange, object: Attendant): Map<string, string> {
  const out = new Map<string, string>();
  if (object.directDialling !== 'none')
    for (const e of dialledAtAttendant(exchange, object)) if (!out.has(e.digits[0]!)) out.set(e.digits[0]!, e.digits);
  const prefix = exchange.sites.get(object.site)!.outsidePrefix;
  if (object.outsideDialling && prefix && !out.has(prefix[0]!)) out.set(prefix[0]!, `${prefix} and an outside number`);
  return out;
}

/** Outside callers who dial on to the outside at our cost (ENGINE E6 b). */
function outside(exchange: Exchange, object: Attendant): Problem[] {
  const opened = outsideOpened(exchange, object);
  if (!opened) return [];
  return [
    {
      type: 'toll-fraud',
      severity: 'error',
      object: at('attendant', object),
      sentence: `Outside callers choose where they call at our cost: ${opened.entered} → ${object.name} → ${opened.rule} → ${opened.out}.`,
      mend: `Let nobody dial on to the outside here, or take transit from ${opened.entered} or ${opened.out}.`,
    },
  ];
}

/** The way that dialling on to the outside opens from an attendant, where both trunks grant transit; null: none. */
export function outsideOpened(
  exchange: Exchange,
  object: Attendant,
): { entered: string; rule: string; out: string } | null {
  if (!object.outsideDialling) return null;
  const transit = exchange.plan.trunks.filter((t) => t.transit && t.enabled);
  const site = exchange.sites.get(object.site)!;
  if (!site.outsidePrefix) return null;
  for (const { rung } of ladderOf(exchange, site)) {
    const out = transit.find((t) => rung.trunks.includes(t.id));
    if (out) return { entered: transit[0]!.name, rule: rung.name, out: out.name };
  }
  return null;
}
