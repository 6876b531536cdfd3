import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Where the database is and who the application is there; from the environment that the start command sets. */
export interface DatabaseConfig {
  host: string;
  port: number;
  user: string;
  password: string;
  database: string;
}

/** The folder with the application's own files: database password, key of secrets. */
export function dataFolder(): string {
  return process.env.POLYDROME_DATA ?? join(process.cwd(), '.data');
}

export function databaseConfig(): DatabaseConfig {
  const own = process.env.POLYDROME_DB_URL;
  if (own) return fromUrl(new URL(own));
  return {
    host: '127.0.0.1',
    port: Number(process.env.POLYDROME_DB_PORT ?? 4606),
    user: 'polydrome',
    password: readFileSync(join(dataFolder(), 'db-password'), 'utf8').trim(),
    database: 'polydrome',
  };
}

/** The start command has looked at the address already. */
const fromUrl = (url: URL): DatabaseConfig => ({
  host: url.hostname.replace(/^\[|\]$/g, ''),
  port: Number(url.port || 3306),
  user: decodeURIComponent(url.username),
  password: decodeURIComponent(url.password),
  database: decodeURIComponent(url.pathname.slice(1)),
});
