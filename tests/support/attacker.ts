import { BASE } from './browser';

/** One hostile request: what was sent, said so that it can be sent again. */
export interface Attack {
  method: string;
  path: string;
  headers?: Record<string, string>;
  body?: string;
}

export interface Outcome extends Attack {
  status: number;
  milliseconds: number;
  text: string;
}

/** What has no answer after so long hangs, however busy the machine is. */
const HANGS_MS = 60_000;

/** What no answer may tell of us: folders, stacks, statements, other programs' words. */
const TELLS = [
  /\/(?:work|home|usr|root|srv)\/[\w.-]+\//,
  /\bat (?:async )?[\w.<>]+ \(?(?:file|node):/,
  /ER_[A-Z_]{4,}|errno|sqlState|ECONN|mysql|mariadb/i,
  /\b(?:SELECT|INSERT INTO|UPDATE|DELETE FROM)\b.*\b(?:FROM|WHERE|SET|VALUES)\b/,
  /TypeError|RangeError|ReferenceError|SyntaxError|ZodError/,
  /root:x:0:0/,
];

/** Sends hostile requests, several at once, and gathers what must not be. */
export class Attacker {
  sent = 0;
  slowest = 0;
  late = 0;
  readonly wrong: string[] = [];
  readonly statuses = new Map<number, number>();

  async send(attack: Attack, more: (outcome: Outcome) => string | null = () => null): Promise<void> {
    const begun = performance.now();
    let outcome: Outcome;
    try {
      const response = await fetch(BASE + attack.path, {
        method: attack.method,
        headers: attack.headers,
        body: attack.body,
        redirect: 'manual',
        signal: AbortSignal.timeout(HANGS_MS),
      });
      const text = response.headers.get('content-type')?.includes('event-stream') ? '' : await response.text();
      outcome = { ...attack, status: response.status, milliseconds: performance.now() - begun, text };
    } catch (e) {
      // A head that no program reads is refused by ending the line; everything else is answered.
      this.wrong.push(`${tell(attack)}: no answer (${(e as Error).message})`);
      return;
    }
    this.sent++;
    if (outcome.milliseconds > 1000) this.late++;
    this.slowest = Math.max(this.slowest, outcome.milliseconds);
    this.statuses.set(outcome.status, (this.statuses.get(outcome.status) ?? 0) + 1);
    const broken = this.brokenBy(outcome) ?? more(outcome);
    if (broken) this.wrong.push(`${tell(attack)}: ${broken}`);
  }

  private brokenBy({ status, text }: Outcome): string | null {
    if (status >= 500) return `${status} ${text.slice(0, 200)}`;
    if (status < 400) return null;
    const told = TELLS.find((t) => t.test(text));
    return told ? `tells ${told}: ${text.slice(0, 200)}` : null;
  }

  /** Does all of some work, so many at once. */
  async all<T>(items: readonly T[], work: (item: T) => Promise<void>, atOnce = 8): Promise<void> {
    const left = [...items].reverse();
    await Promise.all(
      Array.from({ length: atOnce }, async () => {
        for (let item = left.pop(); item !== undefined; item = left.pop()) await work(item);
      }),
    );
  }

  report(): string {
    const late = `${this.late} over a second`;
    const statuses = [...this.statuses].sort(([a], [b]) => a - b).map(([s, n]) => `${n} × ${s}`);
    return `${this.sent} requests, slowest ${this.slowest.toFixed(0)} ms, ${late}, ${statuses.join(', ')}`;
  }
}

const tell = ({ method, path, headers, body }: Attack) =>
  `${method} ${path.slice(0, 200)} ${JSON.stringify(headers ?? {}).slice(0, 120)} ${JSON.stringify(body ?? '').slice(0, 200)}`;
