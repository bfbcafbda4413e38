import { existsSync } from 'node:fs';
import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import express, { type ErrorRequestHandler, type Express, type RequestHandler, type Response } from 'express';
import { problemDocument } from '../core/compute/compute';
import { requestJsonSchema } from '../core/compute/jsonSchema';
import { serverLimits } from '../core/compute/limits';
import { ComputePool, type PoolOptions } from './pool';

// Both this file and its bundle in dist/node lie two levels (or one) below the root.
const appFolder = [new URL('../app/', import.meta.url), new URL('../dist/app/', import.meta.url)]
  .map((url) => fileURLToPath(url))
  .find((path) => existsSync(`${path}index.html`) && existsSync(`${path}assets`));

const sendProblem = (response: Response, problem: ReturnType<typeof problemDocument>) =>
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));

const isLoopback = (host: string): boolean => /^(localhost|127(\.\d+){3}|::1|\[::1\])$/.test(host);

/**
 * A server that is for this machine alone answers to its own names, and to no page from elsewhere:
 * any page that is open in a browser here could otherwise have it compute, or read through a name
 * of its own that it points here.
 */
const onlyFromHere: RequestHandler = ({ headers }, response, next) => {
  const { host = '', origin } = headers;
  const named = host.replace(/:\d+$/, '');
  const foreign =
    !isLoopback(named) ||
    headers['sec-fetch-site'] === 'cross-site' ||
    (origin !== undefined && origin !== `http://${host}`);
  if (foreign)
    sendProblem(
      response,
      problemDocument(
        [
          {
            path: '',
            message:
              'This server answers only to this machine, by 127.0.0.1, [::1] or localhost. Start it with --host to have it answer others.',
          },
        ],
        403,
        'Not from elsewhere',
      ),
    );
  else next();
};

/** Whether a body says that it is JSON: what says anything else is not read. */
const isJson = ({ headers }: IncomingMessage): boolean =>
  /^application\/(json|[\w.+-]+\+json)\s*(;|$)/i.test(headers['content-type'] ?? '');

/** Reads a body as it is: more than this is never held, and compressed ones are not opened further. */
const readBody: RequestHandler = (request, response, next) => {
  const packed = (request.headers['content-encoding'] ?? 'identity') !== 'identity';
  express.raw({ limit: packed ? serverLimits.inflated : serverLimits.bytes, type: isJson })(request, response, next);
};

/** The application, the compute interface by a pool of threads, and nothing else. */
export function createApp(pool: ComputePool, folder = appFolder, local = false): Express {
  const app = express();
  app.disable('x-powered-by');
  if (local) app.use(onlyFromHere);
  app.use((_request, response, next) => {
    response.set({
      'Content-Security-Policy':
        "default-src 'self'; img-src 'self' blob:; worker-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'none'",
      'X-Content-Type-Options': 'nosniff',
      'Referrer-Policy': 'no-referrer',
    });
    next();
  });
  app
    .route('/api/compute')
    .post(
      (request, response, next) => {
        if (isJson(request)) return next();
        const message = 'Send the request as JSON, with the content type application/json.';
        return sendProblem(response, problemDocument([{ path: '', message }], 415, 'Not JSON'));
      },
      readBody,
      (request, response) => {
        const body = request.body instanceof Uint8Array ? request.body : new Uint8Array(0);
        const begin = (status: number, type: string) => void response.status(status).type(type);
        pool.answer(body, Object.assign(response, { begin }));
      },
    )
    .all((_request, response) => {
      response.set('Allow', 'POST');
      sendProblem(
        response,
        problemDocument([{ path: '', message: 'Send the request with POST.' }], 405, 'Only POST is answered here'),
      );
    });
  app.get('/api/schema/compute', (_request, response) => {
    response.type('application/schema+json').send(JSON.stringify(requestJsonSchema()));
  });
  app.use('/api', (_request, response) => {
    sendProblem(
      response,
      problemDocument([{ path: '', message: 'The interface is POST /api/compute.' }], 404, 'There is nothing here'),
    );
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
  const onError: ErrorRequestHandler = (
    error: { status?: number; type?: string; message?: string },
    _request,
    response,
    _next,
  ) => {
    void _next;
    const tooLarge = error.type === 'entity.too.large';
    const status = error.status && error.status >= 400 && error.status < 500 ? error.status : 500;
    const message = tooLarge
      ? `The request is larger than ${serverLimits.bytes / 1024 / 1024} MiB, or compressed larger than ${serverLimits.inflated / 1024 / 1024} MiB when inflated. Split it.`
      : status < 500
        ? `The request cannot be read: ${error.message ?? 'its form is unknown'}.`
        : 'The server failed at this request; the fault is ours.';
    if (status === 500) console.error(error);
    sendProblem(response, problemDocument([{ path: '', message }], status === 400 ? 422 : status));
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
    const server = createServer(createApp(pool, folder, isLoopback(host)));
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
