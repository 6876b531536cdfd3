import compression from 'compression';
import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { toNodeHandler } from 'srvx/node';
import { serve } from './door';
import { segmentsOf } from './paths';

/** Answers below this many octets go as they are. */
const LEAST_TO_COMPRESS = 4096;

/** What every answer of the API carries: it is data, never a document that could act. */
const HEADERS = {
  'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
};

const compress = compression({
  threshold: LEAST_TO_COMPRESS,
  // A stream of events goes out event by event.
  filter: (request, response) =>
    !String(response.getHeader('content-type')).startsWith('text/event-stream') &&
    compression.filter(request, response),
});

const answered = toNodeHandler((request) =>
  serve(request, segmentsOf(new URL(request.url).pathname)!.slice(2)),
) as RequestListener;

/** The API as a listener of a server of Node. The path must be one that `segmentsOf` can read. */
export const api: RequestListener = (request: IncomingMessage, response: ServerResponse) => {
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
  compress(request as Parameters<typeof compress>[0], response as Parameters<typeof compress>[1], () => {
    void answered(request, response);
  });
};
