const reasons: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such file',
  EISDIR: 'it is a folder',
  ENOTDIR: 'a part of its path is not a folder',
  EACCES: 'permission is denied',
  EPERM: 'permission is denied',
  EMFILE: 'too many files are open',
  ENOSPC: 'the disk is full',
  EROFS: 'the disk is read-only',
  EEXIST: 'a file is in its place',
};

/** Says why a file cannot be read or written, without the words of the system. */
export const fileTrouble = (error: unknown): string =>
  reasons[(error as NodeJS.ErrnoException).code ?? ''] ?? (error as Error).message;
