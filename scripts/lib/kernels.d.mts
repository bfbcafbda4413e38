export const kernelSource: string;
export const kernelModule: string;
export function compileKernels(): Promise<string>;
