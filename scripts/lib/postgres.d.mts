export function binFolder(): string;
