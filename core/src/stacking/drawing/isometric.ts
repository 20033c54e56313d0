import type { Sides } from '../boxes/index.ts';

export interface DrawnBox {
  at: Sides;
  size: Sides;
}

type Point = readonly [x: number, y: number];

export interface Face {
  /** The box it is a side of, by its place in the list. */
  box: number;
  side: 'top' | 'left' | 'right';
  points: Point[];
}

export interface Isometric {
  /** Size of the drawing, in the unit of the boxes. */
  width: number;
  height: number;
  /** The floor and the two walls behind, then the edges in front. */
  floor: Point[];
  walls: Point[][];
  front: Point[][];
  /** Sides that are seen, from those behind to those in front. */
  faces: Face[];
}

const COS = Math.sqrt(3) / 2;
const SIN = 0.5;

/**
 * Boxes in a room as an isometric drawing, seen from above and from one corner.
 *
 * @param quarter quarters of a turn of the room, 0 to 3: from which corner it is seen
 */
export function isometric(inner: Sides, boxes: readonly DrawnBox[], quarter = 0): Isometric {
  const [length, width] = quarter % 2 === 0 ? inner : [inner[1], inner[0]];
  const height = inner[2];
  const turned = boxes.map((box) => turn(box, inner, quarter));
  // The corner behind is at the top: everything is moved into the drawing.
  const point = (x: number, y: number, z: number): Point => [(x - y + width) * COS, (x + y) * SIN + height - z];
  const quad = (corners: [number, number, number][]) => corners.map(([x, y, z]) => point(x, y, z));
  const faces = fromBehind(turned).flatMap((b): Face[] => {
    const { at, size } = turned[b]!;
    const [x0, y0, z0] = at;
    const [x1, y1, z1] = [x0 + size[0], y0 + size[1], z0 + size[2]];
    return [
      {
        box: b,
        side: 'left',
        points: quad([
          [x0, y1, z0],
          [x1, y1, z0],
          [x1, y1, z1],
          [x0, y1, z1],
        ]),
      },
      {
        box: b,
        side: 'right',
        points: quad([
          [x1, y0, z0],
          [x1, y1, z0],
          [x1, y1, z1],
          [x1, y0, z1],
        ]),
      },
      {
        box: b,
        side: 'top',
        points: quad([
          [x0, y0, z1],
          [x1, y0, z1],
          [x1, y1, z1],
          [x0, y1, z1],
        ]),
      },
    ];
  });
  return {
    width: (length + width) * COS,
    height: (length + width) * SIN + height,
    floor: quad([
      [0, 0, 0],
      [length, 0, 0],
      [length, width, 0],
      [0, width, 0],
    ]),
    walls: [
      quad([
        [0, 0, 0],
        [length, 0, 0],
        [length, 0, height],
        [0, 0, height],
      ]),
      quad([
        [0, 0, 0],
        [0, width, 0],
        [0, width, height],
        [0, 0, height],
      ]),
    ],
    front: [
      quad([
        [length, 0, height],
        [length, width, height],
        [0, width, height],
      ]),
      quad([
        [length, width, 0],
        [length, width, height],
      ]),
    ],
    faces,
  };
}

function turn({ at, size }: DrawnBox, inner: Sides, quarter: number): DrawnBox {
  const [x, y, z] = at;
  const [l, w, h] = size;
  switch (quarter % 4) {
    case 1:
      return { at: [y, inner[0] - x - l, z], size: [w, l, h] };
    case 2:
      return { at: [inner[0] - x - l, inner[1] - y - w, z], size };
    case 3:
      return { at: [inner[1] - y - w, x, z], size: [w, l, h] };
    default:
      return { at, size };
  }
}

/** Boxes in the order in which they are drawn: none hides what is drawn after it. */
function fromBehind(boxes: readonly DrawnBox[]): number[] {
  const end = ({ at, size }: DrawnBox, axis: 0 | 1 | 2) => at[axis] + size[axis];
  const behind = (a: DrawnBox, b: DrawnBox) => ([0, 1, 2] as const).some((axis) => end(a, axis) <= b.at[axis] + 1e-6);
  const left = new Set(boxes.map((_, i) => i));
  const order: number[] = [];
  while (left.size > 0) {
    // One that nothing which is left lies behind; where each waits for another, any.
    const free = [...left].find((i) =>
      [...left].every((j) => i === j || !(behind(boxes[j]!, boxes[i]!) && !behind(boxes[i]!, boxes[j]!))),
    );
    const next = free ?? [...left][0]!;
    left.delete(next);
    order.push(next);
  }
  return order;
}
