/** Layers and edges of the access steps of a book: what must be off before what. */

export interface GraphStep {
  code: string;
  title: string;
  minutes: number;
  requires: string[];
  equipment: string | null;
}

export interface Placed {
  step: GraphStep;
  /** layer from the left: one more than the deepest step it comes after */
  layer: number;
  /** place within the layer, from the top */
  row: number;
}

/** Places every step; a step that leads round in a circle stays where it was met first. */
export function layOut(steps: GraphStep[]): Placed[] {
  const byCode = new Map(steps.map((s) => [s.code, s]));
  const layers = new Map<string, number>();
  const layerOf = (code: string, open: Set<string>): number => {
    const known = layers.get(code);
    if (known !== undefined) return known;
    if (open.has(code)) return 0;
    const before = (byCode.get(code)?.requires ?? []).filter((r) => byCode.has(r));
    const layer = Math.max(-1, ...before.map((r) => layerOf(r, new Set([...open, code])))) + 1;
    layers.set(code, layer);
    return layer;
  };
  const rows = new Map<number, number>();
  return steps.map((step) => {
    const layer = layerOf(step.code, new Set());
    const row = rows.get(layer) ?? 0;
    rows.set(layer, row + 1);
    return { step, layer, row };
  });
}
