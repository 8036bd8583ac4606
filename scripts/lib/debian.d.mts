export const NGINX: string;
export function fakeClock(): string | undefined;
export function ensureDebian(names: string[]): Promise<void>;
