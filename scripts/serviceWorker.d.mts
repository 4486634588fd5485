export declare const writeServiceWorker: (folder: string) => Promise<{ count: number; size: number }>;
