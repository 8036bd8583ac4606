export function serve(what: {
  databaseUrl: string;
  folder: string;
  port: number;
  demo: boolean;
  quiet?: boolean;
}): Promise<{ stop(): Promise<void> }>;
