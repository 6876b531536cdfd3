import { closePool } from '@/server/db/pool';
import { api } from '@/server/http/api';
import { frontServer } from '@/server/http/front';
import { socketOf } from '@/server/sockets';
import { endWithStarter } from './with-starter';

/* The web process: answers the API and hands pages on, on the port that the environment says, until it is told to end. */

endWithStarter();
const hosts = (process.env.POLYDROME_HOSTS ?? '')
  .toLowerCase()
  .split(/[\s,]+/)
  .filter(Boolean);
const server = frontServer(api, socketOf('pages'), hosts);
server.listen(Number(process.env.POLYDROME_PORT), process.env.POLYDROME_ADDRESS || '127.0.0.1');
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    server.close(() => void closePool().finally(() => process.exit(0)));
    server.closeIdleConnections();
    // Streams of progress stay open for as long as somebody looks.
    setTimeout(() => server.closeAllConnections(), 500).unref();
  });
