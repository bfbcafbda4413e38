import { existsSync } from 'node:fs';
import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import express, { type ErrorRequestHandler, type Request, type Response } from 'express';
import { problemDocument } from '../core/compute/readRequest';
import { requestJsonSchema, responseJsonSchema } from '../core/compute/jsonSchema';
import { serverLimits } from '../core/compute/limits';
import { ComputePool, type PoolOptions } from './pool';

// Both this file and its bundle in dist/node lie two levels (or one) below the root.
const appFolder = [new URL('../app/', import.meta.url), new URL('../dist/app/', import.meta.url)]
  .map((url) => fileURLToPath(url))
  .find((path) => existsSync(`${path}index.html`) && existsSync(`${path}assets`));

const headers = {
  'Content-Security-Policy':
    "default-src 'self'; img-src 'self' blob:; worker-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'none'",
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
} as const;

/** Begins an answer of a type. */
function begin(response: ServerResponse, status: number, type: string, retryAfter?: number): void {
  const retry = retryAfter === undefined ? {} : { 'Retry-After': retryAfter };
  response.writeHead(status, { ...headers, ...retry, 'Content-Type': `${type}; charset=utf-8` });
}

function sendProblem(response: ServerResponse, problem: ReturnType<typeof problemDocument>): void {
  begin(response, problem.status, 'application/problem+json');
  response.end(JSON.stringify(problem));
}

const isLoopback = (host: string): boolean => /^(localhost|127(\.\d+){3}|::1|\[::1\])$/.test(host);

/**
 * A server that is for this machine alone answers to its own names, and to no page from elsewhere:
 * any page that is open in a browser here could otherwise have it compute, or read through a name
 * of its own that it points here.
 */
function isForeign({ headers: { host = '', origin, ...rest } }: IncomingMessage): boolean {
  return (
    !isLoopback(host.replace(/:\d+$/, '')) ||
    rest['sec-fetch-site'] === 'cross-site' ||
    (origin !== undefined && origin !== `http://${host}`)
  );
}

const notFromElsewhere = problemDocument(
  [
    {
      path: '',
      message:
        'This server answers only to this machine, by 127.0.0.1, [::1] or localhost. Start it with --host to have it answer others.',
    },
  ],
  403,
  'Not from elsewhere',
);

/** Whether a body says that it is JSON in UTF-8: what says anything else is not read. */
const isJson = ({ headers }: IncomingMessage): boolean =>
  /^application\/json\s*(?:;\s*charset\s*=\s*"?utf-8"?\s*)?$/i.test(headers['content-type'] ?? '');

/** Reads a body as it is: more than this is never held, and compressed ones are not opened further. */
const readPlain = express.raw({ limit: serverLimits.bytes, type: isJson });
const readPacked = express.raw({ limit: serverLimits.inflated, type: isJson });

/** What went wrong with a request before it was read, or with us, as the answer to it. */
function sendFailure(error: { status?: number; type?: string; message?: string }, response: ServerResponse): void {
  const tooLarge = error.type === 'entity.too.large';
  const status = error.status && error.status >= 400 && error.status < 500 ? error.status : 500;
  const message = tooLarge
    ? `The request is larger than ${serverLimits.bytes / 1024 / 1024} MiB, or compressed larger than ${serverLimits.inflated / 1024 / 1024} MiB when inflated. Split it.`
    : status < 500
      ? `The request cannot be read: ${error.message ?? 'its form is unknown'}.`
      : 'The server failed at this request; the fault is ours.';
  if (status === 500) console.error(error);
  sendProblem(response, problemDocument([{ path: '', message }], status === 400 ? 422 : status));
}

const computePath = /^\/api\/compute\/?(\?|$)/i;

/** Has a request to compute read and answered by the pool. */
function compute(pool: ComputePool, request: IncomingMessage, response: ServerResponse): void {
  if (!isJson(request)) {
    const message = 'Send the request as JSON in UTF-8, with the content type application/json.';
    return sendProblem(response, problemDocument([{ path: '', message }], 415, 'Not JSON'));
  }
  // Answered before the body has come: a client may be sending gigabytes.
  const announced = Number(request.headers['content-length'] ?? 0);
  if (announced > serverLimits.bytes) {
    response.setHeader('Connection', 'close');
    sendFailure({ status: 413, type: 'entity.too.large' }, response);
    request.on('error', () => undefined).resume();
    response.once('finish', () => request.socket.destroySoon());
    return;
  }
  const read = (request.headers['content-encoding'] ?? 'identity') === 'identity' ? readPlain : readPacked;
  // The reader of bodies asks for nothing that a plain request has not.
  void read(request as Request, response as Response, (error?: unknown) => {
    if (error) return sendFailure(error, response);
    const { body } = request as Request<unknown, unknown, unknown>;
    const asker = Object.assign(response, {
      begin: (status: number, type: string, retryAfter?: number) => begin(response, status, type, retryAfter),
    });
    pool.answer(body instanceof Uint8Array ? body : new Uint8Array(0), asker);
  });
}

/**
 * The application, the compute interface by a pool of threads, and nothing else. What is to be
 * computed does not go by the router, which would cost as much as a small answer.
 */
export function createHandler(pool: ComputePool, folder = appFolder, local = false): RequestListener {
  const app = createApp(folder);
  return (request, response) => {
    if (local && isForeign(request)) sendProblem(response, notFromElsewhere);
    else if (request.method === 'POST' && computePath.test(request.url ?? '')) compute(pool, request, response);
    else app(request, response);
  };
}

function createApp(folder: string | undefined) {
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.set(headers);
    next();
  });
  app.all('/api/compute', (_request, response) => {
    response.set('Allow', 'POST');
    sendProblem(
      response,
      problemDocument([{ path: '', message: 'Send the request with POST.' }], 405, 'Only POST is answered here'),
    );
  });
  app.get('/api/schema/compute', (_request, response) => {
    response.type('application/schema+json').send(JSON.stringify(requestJsonSchema()));
  });
  app.get('/api/schema/answers', (_request, response) => {
    response.type('application/schema+json').send(JSON.stringify(responseJsonSchema()));
  });
  app.use('/api', (_request, response) => {
    sendProblem(
      response,
      problemDocument([{ path: '', message: 'The interface is POST /api/compute.' }], 404, 'There is nothing here'),
    );
  });
  // Pages are read and nothing else.
  app.use((request, response, next) => {
    if (['GET', 'HEAD'].includes(request.method)) return next();
    response.set('Allow', 'GET, HEAD');
    const message = 'Pages are read with GET; requests to compute are sent to /api/compute with POST.';
    sendProblem(response, problemDocument([{ path: '', message }], 405, 'Only GET is answered here'));
  });
  if (folder) {
    app.use(
      express.static(folder, {
        index: false,
        redirect: false,
        // Names in assets/ change with what is in them; the rest is asked for anew.
        setHeaders: (response, path) => {
          const lasting = /[\\/]assets[\\/]/.test(path);
          response.setHeader('Cache-Control', lasting ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      }),
    );
    // The page asks for what lies beside it, so it is answered at one folder's depth alone.
    app.get('/{*path}', ({ path }, response) => {
      const [first = '', ...deeper] = path.slice(1).split('/');
      // A part of a page of another build: a page in its place would be taken for it.
      if (first === 'assets' || /\.(js|css|map|woff2?|png|svg|json|webmanifest)$/i.test(path)) {
        response.status(404).type('text/plain').send('There is nothing here.');
        return;
      }
      if (deeper.length) response.redirect(/^[\w-]+$/.test(first) ? `/${first}` : '/');
      else response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: folder });
    });
  }
  const onError: ErrorRequestHandler = (error: Error, _request, response, _next) => {
    void _next;
    sendFailure(error, response);
  };
  app.use(onError);
  return app;
}

/**
 * Listens on the first free port from the one asked for (up to twenty on), and says which were
 * taken.
 */
export async function serve({
  port,
  host,
  folder,
  ...options
}: { port: number; host: string; folder?: string } & PoolOptions) {
  const taken: number[] = [];
  const pool = new ComputePool(options);
  for (let candidate = port; ; candidate++) {
    const server = createServer(createHandler(pool, folder, isLoopback(host)));
    try {
      await new Promise<void>((resolve, reject) => {
        server.once('error', reject).listen(candidate, host, resolve);
      });
      server.once('close', () => pool.close());
      const { port: bound } = server.address() as AddressInfo;
      const shown = host.includes(':') ? `[${host}]` : host;
      return { address: `http://${shown}:${bound}`, taken, server };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE' || taken.length >= 20) {
        pool.close();
        throw error;
      }
      taken.push(candidate);
    }
  }
}
