/** How chosen nodes are named: "path:node". */

export const nodeKey = (path: number, node: number): string => `${path}:${node}`;

export const parseKey = (key: string): readonly [number, number] => {
  const [path, node] = key.split(':').map(Number);
  return [path as number, node as number];
};

/** Chosen nodes of one path. */
export const chosenNodesOf = (chosen: ReadonlySet<string>, path: number): ReadonlySet<number> =>
  new Set([...chosen].map(parseKey).flatMap(([p, node]) => (p === path ? [node] : [])));
