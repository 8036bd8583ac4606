export declare const ON_THE_THREAD: Record<string, { bounded?: string[]; grows?: string[] }>;
export declare const offTheThread: { selector: string; message: string }[];
