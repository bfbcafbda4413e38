import { endpoints } from '../formats/endpoints';
import { readJsonText } from '../formats/jsonProblem';
import { writeJson } from '../core/compute/json';
import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { computeLazily } from '../core/compute/compute';
import { problemDocument } from '../core/compute/readRequest';
import { textProblem } from '../core/compute/requestText';
import { costOf } from '../core/compute/cost';
import { warmUp } from './warmUp';
import { mostPieces, shared, type Beginning, type Task, type Told } from './protocol';

/*
 * A computing thread: reads requests, answers them and writes the answers in pieces, waiting where
 * they are not taken as fast. It may be ended at any time.
 */

const { pieces, nice, ready } = workerData as Beginning;
const under = new Int32Array(pieces);
const port = parentPort!;
/** Milliseconds for which answers are gathered to go together. */
const gathering = 3;
let told: Told[] = [];
let lastTold = 0;
function tellNow(transfer: ArrayBuffer[] = []): void {
  lastTold = performance.now();
  if (!told.length) return;
  port.postMessage(told, transfer);
  told = [];
}
function tell(one: Told, transfer: ArrayBuffer[] = []): void {
  told.push(one);
  tellNow(transfer);
}

/**
 * Gives way to other threads, once there is something to work out: getting ready is quick, and on a
 * busy machine would take long at a low priority. It cannot be taken back.
 */
let gaveWay = !nice;
function giveWay(): void {
  if (gaveWay) return;
  gaveWay = true;
  try {
    // On Linux the priority of this thread alone; elsewhere it may not be had.
    if (process.platform === 'linux') setPriority(0, nice);
  } catch {
    // Then all threads are alike.
  }
}

/** Bytes of a body from which on parsing it takes milliseconds. */
const largeText = 64 * 1024;

const encoder = new TextEncoder();
/** About how many characters go in one piece. */
const pieceLength = 64 * 1024;
/** So many characters are worked out before the answer begins: until then it may still be refused. */
const heldLength = 8 * 1024 * 1024;

function send(id: number, status: number, type: string, texts: Iterable<string>): void {
  let [held, length, begun] = [[] as string[], 0, false];
  const whole = () => void told.push({ id, kind: 'whole', status, type, text: held.join('') });
  const flush = () => {
    if (!begun) tell({ id, kind: 'head', status, type });
    begun = true;
    const bytes = encoder.encode(held.join(''));
    [held, length] = [[], 0];
    for (let from = 0; from < bytes.length; from += pieceLength) {
      const piece = bytes.slice(from, from + pieceLength);
      for (let now = Atomics.load(under, shared.pieces); now >= mostPieces; now = Atomics.load(under, shared.pieces))
        Atomics.wait(under, shared.pieces, now);
      Atomics.add(under, shared.pieces, 1);
      tell({ id, kind: 'piece', bytes: piece }, [piece.buffer]);
    }
  };
  for (const text of texts) {
    held.push(text);
    length += text.length;
    if (length >= (begun ? pieceLength : heldLength)) flush();
  }
  if (!begun && length < pieceLength) return whole();
  flush();
  tell({ id, kind: 'end' });
}

const refuse = (id: number, problem: ReturnType<typeof problemDocument>): void =>
  send(id, problem.status, 'application/problem+json', [JSON.stringify(problem)]);

port.on('message', (tasks: readonly Task[]) => {
  lastTold = performance.now();
  for (const task of tasks) {
    Atomics.store(under, shared.at, task.id);
    answer(task);
    if (performance.now() - lastTold > gathering) tellNow();
  }
  tellNow();
});

function answer({ id, body, endpoint, mostCost, watched }: Task): void {
  let given: unknown;
  // Parsing megabytes is work too; a small request is parsed before the thread gives way.
  if (body.length > largeText) giveWay();
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(body);
    const problem = textProblem(text);
    if (problem) return refuse(id, problemDocument([problem]));
    const read = readJsonText(text);
    if ('problem' in read) return refuse(id, problemDocument([{ path: '', message: `This is not JSON: ${read.problem}.` }])); // prettier-ignore
    given = read.value;
  } catch {
    return refuse(id, problemDocument([{ path: '', message: 'This is not text in UTF-8.' }]));
  }
  try {
    if (endpoint !== 'compute') {
      giveWay();
      const answered = endpoints[endpoint].run(given);
      return answered.ok
        ? send(id, 200, 'application/json', [JSON.stringify(answered.value)])
        : refuse(id, answered.problem);
    }
    if (costOf(given) > mostCost) return void told.push({ id, kind: 'heavy' });
    const { queries } = (given ?? {}) as { queries?: readonly { id?: unknown }[] };
    const name = (query: number) => String(queries?.[query]?.id ?? query).slice(0, 80);
    const begins = (query: number) => {
      tell({ id, kind: 'begins', query, name: name(query) });
      giveWay();
    };
    const answered = computeLazily(given, watched ? begins : undefined);
    if (!answered.ok) return refuse(id, answered.problem);
    send(id, 200, 'application/json', writeJson(answered.response));
  } catch (error) {
    console.error(error);
    const message = 'The server failed at this request; the fault is ours.';
    refuse(id, problemDocument([{ path: '', message }], 500, 'Failed'));
  }
}

if (ready) setImmediate(() => warmUp());
