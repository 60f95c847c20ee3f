// Figures of several runs of the same measurements as one each.

/** Of each figure, by its name, the median of its runs; what it is measured by tells the least and the most of them. */
export function ofRuns(figures) {
  const byName = new Map();
  for (const figure of figures) byName.set(figure.name, [...(byName.get(figure.name) ?? []), figure]);
  return [...byName.values()].map((runs) => {
    const sorted = [...runs].sort((a, b) => a.value - b.value);
    const middle = sorted[Math.floor((sorted.length - 1) / 2)];
    if (runs.length === 1) return middle;
    const [least, most] = [sorted[0], sorted[sorted.length - 1]].map((f) => f.value.toFixed(f.digits));
    return { ...middle, note: [`${least} to ${most} in ${runs.length} runs`, middle.note].filter(Boolean).join('; ') };
  });
}
