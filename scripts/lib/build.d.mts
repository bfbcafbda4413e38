/** Gives the folder of the bundle. */
export function buildNode(options?: { force?: boolean }): Promise<string>;
export function buildApp(options?: { force?: boolean }): Promise<void>;
