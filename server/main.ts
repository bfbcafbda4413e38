import { existsSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import express, { type ErrorRequestHandler, type Express, type Response } from 'express';
import { compute, problemDocument } from '../core/compute/compute';
import { requestJsonSchema } from '../core/compute/jsonSchema';

/** The largest request that is read, in bytes: a few hundred thousand points. */
const largest = 32 * 1024 * 1024;

// Both this file and its bundle in dist/node lie two levels (or one) below the root.
const appFolder = [new URL('../app/', import.meta.url), new URL('../dist/app/', import.meta.url)]
  .map((url) => fileURLToPath(url))
  .find((path) => existsSync(`${path}index.html`) && existsSync(`${path}assets`));

const sendProblem = (response: Response, problem: ReturnType<typeof problemDocument>) =>
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));

/** The application, the compute interface, and nothing else. */
export function createApp(folder = appFolder): Express {
  const app = express();
  app.disable('x-powered-by');
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
    .post(express.json({ limit: largest, strict: false, type: () => true }), (request, response) => {
      const answered = compute(request.body);
      if (answered.ok) response.json(answered.response);
      else sendProblem(response, answered.problem);
    })
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
      ? `The request is larger than ${largest / 1024 / 1024} MiB. Split it.`
      : error.type === 'entity.parse.failed'
        ? `This is not JSON: ${error.message}.`
        : status < 500
          ? `The request cannot be read: ${error.message ?? 'its form is unknown'}.`
          : 'The server failed at this request; the fault is ours.';
    if (status === 500) console.error(error);
    sendProblem(response, problemDocument([{ path: '', message }], status === 400 ? 422 : status));
  };
  app.use(onError);
  return app;
}

/** Listens on the first free port from the one asked for (up to twenty on), and says which were taken. */
export async function serve({ port, host, folder }: { port: number; host: string; folder?: string }) {
  const taken: number[] = [];
  for (let candidate = port; ; candidate++) {
    const server = createServer(createApp(folder));
    try {
      await new Promise<void>((resolve, reject) => {
        server.once('error', reject).listen(candidate, host, resolve);
      });
      const { port: bound } = server.address() as AddressInfo;
      const shown = host.includes(':') ? `[${host}]` : host;
      return { address: `http://${shown}:${bound}`, taken, server };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE' || taken.length >= 20) throw error;
      taken.push(candidate);
    }
  }
}
