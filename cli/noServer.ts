/** Stands for the server in the package, which has no application. */
export const serve = (): Promise<never> =>
  Promise.reject(new Error('This package has no application to serve. Run npm start in a checkout of Astrolabe.'));
