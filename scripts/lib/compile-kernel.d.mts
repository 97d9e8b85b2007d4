/** Throws where the source does not compile. */
export function compileKernel(): Promise<Uint8Array>;
