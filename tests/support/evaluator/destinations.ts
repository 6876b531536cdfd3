import { PHRASE_TEXTS, secondsToSay, type Phrase, type Plan } from '@/core/plan';
import type { Cause, Situation } from '@/core/routing';
import { noticeOf, saysHours, type Says } from './clock';
import type { Evaluator } from './evaluate';
import { linkFree, type Ended, type World } from './leaving';
import { takes } from './maps';

/* What each kind of destination does with a call (ENGINE E11), by recursion from place to place. */

export const DIALLED = [
  'extensions',
  'ringGroups',
  'queues',
  'attendants',
  'timeSwitches',
  'announcements',
  'directories',
  'outsideNumbers',
  'conferences',
  'pageGroups',
  'faxes',
  'parkPlaces',
  'tones',
  'reachPlans',
] as const;

type Ext = Plan['extensions'][number];
type Trunk = Plan['trunks'][number];

/** Where a call comes from. */
export interface From {
  trunk: Trunk | null;
  calling: string | null;
  phone: Ext | null;
  site: string;
}

interface Stop {
  at: number;
  lands: { kind: string; id: string | null; digits: string | null };
  left?: Ended;
}

/** Everybody who is offered a call, in order, and how it ends when nobody takes it; null: the last keeps it. */
export interface Chain {
  stops: Stop[];
  end: Ended | null;
  endAt: number;
}

interface Place {
  id: string;
  part: number;
}
/** Where to go next: a place, an end, or digits forwarded by an extension. */
type Next =
  | Place
  | { cause: Cause; outcome: 'failed' | 'refused' }
  | { owner: Ext; digits: string; untaken: Next | null }
  | { dial: string; site: string };

const BUSY = { q850: 17, sip: 486 };
const NO_ANSWER = { q850: 19, sip: 480 };
const UNREACHABLE = { q850: 20, sip: 480 };
const REFUSED = { q850: 21, sip: 403 };

const fail = (cause: Cause): Next => ({ cause, outcome: 'failed' });
const to = (id: string | null, cause: Cause): Next => (id ? { id, part: 0 } : fail(cause));
const released = (outcome: Ended['outcome'], cause: Cause): Ended => ({
  outcome,
  cause,
  lands: null,
  then: [],
  kind: null,
  rule: null,
  trunk: null,
  digitsSent: null,
  shownNumber: null,
  e164: null,
});

export class Walker {
  private keysUsed = 0;
  private told = false;

  constructor(
    private readonly world: World,
    private readonly from: From,
    private readonly evaluator: Evaluator,
  ) {
    this.language = world.begins;
    this.keysUsed = world.pressed;
  }

  private get plan() {
    return this.world.plan;
  }
  private get situation() {
    return this.world.situation;
  }
  private kindOf(id: string): [string, never] {
    for (const list of [...DIALLED, 'mailboxes'] as const) {
      const object = (this.plan[list] as { id: string }[]).find((o) => o.id === id);
      if (object) return [list, object as never];
    }
    throw new Error(`no destination ${id}`);
  }
  private seconds = (prompt: string | null, language = this.language || this.home()): number => {
    const p = this.plan.prompts.find((x) => x.id === prompt);
    if (!p) return 0;
    const all = [p, ...p.versions];
    const exact = all.find((v) => v.language === language);
    return (exact ?? all.find((v) => v.language.slice(0, 2) === language.slice(0, 2)) ?? p).seconds;
  };
  private home = () => this.plan.sites.find((x) => x.id === this.from.site)!.language;
  private answers = (id: string, within: number) => {
    const a = this.situation.answers?.find((x) => x.id === id);
    return !a || a.afterSeconds <= within;
  };
  private names = (list: readonly string[] | undefined, e: Ext) =>
    list?.some((id) => id === e.id || id === e.person) ?? false;

  /** One place after the other; `since` are those met without a wait, `met` all. */
  visit(next: Next, hops: number, met: string[], since: string[]): Chain {
    if ('cause' in next) return { stops: [], end: released(next.outcome, next.cause), endAt: this.world.seconds };
    if ('dial' in next) {
      const on = this.evaluator.dialledOn(next.dial, this.from, next.site, false);
      if ('go' in on) return this.visit({ id: on.go, part: 0 }, hops, met, since);
      const stop = on.end.lands ? [{ at: this.world.seconds, lands: on.end.lands, left: on.end }] : [];
      if (stop.length > 0) this.took();
      return { stops: stop, end: on.end.lands ? null : on.end, endAt: this.world.seconds };
    }
    if ('digits' in next) {
      const went = this.evaluator.forwarded(next.owner, next.digits, this.from);
      if ('go' in went) return this.visit({ id: went.go, part: 0 }, hops, met, since);
      if ('end' in went) return { stops: [], end: went.end, endAt: this.world.seconds };
      const { left } = went;
      if (!left.lands || !next.untaken)
        return this.world.landed
          ? { stops: [], end: left, endAt: this.world.seconds }
          : left.lands
            ? { stops: [{ at: this.world.seconds, lands: left.lands, left }], end: null, endAt: 0 }
            : { stops: [], end: left, endAt: this.world.seconds };
      const stop = { at: this.world.seconds, lands: left.lands, left };
      this.took();
      this.world.seconds += next.owner.ringSeconds;
      const rest = this.visit(next.untaken, hops, met, []);
      return { ...rest, stops: [stop, ...rest.stops] };
    }
    const key = `${next.id} ${next.part}`;
    if (since.includes(key))
      return { stops: [], end: released('loop', { q850: 25, sip: 482 }), endAt: this.world.seconds };
    if (hops > 20 && met.includes(key))
      return { stops: [], end: released('loop', { q850: 25, sip: 483 }), endAt: this.world.seconds };
    const used = this.keysUsed;
    const offer = this.offer(next);
    const stops: Stop[] = [];
    if (offer.lands)
      stops.push({ at: this.world.seconds, lands: offer.lands, ...(offer.left ? { left: offer.left } : {}) });
    if (stops.length > 0) this.took();
    if (!offer.next) return { stops, end: offer.failed ?? null, endAt: this.world.seconds };
    this.world.seconds += offer.after ?? 0;
    const fresh = (offer.after ?? 0) > 0 || this.keysUsed > used;
    const rest = this.visit(offer.next, hops + 1, [...met, key], fresh ? [] : [...since, key]);
    return { ...rest, stops: [...stops, ...rest.stops] };
  }

  private took(): void {
    if (!this.told) Object.assign(this.world, { spoken: this.language, pressed: this.keysUsed });
    this.told = true;
    if (this.world.landed) return;
    this.world.landed = true;
    this.world.landedAt = this.world.seconds;
  }

  private offer(place: Place): Offered {
    const [list, o] = this.kindOf(place.id);
    const lands = (kind: string, x: { id: string; digits?: string | null }) => ({
      kind,
      id: x.id,
      digits: x.digits ?? null,
    });
    switch (list) {
      case 'extensions':
        return this.extension(o, place.part);
      case 'mailboxes': {
        const box = o as Plan['mailboxes'][number];
        return this.box(box);
      }
      case 'ringGroups':
        return this.group(o);
      case 'queues':
        return this.queue(o);
      case 'attendants':
        return this.attendant(o);
      case 'directories': {
        const d = o as Plan['directories'][number];
        const people = this.plan.extensions.filter((e) => e.person && (d.scope === 'everyone' || e.site === d.site));
        const words = people.flatMap((e) =>
          this.spelt(e).map((digits) => ({ type: 'name' as const, digits, leads: e.id })),
        );
        const end = to(d.otherwise, NO_ANSWER);
        const nobody = this.phraseSeconds('nobody found', this.language || this.home());
        return this.menu(
          words,
          this.seconds(d.prompt),
          d,
          () => end,
          lands('directory', d),
          nobody,
          null,
          () => null,
          d.site,
        );
      }
      case 'timeSwitches': {
        const t = o as Plan['timeSwitches'][number];
        const set = this.situation.switches?.find((s) => s.id === t.id)?.setting;
        if (set === 'open' || set === 'closed') return { next: to(t[set], UNREACHABLE) };
        if (!t.hours) return { next: to(t.open, UNREACHABLE) };
        const says = this.says(t.hours);
        if (says.leadsTo) return { next: to(says.leadsTo, UNREACHABLE) };
        if (says.mode === 'holiday') return { next: to(t.holiday ?? t.closed, UNREACHABLE) };
        return { next: to(says.open ? t.open : t.closed, UNREACHABLE) };
      }
      case 'announcements': {
        const a = o as Plan['announcements'][number];
        if (!a.leadsTo) return { lands: lands('announcement', a) };
        return { after: this.seconds(a.prompt), next: to(a.leadsTo, NO_ANSWER) };
      }
      case 'outsideNumbers': {
        const left = this.evaluator.outsideLeg(place.id, null, true, this.from);
        return left.lands ? { lands: left.lands, left } : { failed: left };
      }
      case 'parkPlaces': {
        const p = o as Plan['parkPlaces'][number];
        return { after: p.returnSeconds, next: to(p.returnTo, NO_ANSWER) };
      }
      case 'reachPlans':
        return this.reach(o, place.part);
      default:
        return {
          lands: lands(
            { conferences: 'conference', pageGroups: 'pageGroup', faxes: 'fax', tones: 'tone' }[list]!,
            o as { id: string; digits: string | null },
          ),
        };
    }
  }

  private says = (hours: string): Says =>
    saysHours(this.plan, this.situation, hours, this.world.call.at + this.world.seconds * 1000);

  /** What keeps a phone from ringing. */
  phoneBarred(e: Ext, whateverWishes = false): 'busy' | 'disturb' | 'gone' | 'link' | null {
    const s = this.situation;
    if (!whateverWishes && this.names(s.doNotDisturb, e)) return 'disturb';
    if (e.kind === 'virtual' || this.names(s.off, e) || this.names(s.away, e)) return 'gone';
    const inUse = s.lines?.find((l) => l.extension === e.id)?.inUse ?? 0;
    const waits = whateverWishes || e.callWaiting;
    if (this.names(s.busy, e) || inUse >= e.lines || (inUse > 0 && !waits)) return 'busy';
    return linkFree(this.world, this.from.site, e.site) ? null : 'link';
  }

  private presence(e: Ext): { act: string; to: string | null } | null {
    const p = this.situation.presence;
    const state = p?.[e.id] ?? (e.person ? p?.[e.person] : undefined);
    const rule = this.plan.presenceRules.find((r) => r.id === state || r.activity === state);
    if (!rule) return null;
    const own = this.plan.presenceChoices.find((c) => c.extension === e.id && c.rule === rule.id) ?? rule;
    return this.from.trunk ? { act: own.outside, to: own.outsideTo } : { act: own.internal, to: own.internalTo };
  }

  private boxOf(e: Ext): string | null {
    return this.plan.mailboxes.find((m) => m.id === e.mailbox)?.on ? e.mailbox : null;
  }

  private extension(e: Ext, part: number): Offered {
    const own = this.situation.reach?.find((r) => r.extension === e.id);
    if (own && part >= 10) return this.ownReach(e, own, part - 10);
    const forwarding = (when: string) =>
      this.situation.forwarding?.find((f) => f.extension === e.id && f.when === when);
    const box = to(this.boxOf(e), NO_ANSWER);
    const forward = (f: NonNullable<ReturnType<typeof forwarding>>): Next => ({
      owner: e,
      digits: f.to,
      untaken: f.keyToTake ? box : null,
    });
    const onward = (when: string, cause: Cause): Next => {
      const f = forwarding(when);
      return f ? forward(f) : to(this.boxOf(e), cause);
    };
    if (part !== 2) {
      if (this.from.trunk && this.from.calling === null && e.rejectsWithheld) {
        const { withheldLeadTo } = this.plan.organisation;
        return { next: withheldLeadTo ? { id: withheldLeadTo, part: 0 } : { cause: REFUSED, outcome: 'refused' } };
      }
      const always = forwarding('always');
      if (always) return { next: forward(always) };
      const presence = this.presence(e);
      if (presence?.act === 'busy') return { next: fail(BUSY) };
      if (presence?.act === 'mailbox') return { next: to(this.boxOf(e), BUSY) };
      if (presence?.act === 'forward') return { next: { id: presence.to!, part: 0 } };
      if (!this.names(this.situation.doNotDisturb, e)) {
        if (own) return { next: { id: e.id, part: 10 } };
        if (e.reachPlan) return { next: { id: e.reachPlan, part: 0 } };
      }
    }
    switch (this.phoneBarred(e, part === 2)) {
      case 'disturb':
      case 'busy':
        return { next: onward('busy', BUSY) };
      case 'gone':
        return { next: onward('unreachable', UNREACHABLE) };
      case 'link':
        return { next: onward('unreachable', { q850: 47, sip: 503 }) };
      case null:
        return {
          lands: this.answers(e.id, e.ringSeconds) ? { kind: 'extension', id: e.id, digits: e.digits } : null,
          after: e.ringSeconds,
          next: onward('no answer', NO_ANSWER),
        };
    }
  }

  /** A member is only rung; its presence and do not disturb hold. */
  private memberBarred(e: Ext): 'busy' | 'other' | null {
    const act = this.presence(e)?.act ?? 'ring';
    if (act !== 'ring') return act === 'busy' ? 'busy' : 'other';
    const barred = this.phoneBarred(e);
    return barred === null ? null : barred === 'busy' ? 'busy' : 'other';
  }

  private group(g: Plan['ringGroups'][number]): Offered {
    const members = g.members.map((id) => this.plan.extensions.find((e) => e.id === id)!);
    const speaks = (e: Ext) => (this.situation.lines ?? []).some((l) => l.extension === e.id && l.inUse > 0);
    const barred = (e: Ext) => this.memberBarred(e) ?? (g.skipBusy && speaks(e) ? 'busy' : null);
    const world = { seconds: this.world.seconds, waited: this.world.waited };
    const free: { id: string; out: boolean; leg: string | { dial: string }; owner: Ext | null }[] = [];
    let anyBusy = false;
    const rings = (e: Ext) => {
      const why = barred(e);
      if (why === null) free.push({ id: e.id, out: false, leg: '', owner: null });
      else if (why === 'busy') anyBusy = true;
    };
    const goesOut = (id: string, leg: string | { dial: string }, owner: Ext | null) => {
      if (this.evaluator.outsideLeg(leg, owner, true, this.from).lands) free.push({ id, out: true, leg, owner });
      Object.assign(this.world, world);
    };
    for (const m of members) {
      const digits = g.forwards ? this.sentOn(m) : undefined;
      if (digits === undefined) rings(m);
      else {
        const place = this.evaluator.insideOf(m, digits);
        const phone = this.plan.extensions.find((e) => e.id === place);
        if (place === null) goesOut(digits, { dial: digits }, m);
        else if (phone) rings(phone);
      }
    }
    for (const id of g.outside) goesOut(id, id, null);
    if (free.length === 0) {
      return { next: to(g.allBusy ?? g.noAnswer, anyBusy ? BUSY : UNREACHABLE) };
    }
    // Each of those who ring has so long to answer.
    const plain: [number, number][] = Array.from({ length: 200 }, () => [g.stageMembers, g.stageSeconds]);
    const written = g.stages
      .split(', ')
      .map((t): [number, number] => [Number(t.split(' for ')[0]), Number(t.split(' for ')[1] ?? 0)]);
    const starts: number[] = [];
    let clock = 0;
    for (const [members, seconds] of g.stages === '' ? plain : written) {
      for (let k = 0; k < members; k++) starts.push(clock);
      clock += seconds;
    }
    // The last stage that is written takes all who are left.
    const lastStart = starts.at(-1)!;
    const long = free.map((_, n) =>
      g.order === 'by stages' ? g.ringSeconds - (starts[n] ?? lastStart) : g.ringSeconds,
    );
    const takes = free.map((f, n) => long[n]! > 0 && this.answers(f.id, long[n]!));
    const after = ['in turn', 'at random'].includes(g.order) ? g.ringSeconds * free.length : g.ringSeconds;
    const next = to(g.noAnswer, NO_ANSWER);
    if (free.some((f, n) => !f.out && takes[n]))
      return { lands: { kind: 'ringGroup', id: g.id, digits: g.digits }, after, next };
    const outside = free.find((f, n) => f.out && takes[n]);
    if (!outside) return { lands: null, after, next };
    const left = this.evaluator.outsideLeg(outside.leg, outside.owner, true, this.from);
    if (!left.lands) Object.assign(this.world, world);
    return { lands: left.lands, left, after, next };
  }

  /** The digits to which a member of a group has calls sent, before its phone is asked. */
  private sentOn(m: Ext): string | undefined {
    if ((this.presence(m)?.act ?? 'ring') !== 'ring') return undefined;
    const wish = (when: string) => this.situation.forwarding?.find((f) => f.extension === m.id && f.when === when)?.to;
    const why = this.phoneBarred(m);
    const here = why === 'busy' || why === 'disturb' ? 'busy' : 'unreachable';
    return wish('always') ?? (why === null ? undefined : wish(here));
  }

  private box(box: Plan['mailboxes'][number]): Offered {
    if (!box.on) return { next: fail(NO_ANSWER) };
    if (box.full && this.situation.fullMailboxes?.includes(box.id)) return { next: to(box.full, BUSY) };
    const keys = this.keys();
    const at = keys.findIndex((k) => k.key === box.exitKey && k.atSeconds >= this.world.seconds);
    const after = at < 0 ? Infinity : keys[at]!.atSeconds - this.world.seconds;
    if (after >= box.longestMessageSeconds) return { lands: { kind: 'mailbox', id: box.id, digits: null } };
    this.keysUsed += at + 1;
    return { after, next: to(box.exitTo, NO_ANSWER) };
  }

  private queue(q: Plan['queues'][number]): Offered {
    const at = this.world.call.at + this.world.seconds * 1000;
    const notice = noticeOf(this.situation, q.id, at);
    if (notice?.leadsTo) return { next: { id: notice.leadsTo, part: 0 } };
    const shut = to(q.closed, UNREACHABLE);
    if (q.hours) {
      const says = this.says(q.hours);
      if (says.leadsTo) return { next: to(says.leadsTo, UNREACHABLE) };
      if (!says.open) return { next: shut };
    }
    const levels = [q.agents, q.secondAgents, q.thirdAgents];
    const here = this.plan.extensions.filter(
      (e) =>
        q.permanentAgents.includes(e.id) ||
        (levels.some((l) => l.includes(e.id)) && this.situation.agents?.includes(e.id)),
    );
    if (here.length === 0) return { next: to(q.nobodySignedIn, UNREACHABLE) };
    const waiting = this.situation.queues?.find((x) => x.id === q.id)?.waiting ?? 0;
    const rests = (e: Ext) => this.situation.paused?.includes(e.id) ?? false;
    const later = (e: Ext) => !q.agents.includes(e.id) && [...q.secondAgents, ...q.thirdAgents].includes(e.id);
    const free = here.filter((e) => !rests(e) && !later(e) && this.memberBarred(e) === null).length;
    if (q.mostWaiting !== null && waiting >= q.mostWaiting && free <= waiting) return { next: to(q.full, BUSY) };
    const lands = { kind: 'queue', id: q.id, digits: q.digits };
    // Minute by minute: hours change at whole minutes only.
    const longest = q.longestWaitSeconds ?? Infinity;
    let until = longest;
    let ends: Next = to(q.waitedTooLong, NO_ANSWER);
    if (q.hours && q.closingEmpties) {
      const minutes = Array.from({ length: 1440 }, (_, i) => (Math.floor(at / 60_000) + 1 + i) * 60_000);
      const notices = (this.situation.notices ?? [])
        .flatMap((n) => [n.from, n.until ?? n.from])
        .map((m) => Date.parse(m));
      const shuts = [...minutes, ...notices]
        .filter((m) => m > at && m <= at + 86_400_000)
        .sort((a, b) => a - b)
        .find((m) => !saysHours(this.plan, this.situation, q.hours!, m).open);
      const after = shuts === undefined ? Infinity : Math.ceil((shuts - at) / 1000);
      if (after < longest) [until, ends] = [after, shut];
    }
    if (q.language) this.language = q.language;
    const keys = this.keys();
    for (const [i, press] of keys.entries()) {
      const after = press.atSeconds - this.world.seconds;
      if (after < 0) continue;
      if (after >= until) break;
      if (press.key === q.callbackKey && after >= q.callbackAfterSeconds) {
        this.keysUsed += i + 1;
        return { lands };
      }
      if (press.key !== q.exitKey) continue;
      this.keysUsed += i + 1;
      return { after, next: to(q.exitTo, NO_ANSWER) };
    }
    return until === Infinity ? { lands } : { lands, after: until, next: ends };
  }

  private keys = () => [...(this.situation.keys ?? [])].sort((a, b) => a.atSeconds - b.atSeconds).slice(this.keysUsed);

  private attendant(a: Plan['attendants'][number]): Offered {
    const at = this.world.call.at + this.world.seconds * 1000;
    const own = noticeOf(this.situation, a.id, at);
    const says: Says = own
      ? { open: own.open, mode: 'notice', leadsTo: own.leadsTo ?? null }
      : a.hours
        ? this.says(a.hours)
        : { open: true, mode: 'open', leadsTo: null };
    if (says.leadsTo) return { next: { id: says.leadsTo, part: 0 } };
    const greeting = {
      open: a.greetingOpen,
      closed: a.greetingClosed,
      holiday: a.greetingHoliday,
      notice: a.greetingNotice,
    };
    const keysOf = (mode: string) => this.plan.attendantKeys.filter((k) => k.attendant === a.id && k.mode === mode);
    const bare = (mode: keyof typeof greeting) =>
      !greeting[mode] &&
      keysOf(mode).length === 0 &&
      (mode !== 'open' || (a.directDialling === 'none' && !a.dialByName));
    const wanted = says.mode === 'notice' || says.mode === 'holiday' ? says.mode : null;
    const mode = wanted && !bare(wanted) ? wanted : says.open ? 'open' : 'closed';
    if (bare(mode)) return { next: fail(UNREACHABLE) };
    const keys = keysOf(mode);
    const language = a.language || this.language || this.plan.sites.find((x) => x.id === this.from.site)!.language;
    if (a.language) this.language = a.language;
    const scope = this.plan.extensions.filter(
      (e) => (a.directDialling === 'everyone' || e.site === a.site) && (!a.directMap || takes(a.directMap, e.digits)),
    );
    const digitsOf = (e: Ext): Word => ({ type: 'extension', digits: e.digits, leads: e.id });
    const namesOf = (e: Ext): Word[] =>
      e.person ? this.spelt(e).map((digits) => ({ type: 'name', digits, leads: e.id })) : [];
    const words: Word[] = keys
      .filter((k) => k.key.length === 1)
      .map((k) => ({ type: 'key', digits: k.key, leads: k.id }));
    for (const e of a.directDialling === 'none' && !a.dialByName ? [] : scope) {
      if (a.directDialling !== 'none') words.push(digitsOf(e));
      if (a.dialByName) words.push(...namesOf(e));
    }
    const prefix = this.plan.sites.find((x) => x.id === a.site)!.outsidePrefix;
    if (a.outsideDialling && prefix) words.push({ type: 'outside', digits: prefix, leads: a.id });
    const where = (k: (typeof keys)[number]): Next | null => {
      if (k.does === 'end') return fail({ q850: 16, sip: 200 });
      if (k.does === 'back') return a.above ? { id: a.above, part: 0 } : null;
      return k.does === 'lead' ? { id: k.leadsTo!, part: 0 } : null;
    };
    const end = (which: 'no key' | 'too many tries') => {
      const other = which === 'no key' ? 'too many tries' : 'no key';
      const key = keys.find((k) => k.key === which) ?? keys.find((k) => k.key === other);
      return (key && where(key)) ?? fail(NO_ANSWER);
    };
    const lands = { kind: 'attendant', id: a.id, digits: a.digits };
    const wrongKey = keys.find((k) => k.key === 'wrong key');
    const wrong = wrongKey ? (where(wrongKey) ?? fail(NO_ANSWER)) : null;
    const say = (phrase: Phrase) => this.phraseSeconds(phrase, language);
    const asks =
      (what: 'extension' | 'name') =>
      (at: number): Offered => {
        const start = this.world.seconds;
        this.world.seconds = at;
        const list = what === 'extension' ? scope.map(digitsOf) : scope.flatMap(namesOf);
        const got = this.menu(list, say(`ask ${what}`), a, end, lands, say('wrong key'), null, () => null, a.site);
        this.world.seconds = start;
        return { ...got, after: (got.after ?? 0) + at - start };
      };
    return this.menu(
      words,
      this.seconds(greeting[mode], language),
      a,
      end,
      lands,
      say('wrong key'),
      wrong,
      (id) => {
        const k = keys.find((x) => x.id === id)!;
        if (k.does === 'ask extension') return asks('extension');
        if (k.does === 'ask name') return asks('name');
        const next = where(k);
        if (!next) return 'again';
        const stays = k.does === 'end' ? { lands } : {};
        const more = k.silent || k.does === 'end' ? 0 : say('hand-over');
        return (at) => ({ ...stays, after: at - this.world.seconds + more, next });
      },
      a.site,
    );
  }

  /** The language that the call speaks since a place that has one; empty: that of the site where it came in. */
  private language: string;

  private phraseSeconds(phrase: Phrase, language: string): number {
    const own = this.plan.prompts.find((p) => p.phrase === phrase);
    if (own) return this.seconds(own.id, language);
    const tag = language.slice(0, 2) as 'en';
    return secondsToSay((PHRASE_TEXTS[tag] ?? PHRASE_TEXTS.en)[phrase]);
  }

  /** A name on the keypad, first and last name either way round. */
  private spelt(e: Ext): string[] {
    const person = this.plan.people.find((p) => p.id === e.person)!;
    const name = person.spelling || person.name;
    const fold = (long: boolean) =>
      name
        .toLowerCase()
        .split(/[\s,]+/)
        .filter(Boolean)
        .map((word) =>
          [...word.normalize('NFC')]
            .map((c) => (long && { ä: 'ae', ö: 'oe', ü: 'ue' }[c]) || { ß: 'ss', æ: 'ae', ø: 'o', ı: 'i' }[c] || c)
            .join('')
            .normalize('NFKD')
            .replace(/[\u0300-\u036f'’.-]/g, ''),
        );
    const pad = (text: string) => [...text].map((c) => '22233344455566677778889999'[c.charCodeAt(0) - 97]).join('');
    const forms = [fold(false), fold(true)].filter((words) => words.every((w) => /^[a-z]*$/.test(w)));
    const out = forms.flatMap((words) =>
      words.length < 2
        ? [pad(words.join(''))]
        : [pad(words.join('')), pad([words.at(-1)!, ...words.slice(0, -1)].join(''))],
    );
    return [...new Set(out)].filter((d) => d.length >= 3);
  }

  /** A caller's keys at a menu: tries, a pause between digits, E3 among keys, extensions and names. */
  private menu(
    words: Word[],
    greeting: number,
    times: { digitSeconds: number; chooseSeconds: number; tries: number },
    end: (which: 'no key' | 'too many tries') => Next,
    lands: Stop['lands'],
    wrongSeconds: number,
    wrong: Next | null,
    press: (key: string) => 'again' | ((at: number) => Offered) | null,
    site: string,
  ): Offered {
    const keys = this.keys();
    const start = this.world.seconds;
    let i = keys.findIndex((k) => k.atSeconds >= start);
    if (i < 0) i = keys.length;
    let begin = start;
    for (let attempt = 1; attempt <= times.tries; attempt++) {
      const deadline = begin + greeting + times.chooseSeconds;
      const next = keys[i];
      if (!next || next.atSeconds > deadline) {
        if (next && attempt < times.tries) {
          begin = deadline;
          continue;
        }
        this.keysUsed += i;
        const left = times.tries - attempt;
        return { lands, after: deadline - start + left * (greeting + times.chooseSeconds), next: end('no key') };
      }
      const got = this.choice(words, keys, i, times.digitSeconds);
      i = got.next;
      const [word] = got.words;
      if (!word) {
        begin = got.at;
        if (wrong) {
          this.keysUsed += i;
          return { after: got.at - start, next: wrong };
        }
        if (attempt < times.tries) begin += wrongSeconds;
        continue;
      }
      const pressed = word.type === 'key' ? press(word.leads) : null;
      if (pressed === 'again') {
        begin = got.at;
        attempt = 0;
        continue;
      }
      if (word.type !== 'name') {
        this.keysUsed += i;
        if (pressed) return pressed(got.at);
        const next = word.type === 'outside' ? { dial: got.digits, site } : { id: word.leads, part: 0 };
        return { after: got.at - start, next };
      }
      return this.readOut([...new Set(got.words.map((w) => w.leads))], keys, i, got.at, end, lands);
    }
    this.keysUsed += i;
    return { after: begin - start, next: end('too many tries') };
  }

  private choice(
    words: Word[],
    keys: Key[],
    from: number,
    pause: number,
  ): { words: Word[]; digits: string; at: number; next: number } {
    const begins = (w: Word, digits: string) =>
      w.type === 'outside'
        ? digits.length <= w.digits.length
          ? w.digits.startsWith(digits)
          : digits.startsWith(w.digits) && digits.length <= w.digits.length + 31
        : w.digits.startsWith(digits);
    const is = (w: Word, digits: string) => {
      if (w.type === 'name') return digits.length >= 3 && w.digits.startsWith(digits);
      if (w.type === 'outside') return begins(w, digits) && digits.length > w.digits.length;
      return w.digits === digits;
    };
    const grows = (w: Word, digits: string) =>
      begins(w, digits) && digits.length < w.digits.length + (w.type === 'outside' ? 31 : 0);
    const fits = (digits: string): Word[] => {
      const order = (w: Word) => ['key', 'extension', 'name', 'outside'].indexOf(w.type);
      const exact = words.filter((w) => is(w, digits)).sort((a, b) => order(a) - order(b));
      if (exact[0]?.type !== 'name') return exact.slice(0, 1);
      const people = exact.filter((w) => w.type === 'name');
      const whole = people.filter((w) => w.digits === digits);
      return whole.length > 0 ? whole : people;
    };
    let digits = '';
    let at = keys[from]!.atSeconds;
    for (let i = from; ; i++) {
      const press = keys[i];
      if (!press || (i > from && press.atSeconds > at + pause))
        return { words: fits(digits), digits, at: at + pause, next: i };
      at = Math.max(at, press.atSeconds);
      const longer = digits + press.key;
      if (!words.some((w) => begins(w, longer)))
        return { words: press.key === '#' && i > from ? fits(digits) : [], digits, at, next: i + 1 };
      digits = longer;
      if (fits(digits).length > 0 && !words.some((w) => grows(w, digits)))
        return { words: fits(digits), digits, at, next: i + 1 };
    }
  }

  private readOut(
    ids: string[],
    keys: Key[],
    used: number,
    at: number,
    end: (which: 'no key') => Next,
    lands: Stop['lands'],
  ): Offered {
    const start = this.world.seconds;
    if (ids.length === 1) {
      this.keysUsed += used;
      return { after: at - start, next: { id: ids[0]!, part: 0 } };
    }
    const offered = ids.slice(0, 9);
    const heard = at + offered.length * 3;
    const press = keys[used];
    const choice = press && press.atSeconds <= heard + 3 ? offered[Number(press.key) - 1] : undefined;
    this.keysUsed += used + (choice ? 1 : 0);
    if (choice) return { after: press!.atSeconds - start, next: { id: choice, part: 0 } };
    return { lands, after: heard - start, next: end('no key') };
  }

  private reach(plan: Plan['reachPlans'][number], part: number): Offered {
    const steps = this.plan.reachSteps.filter((s) => s.reachPlan === plan.id).sort((a, b) => a.position - b.position);
    const owner = this.plan.extensions.find((e) => e.reachPlan === plan.id) ?? null;
    return this.search(
      steps.map((s) => ({ ...s, leg: s.outside, answersAs: s.outside, off: !this.isNow(s, owner) })),
      { owner, showsCaller: plan.showsCaller, end: plan.end, id: plan.id, first: 0 },
      part,
    );
  }

  /** Whether a step of a plan is taken now. */
  private isNow(s: Plan['reachSteps'][number], owner: Ext | null): boolean {
    const hours = s.hours === null || this.says(s.hours).open === (s.when === 'open');
    if (!hours || s.presences.length === 0) return hours;
    const p = this.situation.presence ?? {};
    const state = owner && (p[owner.id] ?? p[owner.person ?? '']);
    return this.plan.presenceRules.some((r) => s.presences.includes(r.id) && (r.id === state || r.activity === state));
  }

  /** A person's own steps: digits go out from their own phone, and the mailbox comes last. */
  private ownReach(e: Ext, own: NonNullable<Situation['reach']>[number], part: number): Offered {
    const steps = own.steps.map((s) => ({
      withPrevious: s.withPrevious ?? false,
      extension: s.extension ?? null,
      seconds: s.seconds,
      leg: s.dial ? { dial: s.dial } : null,
      answersAs: s.dial ?? null,
      off: false,
    }));
    const showsCaller = own.showsCaller ?? true;
    return this.search(steps, { owner: e, showsCaller, end: this.boxOf(e), id: e.id, first: 10 }, part);
  }

  private search(
    steps: readonly Step[],
    of: { owner: Ext | null; showsCaller: boolean; end: string | null; id: string; first: number },
    part: number,
  ): Offered {
    const groups: Step[][] = [];
    for (const s of steps) {
      if (s.withPrevious && groups.length > 0) groups.at(-1)!.push(s);
      else groups.push([s]);
    }
    const phone = (id: string) => this.plan.extensions.find((e) => e.id === id)!;
    const leg = (to: NonNullable<Step['leg']>) => {
      const { seconds, waited } = this.world;
      const left = this.evaluator.outsideLeg(to, of.owner, of.showsCaller, this.from);
      if (!left.lands) Object.assign(this.world, { seconds, waited });
      return left;
    };
    const probe = (to: NonNullable<Step['leg']>) => {
      const { seconds, waited } = this.world;
      const rings = leg(to).lands !== null;
      Object.assign(this.world, { seconds, waited });
      return rings;
    };
    const ringing = (group: readonly Step[]) =>
      group.filter((s) => !s.off && (s.extension ? this.phoneBarred(phone(s.extension)) === null : probe(s.leg!)));
    const endCause = (): Cause => {
      if (groups.some((g) => ringing(g).length > 0)) return NO_ANSWER;
      const busy = steps.some((s) => !s.off && s.extension && this.phoneBarred(phone(s.extension)) === 'busy');
      return busy ? BUSY : UNREACHABLE;
    };
    const next: Next = part + 1 < groups.length ? { id: of.id, part: of.first + part + 1 } : to(of.end, endCause());
    const now = ringing(groups[part] ?? []);
    if (now.length === 0) return { next };
    const after = Math.max(...now.map((s) => s.seconds));
    const inside = now.find((s) => s.extension && this.answers(s.extension, s.seconds));
    if (inside) {
      const e = phone(inside.extension!);
      return { lands: { kind: 'extension', id: e.id, digits: e.digits }, after, next };
    }
    const outside = now.find((s) => s.leg && this.answers(s.answersAs!, s.seconds));
    if (!outside) return { after, next };
    const left = leg(outside.leg!);
    return { lands: left.lands, left, after, next };
  }
}

/** One phone of a reach plan, or of a person's own one. */
interface Step {
  withPrevious: boolean;
  extension: string | null;
  seconds: number;
  leg: string | { dial: string } | null;
  answersAs: string | null;
  /** it is not taken now */
  off: boolean;
}

interface Word {
  type: 'key' | 'extension' | 'name' | 'outside';
  digits: string;
  leads: string;
}
type Key = { atSeconds: number; key: string };

/** What one place does: who is offered the call, after how long it goes on, and where. */
interface Offered {
  lands?: Stop['lands'] | null;
  left?: Ended;
  failed?: Ended;
  after?: number;
  next?: Next;
}
