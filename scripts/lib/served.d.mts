export function servedAt(): Promise<string | null>;
export function serving(address: string): void;
export function servingEnded(): void;
