export function isPermissive(expression: unknown): boolean;
export function shippedPackages(
  root: string,
): { readonly name: string; readonly version: string; readonly licence: string; readonly may: boolean }[];
