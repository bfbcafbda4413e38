import type { ComputeRequest } from '../../../core/compute/schema';

/** The request that answers for the sheet, and the text that identifies it. */
export interface Asked {
  readonly mark: string;
  /** Without a camera where the numbers by themselves are asked alone. */
  readonly request: Omit<ComputeRequest, 'camera'> & Partial<Pick<ComputeRequest, 'camera'>>;
}
