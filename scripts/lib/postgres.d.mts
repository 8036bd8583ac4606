export interface Cluster {
  url(database: string): string;
  ensureDatabase(name: string): Promise<void>;
  answers(): Promise<boolean>;
  startAgain(): Promise<void>;
  stop(): Promise<void>;
}
type Wait = (ms: number) => Promise<unknown>;
export function binFolder(): string;
export function startPostgres(folder: string, how?: { fast?: boolean; env?: Record<string, string> }): Promise<Cluster>;
export function keepPostgres(cluster: Cluster, isStopping: () => boolean, wait?: Wait): Promise<void>;
