export const KERNELS: readonly string[];
export function kernelModule(path: string): Promise<string>;
