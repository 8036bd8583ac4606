export const NGINX: string;
