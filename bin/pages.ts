import { rmSync } from 'node:fs';
import { createServer } from 'node:http';
import next from 'next';
import { socketOf } from '@/server/sockets';
import { endWithStarter } from './with-starter';

/* The process that renders pages: listens on a local socket, where the web process hands on what asks for one. */

endWithStarter();
process.title = 'polydrome pages';
const dev = process.env.NODE_ENV === 'development';
const app = next({ dev, dir: process.cwd(), hostname: '127.0.0.1', port: Number(process.env.POLYDROME_PORT) });
await app.prepare();
const handle = app.getRequestHandler();
const server = createServer((request, response) => void handle(request, response));
if (dev) server.on('upgrade', app.getUpgradeHandler());
// The web process keeps its connections for as long as it lives.
server.keepAliveTimeout = 0;
const socket = socketOf('pages');
rmSync(socket, { force: true });
server.listen(socket);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
