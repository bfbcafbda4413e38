import { complain } from './notices';

/**
 * Loads a part of the application on demand. Reports a part that cannot be fetched, and resolves to null then.
 * The next call tries again.
 */
export const loadPart = <T>(load: () => Promise<T>): Promise<T | null> =>
  load().catch(() => {
    complain('A part of the page could not be fetched. Check the connection and try again, or reload the page.');
    return null;
  });
