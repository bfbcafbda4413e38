import { readFileSync } from 'node:fs';
import { Command, InvalidArgumentError } from 'commander';
import { compute, problemDocument } from '../core/compute/compute';
import { requestJsonSchema } from '../core/compute/jsonSchema';

const program = new Command('astrolabe')
  .description('Reference answers for people who write their own cameras')
  .version('0.1.0');

program
  .command('compute')
  .description('answer a compute request (docs/compute.md) on standard output')
  .argument('<file>', 'the request as JSON, or - for standard input')
  .option('--compact', 'one line instead of indented JSON')
  .action((file: string, { compact }: { compact?: boolean }) => {
    const print = (value: unknown) => JSON.stringify(value, null, compact ? 0 : 2) + '\n';
    const refuse = (problem: unknown) => {
      process.stderr.write(print(problem));
      process.exitCode = 2;
    };
    let text: string;
    try {
      text = readFileSync(file === '-' ? 0 : file, 'utf8');
    } catch (error) {
      return refuse(
        problemDocument(
          [{ path: '', message: `${file} cannot be read: ${(error as Error).message}.` }],
          422,
          'No request',
        ),
      );
    }
    let request: unknown;
    try {
      request = JSON.parse(text);
    } catch (error) {
      return refuse(problemDocument([{ path: '', message: `This is not JSON: ${(error as Error).message}.` }]));
    }
    const answered = compute(request);
    if (answered.ok) process.stdout.write(print(answered.response));
    else refuse(answered.problem);
  });

program
  .command('schema')
  .description('print the JSON Schema of a compute request')
  .action(() => {
    process.stdout.write(JSON.stringify(requestJsonSchema(), null, 2) + '\n');
  });

const port = (text: string) => {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 0 || value > 65535)
    throw new InvalidArgumentError('A port is a whole number from 0 to 65535.');
  return value;
};

program
  .command('serve')
  .description('serve the application and POST /api/compute')
  .option('--port <number>', 'the first port to try', port, 4747)
  .option('--host <address>', 'the address to listen on', '127.0.0.1')
  .action(async (options: { port: number; host: string }) => {
    // Loaded only here: `compute` starts without a server's packages.
    const { serve } = await import('../server/main');
    const { address, taken } = await serve(options).catch((error: Error) => {
      console.error(
        `Nothing can be served on ${options.host}, port ${options.port}: ${error.message}. Try another --host or --port.`,
      );
      process.exit(1);
    });
    if (taken.length) console.log(`Port ${taken.join(', ')} is taken, so this is the next free one.`);
    console.log(`Astrolabe is at ${address}`);
  });

await program.parseAsync();
