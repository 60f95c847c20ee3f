/** How chosen nodes are named: "path:node". */

/** A node of a path as it is kept among the chosen ones. */
export const nodeKey = (path: number, node: number): string => `${path}:${node}`;

/** The path and the node of such a key. */
export const parseKey = (key: string): readonly [number, number] => {
  const [path, node] = key.split(':').map(Number);
  return [path as number, node as number];
};

/** Chosen nodes of one path. */
export const chosenNodesOf = (chosen: ReadonlySet<string>, path: number): ReadonlySet<number> =>
  new Set([...chosen].map(parseKey).flatMap(([p, node]) => (p === path ? [node] : [])));
