import type { ErrorCode } from '../reasons';

/** Where a track cannot lead: why, in a sentence with the mend. */
export interface NoTrack {
  readonly code: ErrorCode;
  readonly message: string;
}
/** What a track gives, or why it leads nowhere. */
export type Tracked<T> = ({ readonly ok: false } & NoTrack) | { readonly ok: true; readonly value: T };

/** A track that leads nowhere. */
export const noTrack = (code: ErrorCode, message: string): { ok: false } & NoTrack => ({ ok: false, code, message });
