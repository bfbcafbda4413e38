export const rooms: readonly string[];
export function sampleTree(): Promise<{
  readonly tree: string;
  readonly address: string;
  remove(): void;
  close(): void;
}>;
