import { existsSync } from 'node:fs';
import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Request, type Response } from 'express';
import { problemDocument } from '../core/compute/readRequest';
import { serverLimits } from '../core/compute/limits';
import { endpointNames, type EndpointName } from '../formats/endpoints';
import { schemaNames, schemaOf, type SchemaName } from '../formats/schemas';
import { aboutServer, openApi } from './describe';
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

/** Whether pages of an origin may ask (`--allow-origin`). */
const isAllowed = (origin: string, allowed: readonly string[]): boolean =>
  allowed.includes('*') || allowed.includes(origin);

/**
 * A server that is for this machine alone answers to its own names, and to no page from elsewhere:
 * any page that is open in a browser here could otherwise have it compute, or read through a name
 * of its own that it points here.
 */
function isForeign({ headers: { host = '', origin, ...rest } }: IncomingMessage, allowed: readonly string[]): boolean {
  if (!isLoopback(host.replace(/:\d+$/, ''))) return true;
  if (origin !== undefined && isAllowed(origin, allowed)) return false;
  return rest['sec-fetch-site'] === 'cross-site' || (origin !== undefined && origin !== `http://${host}`);
}

const notFromElsewhere = problemDocument(
  [
    {
      path: '',
      message:
        'This server answers only to this machine, by 127.0.0.1, [::1] or localhost, and to its own pages. Start it with --host to have it answer other machines, with --allow-origin ORIGIN to have it answer pages of your own.',
    },
  ],
  403,
  'Not from elsewhere',
);

/** Whether a body says that it is JSON in UTF-8: what says anything else is not read. */
const isJson = ({ headers }: IncomingMessage): boolean =>
  /^application\/json\s*(?:;\s*charset\s*=\s*"?utf-8"?\s*)?$/i.test(headers['content-type'] ?? '');

/** Reads a body, compressed or not: more than the limit is never held. */
const readBody = express.raw({ limit: serverLimits.bytes, type: isJson });

/** What went wrong with a request before it was read, or with us, as the answer to it. */
function sendFailure(error: { status?: number; type?: string; message?: string }, response: ServerResponse): void {
  const tooLarge = error.type === 'entity.too.large';
  const status = error.status && error.status >= 400 && error.status < 500 ? error.status : 500;
  const message = tooLarge
    ? `The request is larger than ${serverLimits.bytes / 1024 / 1024} MiB, compressed or not. Split it.`
    : status < 500
      ? `The request cannot be read: ${error.message ?? 'its form is unknown'}.`
      : 'The server failed at this request; the fault is ours.';
  if (status === 500) console.error(error);
  sendProblem(response, problemDocument([{ path: '', message }], status === 400 ? 422 : status));
}

/** Paths that are answered by the pool, with the name of the endpoint. */
const endpointPath = new RegExp(`^/api/(compute|${endpointNames.join('|')})/?(?:\\?|$)`, 'i');

/** Has a request to compute read and answered by the pool. */
function compute(
  pool: ComputePool,
  endpoint: 'compute' | EndpointName,
  request: IncomingMessage,
  response: ServerResponse,
): void {
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
  // The reader of bodies asks for nothing that a plain request has not.
  void readBody(request as Request, response as Response, (error?: unknown) => {
    if (error) return sendFailure(error, response);
    const { body } = request as Request<unknown, unknown, unknown>;
    const asker = Object.assign(response, {
      begin: (status: number, type: string, retryAfter?: number) => begin(response, status, type, retryAfter),
    });
    pool.answer(body instanceof Uint8Array ? body : new Uint8Array(0), asker, endpoint);
  });
}

/**
 * The application, the compute interface by a pool of threads, and nothing else. What is to be
 * computed does not go by the router, which would cost as much as a small answer.
 */
export function createHandler(
  pool: ComputePool,
  folder = appFolder,
  local = false,
  allowed: readonly string[] = [],
): RequestListener {
  const app = createApp(folder);
  // Answers below this size cost more to compress than to send.
  const compress = compression({ threshold: 1024 });
  return (request, response) => {
    const { origin } = request.headers;
    if (origin !== undefined && isAllowed(origin, allowed)) {
      response.setHeader('Access-Control-Allow-Origin', origin);
      response.setHeader('Vary', 'Origin');
    }
    if (local && isForeign(request, allowed)) return sendProblem(response, notFromElsewhere);
    if (request.method === 'OPTIONS' && response.hasHeader('Access-Control-Allow-Origin')) return sendPreflight(response); // prettier-ignore
    compress(request as Request, response as Response, () => {
      const name = endpointPath.exec(request.url ?? '')?.[1]?.toLowerCase();
      if (request.method === 'POST' && name) compute(pool, name as 'compute' | EndpointName, request, response);
      else app(request, response);
    });
  };
}

/** Answers what a browser asks before a request of another origin. */
function sendPreflight(response: ServerResponse): void {
  response.writeHead(204, {
    'Access-Control-Allow-Methods': 'GET, POST, OPTIONS',
    'Access-Control-Allow-Headers': 'Content-Type',
    'Access-Control-Max-Age': 600,
  });
  response.end();
}

function createApp(folder: string | undefined) {
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.set(headers);
    next();
  });
  app.all(
    ['compute', ...endpointNames].map((name) => `/api/${name}`),
    (_request, response) => {
      response.set('Allow', 'POST');
      sendProblem(
        response,
        problemDocument([{ path: '', message: 'Send the request with POST.' }], 405, 'Only POST is answered here'),
      );
    },
  );
  app.get('/api', (_request, response) => void response.json(aboutServer()));
  app.get('/api/openapi.json', (_request, response) => void response.json(openApi()));
  app.get('/api/schema/:name', ({ params: { name } }, response, next) => {
    // The name of the request's schema in earlier versions.
    const known = name === 'compute' ? 'request' : name;
    if (!(schemaNames as readonly string[]).includes(known)) return next();
    response.type('application/schema+json').send(JSON.stringify(schemaOf(known as SchemaName)));
  });
  app.use('/api', (_request, response) => {
    sendProblem(
      response,
      problemDocument([{ path: '', message: 'GET /api lists what is here.' }], 404, 'There is nothing here'),
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
  allowOrigin = [],
  ...options
}: { port: number; host: string; folder?: string; allowOrigin?: readonly string[] } & PoolOptions) {
  const taken: number[] = [];
  const pool = new ComputePool(options);
  for (let candidate = port; ; candidate++) {
    const server = createServer(createHandler(pool, folder, isLoopback(host), allowOrigin));
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
