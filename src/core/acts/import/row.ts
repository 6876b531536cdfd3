import { plainCell } from '../../formats';
import {
  pinRefusal,
  type AnyObject,
  type Extension,
  type Mailbox,
  type ObjectKind,
  type Person,
  type Plan,
  type PlanNumber,
} from '../../plan';
import { cellsOf, nameKey, readName, readOwnNumber, readYesNo, wrong, type Cell, type Lookup } from './cells';
import type { ColumnKey } from './columns';
import type { ImportSettings, ImportedSecret, RowOutcome } from './outcome';
import { newMailbox, newPerson, readAfterMail, readKind, readSeconds } from './row-values';

/** The cells of one row, by what they are; columns that the sheet has not are missing. */
export type RowCells = Partial<Record<ColumnKey, string>>;

/** What is known and gathered while the rows of a sheet are gone through. */
export interface RowWork {
  plan: Plan;
  look: Lookup;
  settings: ImportSettings;
  makeId: () => string;
  spaceOf: (site: string) => string;
  /** what has digits already, by number space and digits */
  taken: ReadonlyMap<string, { kind: ObjectKind; object: { id: string; name: string } }>;
  /** rows by number space and digits */
  rowOfDigits: Map<string, number>;
  /** what rows say of things that several rows may be about: by thing and column */
  said: Map<string, { row: number; text: string }>;
  touched: Map<string, { kind: ObjectKind; before: AnyObject | null; after: AnyObject; row: number }>;
  /** numbers that extensions are to have, where the sheet says so */
  ownersOfNumbers: Map<string, { row: number; numbers: PlanNumber[] }>;
  secrets: ImportedSecret[];
}

const LEAST_PASSWORD = 12;

/** Takes one row: finds or makes its extension, person and mailbox, and says what changes or what is wrong. */
export function applyRow(work: RowWork, cells: RowCells, outcome: RowOutcome): void {
  const fail = (column: ColumnKey | null, sentence: string) => void outcome.errors.push({ column, sentence });
  const digits = cells.digits ?? '';
  if (digits === '') return fail('digits', 'The extension is missing: its digits say which one the row is about.');
  if (!/^[0-9]{1,10}$/.test(digits))
    return fail('digits', `“${digits}” are no digits of an extension: 1 to 10 of 0-9.`);
  const site = siteOfRow(work, cells, digits, fail);
  if (site === null) return;
  const key = `${work.spaceOf(site)} ${digits}`;
  const twice = work.rowOfDigits.get(key);
  if (twice !== undefined) return fail('digits', `Row ${twice + 1} is about ${digits} already.`);
  work.rowOfDigits.set(key, outcome.row);
  const known = work.taken.get(key);
  if (known && known.kind !== 'extension') return fail('digits', `${digits} is already ${known.object.name}.`);
  const before = (known?.object as Extension | undefined) ?? null;
  const row = new Row(work, cells, outcome, before, site, fail);
  row.take();
}

function siteOfRow(
  work: RowWork,
  cells: RowCells,
  digits: string,
  fail: (column: ColumnKey, sentence: string) => void,
): string | null {
  const { look, plan, settings } = work;
  if (cells.site) {
    const found = readName(cells.site, 'site', look);
    if (found.ok) return found.value;
    fail('site', found.sentence);
    return null;
  }
  if (plan.organisation.numberSpace === 'organisation') {
    const known = work.taken.get(`organisation ${digits}`);
    if (known?.kind === 'extension') return (known.object as Extension).site;
  }
  const inRange = plan.sites.find((s) =>
    s.ranges.some((r) => r.from.length === digits.length && r.from <= digits && digits <= r.to),
  );
  const site = inRange?.id ?? settings.site;
  if (!site) fail('site', `No site is named, and ${digits} is in no site’s range.`);
  return site;
}

/** One row with the extension it is about. */
class Row {
  private readonly now: Record<ColumnKey, string> | null;
  private readonly extension: Extension;

  constructor(
    private readonly work: RowWork,
    private readonly cells: RowCells,
    private readonly outcome: RowOutcome,
    private readonly before: Extension | null,
    private readonly site: string,
    private readonly fail: (column: ColumnKey | null, sentence: string) => void,
  ) {
    this.now = before && cellsOf(before, work.look);
    this.extension = before
      ? { ...before }
      : ({
          id: work.makeId(),
          digits: cells.digits!,
          kind: 'person',
          site,
          ringSeconds: 25,
          place: '',
          note: '',
        } as Extension);
  }

  take(): void {
    this.itself();
    const person = this.extension.kind === 'person' ? this.person() : null;
    const mailbox = this.mailbox(person);
    this.numbers();
    this.passwords(mailbox);
    const { before, extension, outcome, work } = this;
    work.touched.set(extension.id, { kind: 'extension', before, after: extension, row: outcome.row });
    outcome.name = outcome.name || extension.name;
    outcome.action = before === null ? 'add' : outcome.changes.length > 0 ? 'change' : 'same';
  }

  /** The text of a column where the sheet has it and it says something else than the plan; null otherwise. */
  private news(column: ColumnKey): string | null {
    const text = this.cells[column];
    if (text === undefined || (this.now !== null && text === plainCell(this.now[column]))) return null;
    return this.now === null && text === '' ? null : text;
  }

  /** Takes a column's text as a value and puts it in place; notes the change or what is wrong. */
  private put<T>(
    column: ColumnKey,
    read: (text: string) => Cell<T>,
    into: (value: T) => void,
    same?: (value: T) => boolean,
  ) {
    const text = this.news(column);
    if (text === null) return;
    const cell = read(text);
    if (!cell.ok) return this.fail(column, cell.sentence);
    if (same?.(cell.value)) return;
    into(cell.value);
    if (this.now) this.outcome.changes.push({ column, before: this.now[column], after: text });
  }

  private itself(): void {
    const { extension: e, work, before } = this;
    const { look, settings } = work;
    const text = (value: string): Cell<string> => ({ ok: true, value });
    const filled = (title: string) => (value: string) => (value === '' ? wrong(`${title} is empty.`) : text(value));
    this.put('name', filled('The name'), (v) => (e.name = v));
    if (e.name === undefined) {
      this.fail('name', 'The name is missing.');
      e.name = e.digits;
    }
    this.put(
      'kind',
      (t) => readKind(t),
      (v) => (e.kind = v),
      (v) => v === before?.kind,
    );
    if (e.site !== this.site) {
      this.outcome.changes.push({ column: 'site', before: this.now!.site, after: look.nameOf.get(this.site)! });
      e.site = this.site;
    }
    this.put(
      'class',
      (t) => readName(t, 'class', look),
      (v) => (e.class = v),
      (v) => v === before?.class,
    );
    if (e.class === undefined) {
      if (settings.class) e.class = settings.class;
      else if (!this.cells.class) this.fail('class', 'No class of service is named.');
    }
    this.put(
      'ringSeconds',
      readSeconds,
      (v) => (e.ringSeconds = v),
      (v) => v === before?.ringSeconds,
    );
    this.put(
      'withholdNumber',
      readYesNo,
      (v) => (e.withholdNumber = v),
      (v) => v === before?.withholdNumber,
    );
    this.put('place', text, (v) => (e.place = v));
    this.put('note', text, (v) => (e.note = v));
    const site = look.sites.get(this.site)!;
    this.put(
      'outgoingNumber',
      (t): Cell<string | null> => {
        if (t === '') return { ok: true, value: null };
        const number = readOwnNumber(t, site, look);
        return number.ok ? { ok: true, value: number.value.id } : number;
      },
      (v) => (e.outgoingNumber = v),
      (v) => v === (before?.outgoingNumber ?? null),
    );
  }

  /** The person at the extension: the known one, or a new one when the row is new or says anything about one. */
  private person(): Person | null {
    const { extension: e, work, cells, before } = this;
    const { look } = work;
    const said = (['person', 'email', 'teams', 'language', 'spelling'] as const).some((c) => this.news(c));
    const known = e.person ? look.people.get(e.person)! : null;
    if (!known && before && !said) return null;
    const touched = known && (work.touched.get(known.id)?.after as Person | undefined);
    const p: Person = touched ?? (known ? { ...known } : newPerson(work.makeId(), this.site));
    this.shared(p.id, ['person', 'email', 'teams', 'language', 'spelling']);
    const text = (value: string): Cell<string> => ({ ok: true, value });
    this.put('person', text, (v) => (p.name = v || e.name));
    // A person called like the extension follows its new name, unless the sheet names the person.
    if (cells.person === undefined && (!known || known.name === before?.name)) p.name = e.name;
    if (p.name === '') p.name = e.name ?? '';
    this.put('email', text, (v) => (p.email = v === '' ? null : v));
    this.put('language', text, (v) => (p.language = v));
    this.put('spelling', text, (v) => (p.spelling = v));
    this.put(
      'teams',
      (t) => this.teams(t),
      (v) => (p.teams = v),
      (v) => v.join() === known?.teams.join(),
    );
    if (e.site !== before?.site && known) p.site = e.site;
    e.person = p.id;
    work.touched.set(p.id, { kind: 'person', before: known, after: p, row: this.outcome.row });
    return p;
  }

  private teams(text: string): Cell<string[]> {
    const { look, settings, makeId, touched } = this.work;
    const ids: string[] = [];
    for (const name of text
      .split(';')
      .map((t) => t.trim())
      .filter(Boolean)) {
      const found = readName(name, 'team', look);
      if (found.ok) ids.push(found.value);
      else if (!settings.makeTeams) return found;
      else {
        const made = [...touched.values()].find(
          (t) => t.kind === 'team' && nameKey((t.after as { name: string }).name) === nameKey(name),
        );
        const id = made?.after.id ?? makeId();
        if (!made)
          touched.set(id, {
            kind: 'team',
            before: null,
            after: { id, name, note: '' } as AnyObject,
            row: this.outcome.row,
          });
        ids.push(id);
      }
    }
    return { ok: true, value: [...new Set(ids)] };
  }

  /** Something that several rows are about must be said alike by all of them. */
  private shared(id: string, columns: readonly ColumnKey[]): void {
    for (const column of columns) {
      const text = this.cells[column];
      if (text === undefined) continue;
      const key = `${id} ${column}`;
      const other = this.work.said.get(key);
      if (other && other.text !== text)
        this.fail(
          column,
          `Row ${other.row + 1} says “${other.text}” of the same ${column === 'mailTo' ? 'mailbox' : 'one'}.`,
        );
      else this.work.said.set(key, { row: this.outcome.row, text });
    }
  }

  private mailbox(person: Person | null): Mailbox | null {
    const { extension: e, work, before } = this;
    const known = e.mailbox ? work.look.mailboxes.get(e.mailbox)! : null;
    // Whoever gives a PIN or an address for messages wants a mailbox, unless the sheet says otherwise.
    let wanted = known !== null || (before === null && Boolean(this.cells.pin || this.cells.mailTo));
    this.put(
      'mailbox',
      readYesNo,
      (v) => (wanted = v),
      (v) => v === wanted,
    );
    if (!wanted) {
      e.mailbox = null;
      return null;
    }
    const touched = known && (work.touched.get(known.id)?.after as Mailbox | undefined);
    const m: Mailbox = touched ?? (known ? { ...known } : newMailbox(work.makeId(), this.site, person));
    this.shared(m.id, ['mailTo', 'attachSound', 'afterMail']);
    if (!known || known.name === before?.name) m.name = e.name;
    this.put(
      'mailTo',
      (t) => ({ ok: true, value: t }),
      (v) => (m.email = v === '' ? null : v),
    );
    this.put(
      'attachSound',
      readYesNo,
      (v) => (m.attachSound = v),
      (v) => v === known?.attachSound,
    );
    this.put(
      'afterMail',
      readAfterMail,
      (v) => (m.afterMail = v),
      (v) => v === known?.afterMail,
    );
    if (known && e.site !== before?.site) m.site = e.site;
    e.mailbox = m.id;
    work.touched.set(m.id, { kind: 'mailbox', before: known, after: m, row: this.outcome.row });
    return m;
  }

  private numbers(): void {
    const { work, extension, outcome, before } = this;
    const site = work.look.sites.get(this.site)!;
    const owned = before ? (work.look.numbersOf.get(before.id) ?? []) : [];
    const ids = (list: readonly PlanNumber[]) =>
      list
        .map((n) => n.id)
        .sort()
        .join();
    let numbers: PlanNumber[] = [...owned];
    this.put(
      'numbers',
      (t): Cell<PlanNumber[]> => {
        const list: PlanNumber[] = [];
        for (const part of t
          .split(/[;\n]/)
          .map((x) => x.trim())
          .filter(Boolean)) {
          const number = readOwnNumber(part, site, work.look);
          if (!number.ok) return number;
          list.push(number.value);
        }
        return { ok: true, value: list };
      },
      (v) => (numbers = v),
      (v) => ids(v) === ids(owned),
    );
    if (this.cells.numbers !== undefined) work.ownersOfNumbers.set(extension.id, { row: outcome.row, numbers });
  }

  private passwords(mailbox: Mailbox | null): void {
    const { cells, extension: e, work, before } = this;
    if (cells.pin) {
      const why = mailbox
        ? pinRefusal(cells.pin, e.digits, work.plan.organisation.pinLeastDigits)
        : 'There is no mailbox to have a PIN.';
      if (why) this.fail('pin', why);
      else {
        work.secrets.push({ owner: mailbox!.id, purpose: 'pin', plain: cells.pin });
        if (before) this.outcome.changes.push({ column: 'pin', before: '', after: 'set anew' });
      }
    }
    if (cells.sipPassword && !/^[\x21-\x7e]{12,64}$/.test(cells.sipPassword))
      return this.fail(
        'sipPassword',
        `A SIP password has ${LEAST_PASSWORD} to 64 letters, digits and signs, no blanks.`,
      );
    const needed = before === null || (before.kind === 'virtual' && !before.sipPassword);
    if (e.kind === 'virtual' || (!cells.sipPassword && !needed)) return;
    e.sipPassword = { version: (before?.sipPassword?.version ?? 0) + 1 };
    work.secrets.push({ owner: e.id, purpose: 'sip-password', plain: cells.sipPassword || null });
    if (before) this.outcome.changes.push({ column: 'sipPassword', before: '', after: 'set anew' });
  }
}
