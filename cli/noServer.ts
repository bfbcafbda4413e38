/** Stands for the server in the package, which has no application. */
export function serve(): never {
  process.stderr.write('This package has no application to serve. Run npm start in a checkout of Astrolabe.\n');
  process.exit(2);
}
