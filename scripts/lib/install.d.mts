export function ensureDebian(packages: readonly string[]): void;
