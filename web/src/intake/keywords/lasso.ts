export interface Point {
  x: number;
  y: number;
}

/** Whether a point lies inside a closed line (crossings of a ray, even-odd rule). */
export function isInside({ x, y }: Point, line: readonly Point[]): boolean {
  let inside = false;
  for (let i = 0, before = line.length - 1; i < line.length; before = i++) {
    const [a, b] = [line[i]!, line[before]!];
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const apart = (a: Box, b: Box) =>
  a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;

/** A label beside its point: to the right of it, or ending left of it; null when it would lie on another or outside. */
export function placeLabel(
  at: Point,
  size: { width: number; height: number },
  taken: readonly Box[],
  room: Box,
): Box | null {
  const gap = 8;
  for (const x of [at.x + gap, at.x - gap - size.width]) {
    const box = { x, y: at.y - size.height / 2, ...size };
    const within = box.x >= room.x && box.x + box.width <= room.x + room.width && box.y >= room.y;
    if (within && taken.every((other) => apart(box, other))) return box;
  }
  return null;
}
