/** A box of a layer, seen from above: its corner and its sides. */
export interface Flat {
  x: number;
  y: number;
  l: number;
  w: number;
}

/** Lengths that cuts are tried at, at most: of very small boxes every second or third is left out. */
const CUTS = 40;
/** Divisions into five that are looked at for one layer. */
const FIVES = 400_000;
/** How deep parts of a division into five are divided into five again. */
const DEEP = 2;

type Part = readonly [x: number, y: number, length: number, width: number];
interface Filled {
  boxes: number;
  /** The parts that it is made of; null for rows of one turn. */
  parts: readonly Part[] | null;
}

/**
 * A layer of equal boxes in a rectangle, as many as are found: rows of one turn, straight cuts, and five blocks of which
 * the fifth lies between the others (Bischoff and Dowsland 1982; parts divided again as Morabito and Morales 1998 do).
 *
 * @param length sides of the rectangle, and `l`, `w` of a box, in one unit
 */
export function layerOf(length: number, width: number, l: number, w: number): Flat[] {
  return new Layer(length, width, l, w).boxes();
}

class Layer {
  /** By how deep, the best of each rectangle that was looked at. */
  readonly #known: Map<number, Filled>[] = Array.from({ length: DEEP + 1 }, () => new Map<number, Filled>());
  readonly #sums: number[];
  #left = FIVES;

  constructor(
    private readonly length: number,
    private readonly width: number,
    private readonly l: number,
    private readonly w: number,
  ) {
    const most = Math.max(length, width);
    const sums = new Set<number>();
    for (let a = 0; a <= most; a += l) for (let b = a; b <= most + 1e-9; b += w) sums.add(b);
    this.#sums = [...sums].sort((a, b) => a - b);
  }

  boxes(): Flat[] {
    return this.#laid([0, 0, this.length, this.width], 0);
  }

  #laid([x, y, length, width]: Part, depth: number): Flat[] {
    const { parts } = this.#best(length, width, depth);
    if (parts) return parts.flatMap(([dx, dy, l, w]) => this.#laid([x + dx, y + dy, l, w], Math.min(depth + 1, DEEP)));
    const [l, w] =
      this.#rows(length, width, this.l, this.w) >= this.#rows(length, width, this.w, this.l)
        ? [this.l, this.w]
        : [this.w, this.l];
    const boxes: Flat[] = [];
    for (let b = 0; b + w <= width + 1e-9; b += w)
      for (let a = 0; a + l <= length + 1e-9; a += l) boxes.push({ x: x + a, y: y + b, l, w });
    return boxes;
  }

  #best(length: number, width: number, depth: number): Filled {
    // What no sum of sides reaches is waste: rectangles that differ by it alone are one.
    const a = this.#reached(length);
    const b = this.#reached(width);
    const known = this.#known[depth]!;
    const key = a * (this.#sums.length + 1) + b;
    const before = known.get(key);
    if (before) return before;
    const found = this.#search(this.#sums[a]!, this.#sums[b]!, depth);
    known.set(key, found);
    return found;
  }

  /** The place of the greatest sum of sides that is at most a length. */
  #reached(length: number): number {
    let [low, high] = [0, this.#sums.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.#sums[middle]! <= length + 1e-9) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  #search(length: number, width: number, depth: number): Filled {
    const area = this.l * this.w;
    const most = Math.floor((length * width) / area + 1e-9);
    let best: Filled = {
      boxes: Math.max(this.#rows(length, width, this.l, this.w), this.#rows(length, width, this.w, this.l)),
      parts: null,
    };
    const next = Math.min(depth + 1, DEEP);
    const consider = (parts: readonly Part[]) => {
      let upTo = 0;
      for (const part of parts) upTo += Math.floor((part[2] * part[3]) / area + 1e-9);
      if (upTo <= best.boxes) return;
      let boxes = 0;
      for (const part of parts) boxes += this.#best(part[2], part[3], next).boxes;
      if (boxes > best.boxes) best = { boxes, parts };
    };
    const xs = this.#cuts(length);
    const ys = this.#cuts(width);
    for (const x of xs) {
      if (best.boxes >= most) return best;
      if (2 * x <= length)
        consider([
          [0, 0, x, width],
          [x, 0, length - x, width],
        ]);
    }
    for (const y of ys) {
      if (best.boxes >= most) return best;
      if (2 * y <= width)
        consider([
          [0, 0, length, y],
          [0, y, length, width - y],
        ]);
    }
    if (depth >= DEEP) return best;
    for (const x1 of xs)
      for (const x2 of xs) {
        if (x2 < x1) continue;
        for (const y1 of ys)
          for (const y2 of ys) {
            if (y2 < y1) continue;
            if (best.boxes >= most || --this.#left < 0) return best;
            // Corner to corner, each beside the next; the fifth between them.
            consider([
              [0, 0, x1, y2],
              [x1, 0, length - x1, y1],
              [x2, y1, length - x2, width - y1],
              [0, y2, x2, width - y2],
              [x1, y1, x2 - x1, y2 - y1],
            ]);
          }
      }
    return best;
  }

  #rows(length: number, width: number, l: number, w: number): number {
    return Math.floor(length / l + 1e-9) * Math.floor(width / w + 1e-9);
  }

  /** Sums of sides within a length. */
  #cuts(length: number): number[] {
    const own = this.#sums.slice(1, this.#reached(length - 1e-6) + 1).filter((s) => s < length);
    const step = Math.ceil(own.length / CUTS);
    return own.filter((_, i) => i % step === 0);
  }
}
