import { COUNTRY_FACTS } from '@/core/numbers/facts';
import type { Plan } from '@/core/plan';
import type { Call, Cause, Situation } from '@/core/routing';
import { DIALLED, Walker, type Chain, type From } from './destinations';
import { after, goesOn, literal, nullable, readMap, takes, type Lang } from './maps';
import { noticeOf, saysHours } from './clock';
import { about, callerFits, read, write, type Read } from './numbers';
import { active, leaves, type Ended, type Right, type World } from './leaving';

/*
 * The rules of routing by plain recursion over the plan, written from the specification and sharing nothing with the engine but
 * the plan's types and the tables of short numbers: no automata, no indexes, nothing kept from one question to the next.
 */

export type Answer = Ended & { secondsWaited: number };

type Ext = Plan['extensions'][number];
type Trunk = Plan['trunks'][number];
type Site = Plan['sites'][number];

interface Rule {
  lang: Lang;
  timed: Lang | null;
  is:
    | { what: 'emergency'; number: string; test: boolean }
    | { what: 'object'; id: string }
    | { what: 'service'; code: Plan['serviceCodes'][number] }
    | { what: 'rung'; rung: Plan['rungs'][number] };
}

export function evaluate(plan: Plan, call: Call, situation: Situation): Answer {
  return new Evaluator(plan, call, situation).answer();
}

const none = {
  lands: null,
  then: [],
  kind: null,
  rule: null,
  trunk: null,
  digitsSent: null,
  shownNumber: null,
  e164: null,
};
const ended = (outcome: Ended['outcome'], cause: Cause | null, more: Partial<Ended> = {}): Ended => ({
  ...none,
  outcome,
  cause,
  ...more,
});
const UNALLOCATED = { q850: 1, sip: 404 };
const INCOMPLETE = { q850: 28, sip: 484 };
const REFUSED = { q850: 21, sip: 403 };

class Evaluator {
  private readonly world: World;

  constructor(
    private readonly plan: Plan,
    private readonly call: Call,
    private readonly situation: Situation,
  ) {
    this.world = {
      plan,
      situation,
      call,
      seconds: 0,
      waited: 0,
      landed: false,
      landedAt: 0,
      spoken: '',
      begins: '',
      pressed: 0,
      trunk: null,
      withheld: call.withhold ?? false,
    };
  }

  answer(): Answer {
    const { from } = this.call;
    const end =
      from.type === 'extension'
        ? this.fromPhone(this.plan.extensions.find((e) => e.id === from.id)!)
        : from.type === 'trunk'
          ? this.byTrunk(
              this.plan.trunks.find((t) => t.id === from.id)!,
              this.call.dial,
              from.calling,
              [],
            )
          : this.fromOutside(from.calling);
    const sent = end.outcome === 'routed' && this.situation.transfers ? this.transfers(end) : end;
    return { ...sent, secondsWaited: this.world.waited };
  }

  private site = (id: string): Site => this.plan.sites.find((s) => s.id === id)!;
  private spaceOf = (site: string): string => (this.plan.organisation.numberSpace === 'organisation' ? 'all' : site);

  /** E4: everything that a caller at a site can dial, in the order of rank. */
  rules(caller: { person: string | null; site: string }, siteId = caller.site): Rule[] {
    const site = this.site(siteId);
    const out: Rule[] = [];
    const facts = COUNTRY_FACTS[site.country]!;
    const emergencies = [
      ...facts.emergency.map((number) => ({ number, test: false })),
      ...(facts.emergencyTest ? [{ number: facts.emergencyTest, test: true }] : []),
    ];
    for (const { number, test } of emergencies)
      for (const head of site.outsidePrefix ? ['', site.outsidePrefix] : [''])
        out.push({ lang: literal(head + number), timed: null, is: { what: 'emergency', number, test } });
    for (const list of DIALLED)
      for (const o of this.plan[list] as { id: string; digits?: string | null; site: string }[]) {
        if (!o.digits) continue;
        const own = this.spaceOf(o.site) === this.spaceOf(siteId);
        const code = this.site(o.site).siteCode;
        const forms = own ? [o.digits] : [];
        if (this.plan.organisation.numberSpace === 'site' && code) forms.push(code + o.digits);
        for (const f of forms) out.push({ lang: literal(f), timed: null, is: { what: 'object', id: o.id } });
      }
    for (const code of this.plan.serviceCodes)
      if (this.spaceOf(code.site) === this.spaceOf(siteId))
        out.push({ lang: literal(code.digits), timed: null, is: { what: 'service', code } });
    const rungs = this.plan.rungs.filter((r) => r.ladder === site.ladder).sort((a, b) => a.position - b.position);
    for (const rung of rungs) {
      const all = [...rung.forPeople, ...rung.forTeams, ...rung.forSites].length === 0;
      if (!all && !listed(this.plan, rung.forPeople, rung.forTeams, rung.forSites, caller)) continue;
      if (rung.hours && !saysHours(this.plan, this.situation, rung.hours, this.now()).open) continue;
      const map = readMap(rung.map);
      out.push({ lang: map.all, timed: map.timed, is: { what: 'rung', rung } });
    }
    return out;
  }

  private now = (): number => this.call.at + this.world.seconds * 1000;

  /** The rule that takes a whole string. */
  whole(rules: Rule[], digits: string): Rule | undefined {
    return rules.find((r) => nullable([...digits].reduce((l, c) => after(l, c), r.lang)));
  }

  private wait(seconds: number): void {
    this.world.seconds += seconds;
    if (!this.world.landed) this.world.waited += seconds;
  }

  /** E3: digits one at a time, or as a block. */
  private collect(rules: Rule[], dial: string): { rule: Rule; digits: string; rest: string } | Ended {
    const { firstDigitSeconds, interDigitSeconds } = this.plan.organisation;
    let left = rules.map((rule) => ({ rule, lang: rule.lang, timed: rule.timed }));
    const winner = () => left.find((x) => nullable(x.lang));
    for (let i = 0; i < dial.length; i++) {
      const before = winner();
      const next = left.map((x) => ({
        rule: x.rule,
        lang: after(x.lang, dial[i]!),
        timed: x.timed && after(x.timed, dial[i]!),
      }));
      if (!next.some((x) => nullable(x.lang) || goesOn(x.lang))) {
        if (!this.call.enBloc && dial[i] === '#' && before)
          return { rule: before.rule, digits: dial.slice(0, i), rest: dial.slice(i + 1) };
        return ended('unroutable', UNALLOCATED);
      }
      left = next;
      const now = winner();
      if (this.call.enBloc || !now) continue;
      const grows = left.some((x) => goesOn(x.lang)) || (now.timed !== null && nullable(now.timed));
      if (now.rule.is.what === 'emergency' || !grows || i + 1 === 32)
        return { rule: now.rule, digits: dial.slice(0, i + 1), rest: dial.slice(i + 1) };
    }
    if (!this.call.enBloc) this.wait(dial === '' ? firstDigitSeconds : interDigitSeconds);
    const now = dial === '' ? undefined : winner();
    return now ? { rule: now.rule, digits: dial, rest: '' } : ended('incomplete', INCOMPLETE);
  }

  private fromPhone(ext: Ext): Ended {
    const rules = this.rules(ext);
    let found = this.collect(rules, this.call.dial);
    if ('outcome' in found) return found;
    if (found.rule.is.what === 'service' && found.rule.is.code.service === 'withhold number' && found.rest !== '') {
      this.world.withheld = true;
      found = this.collect(rules, found.rest);
      if ('outcome' in found) return found;
    }
    const { is } = found.rule;
    const from: From = { trunk: null, calling: null, phone: ext, site: ext.site };
    switch (is.what) {
      case 'emergency':
        return this.emergency(is.number, ext);
      case 'service':
        return this.service(is.code, ext, from);
      case 'object':
        return this.inside(ext, is.id, from);
      case 'rung':
        return leaves(this.world, is.rung, found.digits, {
          owner: ext,
          caller: ext,
          rights: [{ cos: ext.class, right: 'allow', pin: true }],
          from,
          diverted: false,
          showsCaller: false,
          transit: false,
          site: ext.site,
        });
    }
  }

  private inside(ext: Ext, id: string, from: From): Ended {
    const right = this.plan.classes.find((c) => c.id === ext.class)!.rights.internal;
    if (!right.allow || (right.pin && this.situation.pin === undefined))
      return ended('refused', REFUSED, { kind: 'internal', rule: id });
    const end = this.walk(id, from);
    const landed = end.lands?.id ? this.siteOfObject(end.lands.id) : null;
    const there = landed ?? this.siteOfObject(id)!;
    const code = this.spaceOf(there) === this.spaceOf(ext.site) ? '' : (this.site(ext.site).siteCode ?? '');
    return {
      ...end,
      kind: end.kind ?? 'internal',
      rule: end.rule ?? id,
      shownNumber: end.trunk === null ? code + ext.digits : end.shownNumber,
    };
  }

  private siteOfObject(id: string): string | null {
    for (const list of [...DIALLED, 'mailboxes'] as const) {
      const found = (this.plan[list] as { id: string; site: string }[]).find((o) => o.id === id);
      if (found) return found.site;
    }
    return null;
  }

  private walk(id: string, from: From, part = 0): Ended {
    const chain: Chain = new Walker(this.world, from, this).visit({ id, part }, 0, [], []);
    const [first, ...rest] = chain.stops;
    if (!first) return chain.end!;
    const last = chain.end
      ? [
          {
            afterSeconds: chain.endAt,
            kind: chain.end.lands?.kind ?? 'tone',
            id: chain.end.lands?.id ?? null,
          },
        ]
      : [];
    return {
      ...(first.left ?? ended('routed', null)),
      outcome: 'routed',
      lands: first.lands,
      then: [...rest.map((s) => ({ afterSeconds: s.at, kind: s.lands.kind, id: s.lands.id })), ...last],
      cause: null,
    };
  }

  /** E15: each transfer is a new call of the one who transfers, with their class, that carries the party transferred. */
  private transfers(first: Ended): Ended {
    const { from: who } = this.call;
    const caller = who.type === 'extension' ? this.plan.extensions.find((e) => e.id === who.id)! : null;
    const { trunk } = this.world;
    if (!caller && !trunk) return first;
    let from: From = caller
      ? { trunk: null, calling: null, phone: caller, site: caller.site }
      : { trunk: trunk!, calling: (who as { calling: string | null }).calling, phone: null, site: trunk!.site };
    let now = first;
    let since = this.world.landedAt;
    for (const t of [...this.situation.transfers!].sort((a, b) => a.atSeconds - b.atSeconds)) {
      const by = this.plan.extensions.find((e) => e.id === t.by)!;
      const party = now.outcome === 'routed' && t.atSeconds >= since ? this.partyFor(by, now, from) : null;
      if (!party) continue;
      this.world.seconds = since = t.atSeconds;
      // Whoever is sent on has been taken: seconds count until somebody took the call.
      this.world.landed = true;
      this.world.begins = party === from ? this.world.spoken : '';
      now = this.sentOn(now, t, by, party);
      from = party;
    }
    return now;
  }

  /** Who hangs on when somebody transfers: the other end of the call they are in. */
  private partyFor(by: Ext, now: Ended, from: From): From | null {
    const { lands } = now;
    if (from.phone?.id === by.id) {
      const out = lands?.kind === 'outside' && now.trunk ? this.plan.trunks.find((x) => x.id === now.trunk)! : null;
      if (out) return { trunk: out, calling: null, phone: null, site: out.site };
      const phone = this.plan.extensions.find((e) => e.id === lands?.id);
      return phone && lands?.kind === 'extension' ? { trunk: null, calling: null, phone, site: phone.site } : null;
    }
    const group = this.plan.ringGroups.find((g) => g.id === lands?.id);
    const queue = this.plan.queues.find((q) => q.id === lands?.id);
    const took =
      lands?.id === by.id ||
      (group && lands?.kind === 'ringGroup' && group.members.includes(by.id)) ||
      (queue &&
        lands?.kind === 'queue' &&
        [queue.agents, queue.permanentAgents, queue.secondAgents, queue.thirdAgents].flat().includes(by.id));
    return took ? from : null;
  }

  private sentOn(before: Ended, t: NonNullable<Situation['transfers']>[number], by: Ext, party: From): Ended {
    const next = this.newCall(t.to, by, party);
    const due = t.atSeconds + (party.trunk?.recallSeconds ?? this.plan.organisation.recallSeconds);
    const { spoken, pressed } = this.world;
    const recall = (at: number, comesBackOnly: boolean): Ended => {
      this.world.seconds = at;
      const back = this.walk(by.id, party);
      if (comesBackOnly) Object.assign(this.world, { spoken, pressed });
      return back;
    };
    const kept = { ...next, kind: next.kind ?? before.kind };
    const { lands } = next;
    const selfTaking = ['mailbox', 'queue', 'attendant', 'announcement', 'directory', 'conference', 'fax', 'pageGroup'];
    if (lands && selfTaking.includes(lands.kind)) return kept;
    const answer = this.situation.answers?.find((a) => a.id === lands?.id);
    if (lands && (!answer || answer.afterSeconds <= due - t.atSeconds)) {
      const until = next.then.findIndex(
        (x) => x.afterSeconds >= due || (x.kind === 'tone' && x.id === null) || selfTaking.includes(x.kind),
      );
      const stop = until < 0 ? undefined : next.then[until]!;
      if (stop && stop.afterSeconds < due && selfTaking.includes(stop.kind))
        return { ...kept, then: next.then.slice(0, until + 1) };
      const at = stop && stop.afterSeconds < due ? stop.afterSeconds : due;
      const back = recall(at, true);
      const first = { afterSeconds: at, kind: back.lands?.kind ?? 'tone', id: back.lands?.id ?? null };
      return { ...kept, then: [...next.then.slice(0, until < 0 ? undefined : until), first, ...back.then] };
    }
    return { ...recall(lands ? due : t.atSeconds, false), kind: before.kind, rule: before.rule };
  }

  private newCall(to: string, by: Ext, party: From): Ended {
    const refused = ended('failed', { q850: 20, sip: 480 });
    const internal = this.plan.classes.find((c) => c.id === by.class)!.rights.internal;
    const mayInside = internal.allow && (!internal.pin || this.situation.pin !== undefined);
    const inside = (id: string) => (mayInside ? this.walk(id, party) : ended('refused', REFUSED, { kind: 'internal' }));
    if (!/^[0-9*#]{1,32}$/.test(to)) return inside(to);
    const rule = this.whole(this.rules(by), to);
    switch (rule?.is.what) {
      case undefined:
        return refused;
      case 'emergency':
        return party.trunk ? refused : this.emergency(rule!.is.what === 'emergency' ? rule!.is.number : '', by);
      case 'object':
        return inside((rule!.is as { id: string }).id);
      case 'service': {
        const { code } = rule!.is as { code: Plan['serviceCodes'][number] };
        return code.service === 'park' ? this.walk(code.parkPlace!, party) : refused;
      }
      case 'rung':
        return leaves(this.world, (rule!.is as { rung: Plan['rungs'][number] }).rung, to, {
          owner: by,
          caller: by,
          rights: [{ cos: by.class, right: party.trunk ? 'transfer' : 'allow', pin: !party.trunk }],
          from: { ...party, site: by.site },
          diverted: false,
          showsCaller: false,
          transit: party.trunk !== null,
          site: by.site,
        });
    }
  }

  private emergency(number: string, ext: Ext): Ended {
    const site = this.site(ext.site);
    const base = { rule: 'emergency', kind: 'emergency' as const };
    const list = site.emergencyTrunks
      .map((id) => this.plan.trunks.find((t) => t.id === id)!)
      .filter((t) => this.site(t.site).country === site.country);
    for (const trunk of [...list.filter((t) => t.site === site.id), ...list.filter((t) => t.site !== site.id)]) {
      const state = this.situation.trunks?.find((t) => t.id === trunk.id);
      const inUse = Math.max(state?.inUse ?? 0, new Set(state?.busyChannels?.filter((c) => c <= trunk.channels)).size);
      if (!trunk.enabled || state?.up === false || inUse >= trunk.channels) continue;
      if (state?.fails) {
        if (state.fails.noResponse) this.wait(4);
        continue;
      }
      const wanted = [ext.emergencyCallback, site.emergencyCallback, site.mainNumber]
        .map((id) => active(this.world, id))
        .find((n) => n);
      const shown = wanted && wanted.trunk === trunk.id ? wanted : active(this.world, trunk.ownNumber);
      return ended('routed', null, {
        ...base,
        lands: { kind: 'outside', id: trunk.id, digits: number },
        trunk: trunk.id,
        digitsSent: number,
        shownNumber: shown ? write(shown.e164, trunk.writes, this.site(trunk.site)) : null,
      });
    }
    return ended('failed', { q850: 34, sip: 503 }, base);
  }

  private service(code: Plan['serviceCodes'][number], ext: Ext, from: From): Ended {
    const base = { rule: code.id, kind: 'internal' as const };
    const tone = () => ended('routed', null, { ...base, lands: { kind: 'tone', id: code.id, digits: code.digits } });
    switch (code.service) {
      case 'test emergency': {
        const test = COUNTRY_FACTS[this.site(ext.site).country]!.emergencyTest;
        return test
          ? this.emergency(test, ext)
          : ended('unroutable', UNALLOCATED, { rule: code.id, kind: 'emergency' });
      }
      case 'mailbox':
        return ext.mailbox
          ? ended('routed', null, { ...base, lands: { kind: 'mailbox', id: ext.mailbox, digits: null } })
          : ended('failed', { q850: 20, sip: 480 }, base);
      case 'park':
        return { ...this.walk(code.parkPlace!, from), ...base };
      case 'queue sign-in':
      case 'queue sign-out':
      case 'queue pause': {
        const queue = this.plan.queues.find((q) => q.id === code.queue)!;
        return [queue.agents, queue.permanentAgents, queue.secondAgents, queue.thirdAgents].flat().includes(ext.id)
          ? tone()
          : ended('failed', { q850: 20, sip: 480 }, base);
      }
      default:
        return tone();
    }
  }

  /** E9: by whichever trunk owns the dialled number. */
  private fromOutside(calling: string | null): Ended {
    const number = this.plan.numbers.find((n) => n.e164 === this.call.dial);
    const trunk = number?.trunk ? this.plan.trunks.find((t) => t.id === number.trunk)! : null;
    if (!number || !trunk) return ended('unroutable', UNALLOCATED, { e164: this.call.dial });
    return this.byTrunk(trunk, this.delivered(trunk, number.e164), calling, []);
  }

  private delivered(trunk: Trunk, e164: string): string {
    const form = trunk.deliveredForm === 'private' ? 'significant' : trunk.deliveredForm;
    let digits = write(e164, form, this.site(trunk.site));
    if (trunk.deliveredHead && digits.startsWith(trunk.deliveredHead))
      digits = digits.slice(trunk.deliveredHead.length);
    const most = trunk.deliveredLength;
    return most !== null && digits.replace('+', '').length > most ? digits.slice(-most) : digits;
  }

  private byTrunk(trunk: Trunk, delivered: string, calling: string | null, tried: string[]): Ended {
    const state = this.situation.trunks?.find((t) => t.id === trunk.id);
    const inUse = Math.max(state?.inUse ?? 0, new Set(state?.busyChannels?.filter((c) => c <= trunk.channels)).size);
    const down = !trunk.enabled || state?.up === false;
    if (down || inUse >= trunk.channels - trunk.keptForEmergency)
      return (
        this.overflow(trunk, calling, [...tried, trunk.id]) ??
        ended('failed', down ? { q850: 38, sip: 503 } : { q850: 34, sip: 503 }, { trunk: trunk.id })
      );
    this.world.trunk = trunk;
    const site = this.site(trunk.site);
    const called = this.readDelivered(trunk, delivered, site);
    const number = calling === null ? null : (about(this.plan, calling, site).e164 ?? calling);
    const from: From = { trunk, calling: number, phone: null, site: trunk.site };
    const done = (e: Ended): Ended => ({ ...e, trunk: e.trunk ?? trunk.id, e164: e.e164 ?? called.e164 });
    const back = this.callback(called.e164, from);
    if (back) return done(back);
    const turnedAway = (rule: string, to: string | null): Ended =>
      done(to ? { ...this.walk(to, from), rule } : ended('refused', REFUSED, { rule }));
    const { organisation } = this.plan;
    for (const now of this.situation.blocked ?? []) {
      if (now.calling !== number || ![null, site.id].includes(now.site)) continue;
      const ofSite = now.site === null ? null : site.blockedLeadTo;
      return turnedAway('blocked', now.leadsTo ?? ofSite ?? organisation.blockedLeadTo);
    }
    for (const by of [organisation, site])
      if (number !== null && by.blockedCallers && takes(by.blockedCallers, number))
        return turnedAway('blocked', by.blockedLeadTo);
    if (number === null && organisation.rejectsWithheld) return turnedAway('withheld', organisation.withheldLeadTo);
    const isPrivate = called.kind === 'private';
    const ours = isPrivate ? null : this.plan.numbers.find((n) => n.e164 === called.e164);
    const otherwise = () =>
      done(
        trunk.otherwise
          ? { ...this.walk(trunk.otherwise, from), rule: 'otherwise' }
          : ended('unroutable', UNALLOCATED, { rule: 'otherwise' }),
      );
    if (!isPrivate && !(ours && active(this.world, ours.id))) return otherwise();
    const notice = ours && noticeOf(this.situation, ours.id, this.call.at);
    if (notice?.leadsTo) return done({ ...this.walk(notice.leadsTo, from), rule: ours!.id });
    const text = called.e164 ?? called.significant;
    for (const route of [...this.plan.inboundRoutes].sort((a, b) => a.position - b.position)) {
      if (route.trunk !== null && route.trunk !== trunk.id) continue;
      const named = route.numbers.some((id) => this.plan.numbers.find((n) => n.id === id)!.e164 === text);
      if (!named && !(route.calledMap && takes(route.calledMap, text))) continue;
      if (!callerFits(route, number)) continue;
      return done({ ...this.throughRoute(route, called, from), rule: route.id });
    }
    if (ours?.belongsTo) return done({ ...this.walk(ours.belongsTo, from), rule: ours.id });
    return otherwise();
  }

  private overflow(trunk: Trunk, calling: string | null, tried: string[]): Ended | null {
    if (!trunk.overflowTo) return null;
    const number = this.plan.numbers.find((n) => n.e164 === trunk.overflowTo);
    const next = number?.trunk ? this.plan.trunks.find((t) => t.id === number.trunk)! : null;
    if (!next)
      return ended('routed', null, {
        trunk: trunk.id,
        e164: trunk.overflowTo,
        lands: { kind: 'outside', id: trunk.id, digits: trunk.overflowTo },
      });
    if (tried.includes(next.id)) return null;
    return this.byTrunk(next, this.delivered(next, trunk.overflowTo), calling, tried);
  }

  private readDelivered(trunk: Trunk, delivered: string, site: Site): Read {
    const digits = (trunk.deliveredHead + delivered).replace(/^\+/, '');
    const form = trunk.deliveredForm;
    if (form === 'plus' || form === 'digits') return read(this.plan, digits, 'international', site);
    return read(
      this.plan,
      form === 'significant' ? `0${digits}` : digits,
      form === 'significant' ? 'national' : form,
      site,
    );
  }

  /** E4: a call back within the hour to a callback number that is no main number. */
  private callback(e164: string | null, from: From): Ended | null {
    const made = (this.situation.emergencyCalls ?? [])
      .filter((c) => c.shownNumber === e164)
      .filter((c) => this.call.at - Date.parse(c.at) <= 3_600_000 && Date.parse(c.at) <= this.call.at)
      .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
      .at(-1);
    if (!made) return null;
    const number = this.plan.numbers.find((n) => n.e164 === e164);
    if (
      number &&
      (this.plan.sites.some((s) => s.mainNumber === number.id) ||
        this.plan.trunks.some((t) => t.ownNumber === number.id))
    )
      return null;
    const phone = this.plan.extensions.find((e) => e.id === made.extension)!;
    const walker = new Walker(this.world, from, this);
    if (!walker.phoneBarred(phone, true)) return this.walk(phone.id, from, 2);
    const site = this.site(phone.site);
    const named = this.plan.extensions.filter(
      (e) => e.person && site.emergencyNotify.includes(e.person) && e.id !== phone.id && !walker.phoneBarred(e, true),
    );
    if (named.length === 0) return null;
    const [first] = named;
    return ended('routed', null, {
      lands: { kind: 'extension', id: first!.id, digits: first!.digits },
      then: [{ afterSeconds: Math.max(...named.map((e) => e.ringSeconds)), kind: 'tone', id: null }],
    });
  }

  private throughRoute(route: Plan['inboundRoutes'][number], called: Read, from: From): Ended {
    const own = noticeOf(this.situation, route.id, this.now());
    if (own?.leadsTo) return this.walk(own.leadsTo, from);
    let instead: string | null = null;
    const rules = this.plan.routeRules.filter((r) => r.route === route.id).sort((a, b) => a.position - b.position);
    for (const rule of rules) {
      const says = own
        ? { open: own.open, mode: 'notice', leadsTo: null }
        : saysHours(this.plan, this.situation, rule.hours, this.now());
      const fits = rule.when === 'open' ? says.open : rule.when === 'closed' ? !says.open : rule.when === says.mode;
      if (fits) return this.walk(says.leadsTo ?? rule.leadsTo, from);
      if (says.leadsTo && !says.open) instead ??= says.leadsTo;
    }
    if (instead) return this.walk(instead, from);
    if (route.dialledExtension) return this.dialled(called.significant, from);
    return route.leadsTo ? this.walk(route.leadsTo, from) : ended('unroutable', UNALLOCATED);
  }

  private dialled(digits: string, from: From): Ended {
    const on = this.dialledOn(digits, from, from.site);
    return 'go' in on ? this.walk(on.go, from) : on.end;
  }

  /** E6 b: digits that a caller chose, as dialled inside a site. */
  dialledOn(digits: string, from: From, site: string, inside = true): { go: string } | { end: Ended } {
    const caller = { person: from.phone?.person ?? null, site: from.site };
    const rules = this.rules(caller, site);
    const taking = rules.filter((r) => nullable([...digits].reduce((l, c) => after(l, c), r.lang)));
    if (taking.some((r) => r.is.what === 'emergency')) return { end: ended('unroutable', UNALLOCATED) };
    const rule = taking.find((r) => (inside && r.is.what === 'object') || r.is.what === 'rung');
    if (!rule) return { end: ended('unroutable', UNALLOCATED) };
    if (rule.is.what === 'object') return { go: rule.is.id };
    const { rung } = rule.is as { rung: Plan['rungs'][number] };
    const { phone } = from;
    return {
      end: leaves(this.world, rung, digits, {
        owner: phone,
        caller,
        rights: phone ? [{ cos: phone.class, right: 'allow', pin: true }] : [],
        from,
        diverted: !phone,
        showsCaller: !phone,
        transit: !phone,
        site,
      }),
    };
  }

  /** E6: an outside number of the plan, as from its site; digits of the owner's own, as from the owner's phone. */
  outsideLeg(id: string | { dial: string }, owner: Ext | null, showsCaller: boolean, from: From): Ended {
    const known = typeof id === 'string' ? this.plan.outsideNumbers.find((o) => o.id === id)! : null;
    const number = known ?? { ...owner!, dial: (id as { dial: string }).dial };
    const caller = { person: from.phone?.person ?? null, site: from.site };
    const rule = this.whole(this.rules(caller, number.site), number.dial);
    if (!rule) return ended('unroutable', UNALLOCATED);
    if (rule.is.what === 'emergency') return ended('refused', REFUSED);
    if (rule.is.what !== 'rung') return ended('unroutable', UNALLOCATED);
    const rights: Right[] = from.phone
      ? [{ cos: from.phone.class, right: 'allow', pin: true }]
      : [
          ...(owner ? [{ cos: owner.class, right: 'forward' as const, pin: false }] : []),
          ...(known ? [{ cos: known.class, right: 'forward' as const, pin: false }] : []),
        ];
    return leaves(this.world, rule.is.rung, number.dial, {
      owner: owner ?? {
        id: number.id,
        digits: number.digits ?? '',
        site: number.site,
        outgoingNumber: null,
        withholdNumber: false,
      },
      caller,
      rights,
      from,
      diverted: true,
      showsCaller,
      transit: false,
      site: number.site,
    });
  }

  /** E11: digits of a person's forwarding, dialled at their phone. */
  /** The place of ours behind digits of a phone; null: outside, or nothing. */
  insideOf(owner: Ext, digits: string): string | null {
    const rule = this.whole(this.rules(owner), digits);
    return rule?.is.what === 'object' ? rule.is.id : null;
  }

  forwarded(owner: Ext, digits: string, from: From): { go: string } | { left: Ended } | { end: Ended } {
    const rule = this.whole(this.rules(owner), digits);
    if (!rule) return { end: ended('failed', UNALLOCATED) };
    if (rule.is.what === 'object') return { go: rule.is.id };
    if (rule.is.what === 'emergency') return { end: ended('refused', REFUSED) };
    if (rule.is.what === 'service') return { end: ended('refused', { q850: 20, sip: 480 }) };
    return {
      left: leaves(this.world, rule.is.rung, digits, {
        owner,
        caller: owner,
        rights: [{ cos: owner.class, right: from.trunk ? 'forward' : 'allow', pin: false }],
        from,
        diverted: true,
        showsCaller: true,
        transit: false,
        site: owner.site,
      }),
    };
  }
}

/** Whether one of three lists names somebody, a team of theirs, or their site. */
export function listed(
  plan: Plan,
  people: readonly string[],
  teams: readonly string[],
  sites: readonly string[],
  who: { person: string | null; site: string },
): boolean {
  const person = plan.people.find((p) => p.id === who.person);
  return (
    sites.includes(who.site) ||
    (person !== undefined && (people.includes(person.id) || person.teams.some((t) => teams.includes(t))))
  );
}

export type { Evaluator };
