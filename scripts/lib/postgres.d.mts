export interface Cluster {
  readonly url: string;
  readonly adminUrl: string;
  /** Of the cluster. */
  readonly folder: string;
  watch(): void;
  stop(): Promise<void>;
}

export function startPostgres(
  dataDir: string,
  options?: { readonly mayCreateDatabases?: boolean },
): Promise<Cluster>;
