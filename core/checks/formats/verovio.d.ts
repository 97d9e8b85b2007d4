/** What is used of `verovio`, which comes without types. */
declare module 'verovio/wasm' {
  export default function createVerovioModule(): Promise<unknown>;
}
declare module 'verovio/esm' {
  export class VerovioToolkit {
    constructor(module: unknown);
    loadData(data: string): boolean;
    getMEI(): string;
  }
}
