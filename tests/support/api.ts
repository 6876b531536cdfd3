import { createConnection, type Connection } from 'mysql2/promise';
import { ADMIN, AUDITOR, BASE, HELPDESK, sessionOf } from './browser';

export interface Answer<T = Record<string, unknown>> {
  status: number;
  body: T & {
    error?: { code: string; path: string; sentence: string; [key: string]: unknown };
    errors?: { path: string; sentence: string }[];
  };
}

/** One client of the API: anonymous, with a session's cookie, or with a bearer token. */
export class Client {
  private constructor(private readonly headers: Record<string, string>) {}

  static anonymous = () => new Client({});
  static bearer = (token: string) => new Client({ authorization: `Bearer ${token}` });

  static withCookie = (cookie: string) => new Client({ cookie, 'sec-fetch-site': 'same-origin' });

  static async signedIn([name, password]: readonly [string, string]): Promise<Client> {
    const session = await sessionOf(name, password);
    return Client.withCookie(`${session.name}=${session.value}`);
  }

  async send<T = Record<string, unknown>>(
    method: string,
    path: string,
    body?: unknown,
    more: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const raw = typeof body === 'string' ? body : body === undefined ? undefined : JSON.stringify(body);
    const response = await fetch(`${BASE}/api/v1${path}`, {
      method,
      body: raw,
      headers: { ...this.headers, ...(raw === undefined ? {} : { 'content-type': 'application/json' }), ...more },
    });
    const json = response.headers.get('content-type')?.includes('json') ?? false;
    return { status: response.status, body: (json ? await response.json() : {}) as Answer<T>['body'] };
  }

  /** What the server writes of a page. */
  page = async (path: string): Promise<string> =>
    (await fetch(`${BASE}${path}`, { headers: { ...this.headers, 'sec-fetch-site': 'none' } })).text();

  /** Sends a file as it is. */
  async file(path: string, content: string | Uint8Array, method = 'POST'): Promise<Answer<{ id: string }>> {
    const body = typeof content === 'string' ? content : Uint8Array.from(content);
    const response = await fetch(`${BASE}/api/v1${path}`, { method, body, headers: this.headers });
    return { status: response.status, body: (await response.json()) as Answer<{ id: string }>['body'] };
  }

  /** What a path answers, octet by octet. */
  octets = async (path: string): Promise<Uint8Array> =>
    new Uint8Array(await (await fetch(`${BASE}/api/v1${path}`, { headers: this.headers })).arrayBuffer());

  /** What a path answers, as text with its type. */
  async text(path: string): Promise<{ status: number; type: string; text: string }> {
    const response = await fetch(`${BASE}/api/v1${path}`, { headers: this.headers });
    return { status: response.status, type: response.headers.get('content-type') ?? '', text: await response.text() };
  }

  async bytes(path: string): Promise<Uint8Array> {
    const response = await fetch(`${BASE}/api/v1${path}`, { headers: this.headers });
    return new Uint8Array(await response.arrayBuffer());
  }

  get = <T = Record<string, unknown>>(path: string) => this.send<T>('GET', path);
  post = <T = Record<string, unknown>>(path: string, body: unknown = {}) => this.send<T>('POST', path, body);
  delete = <T = Record<string, unknown>>(path: string) => this.send<T>('DELETE', path);
  put = <T = Record<string, unknown>>(path: string, body: unknown) => this.send<T>('PUT', path, body);
}

export const admin = () => Client.signedIn(ADMIN);
export const helpdesk = () => Client.signedIn(HELPDESK);
export const auditor = () => Client.signedIn(AUDITOR);

/** The plan as a document, loosely typed for tests. */
export type Document = Record<string, { id: string; [key: string]: unknown }[]>;

export async function objectIn(
  client: Client,
  of: string,
  list: string,
  id: string,
): Promise<Record<string, unknown> | undefined> {
  return (await client.get<Document>(`/plan?of=${of}`)).body[list]!.find((o) => o.id === id);
}

/** A connection with all rights to the database under test. */
export function database(name = 'polydrome'): Promise<Connection> {
  const admin = JSON.parse(process.env.POLYDROME_MIGRATE!) as Parameters<typeof createConnection>[0] & object;
  return createConnection({ ...admin, database: name, multipleStatements: false });
}

/** Row version of an object, straight from its table. */
export async function rowVersion(table: string, id: string): Promise<number> {
  const connection = await database();
  const [rows] = await connection.query<import('mysql2').RowDataPacket[]>('SELECT row_version FROM ?? WHERE id = ?', [
    table,
    id,
  ]);
  await connection.end();
  return rows[0]!.row_version as number;
}
