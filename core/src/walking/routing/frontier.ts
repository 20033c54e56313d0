/**
 * States of a sweep over a grid of aisles and cross aisles, column by column. A state tells of every row (cross aisle),
 * at the column where the sweep stands: whether the walk so far touches it, in which connected piece, and whether an odd
 * number of its edges meet there. For one block these are the classes of Ratliff and Rosenthal (1983); for more rows
 * they are those of Cambazard and Catusse (2018) for the rectilinear travelling salesman problem.
 *
 * States are numbered as they appear, and what an edge makes of a state is worked out once and then looked up.
 */
export interface Frontier {
  rows: number;
  /** The state in which nothing is touched. */
  readonly begin: number;
  /** The state in which the walk is whole and lies behind the sweep. */
  readonly closed: number;
  count: () => number;
  /** 0 untouched, 1 an odd number of edges, 2 an even one. */
  at: (state: number, row: number) => number;
  /**
   * Edges along the aisle between `row` and the next, by the number of `alongKind`. -1 where that cannot be.
   */
  along: (state: number, row: number, kind: number) => number;
  /**
   * What is known of `along` and `drop`: at state × `width` + row × 18 + kind, and at state × `width` + `drops` + row; -2
   * where nobody asked yet. The list is another one after states were added.
   */
  table: () => Int32Array;
  readonly width: number;
  readonly drops: number;
  /** The junction of a row must be visited; with `odd`, a walk starts or ends there. */
  visit: (state: number, row: number, odd: boolean) => number;
  /** No edge leaves the row's junction towards the next column. -1 where a piece would be left behind. */
  drop: (state: number, row: number) => number;
  /** Whether all that is touched is one piece with an even number of edges everywhere. */
  whole: (state: number) => boolean;
}

/** Stands in the table where nobody asked yet. */
export const UNKNOWN = -2;
const NEVER = -1;

/** Edges along an aisle: how many meet at its lower and at its upper end (0 to 2), and whether they connect the two. */
export const alongKind = (low: number, high: number, through: boolean): number => (through ? 9 : 0) + low * 3 + high;

/** A frontier of so many cross aisles (2 to 14). */
export function openFrontier(rows: number): Frontier {
  // A row's code: 0 untouched, else twice its piece's number (from 1) and one more where the number of edges is odd.
  const codes: Uint8Array[] = [];
  const numbers = new Map<number | string, number>();
  // Pieces by the order of their lowest row. A code of up to eleven rows fits a number, which is found faster than a text.
  const renamed = new Uint8Array(2 * rows + 1);
  const base = 2 * rows + 2;
  const keyOf = (code: Uint8Array): number | string =>
    rows > 11 ? code.join() : code.reduce((key, c) => key * base + c, 0);
  const wholes: boolean[] = [];
  const meets: number[] = [];
  const ALONG = (rows - 1) * 18;
  const VISIT = ALONG;
  const DROP = ALONG + rows * 2;
  const OPS = DROP + rows;
  let next = new Int32Array(64 * OPS).fill(UNKNOWN);

  /** The state of a code; its pieces are renamed in place. */
  const numberOf = (code: Uint8Array): number => {
    renamed.fill(0);
    let pieces = 0;
    for (let r = 0; r < rows; r++) {
      const c = code[r]!;
      if (c === 0) continue;
      const piece = c >> 1;
      if (renamed[piece] === 0) renamed[piece] = ++pieces;
      code[r] = renamed[piece]! * 2 + (c & 1);
    }
    const key = keyOf(code);
    const known = numbers.get(key);
    if (known !== undefined) return known;
    const number = codes.length;
    numbers.set(key, number);
    codes.push(code);
    wholes.push(code.every((c) => c === 0 || c === 2));
    for (const c of code) meets.push(c === 0 ? 0 : c & 1 ? 1 : 2);
    if (codes.length * OPS > next.length) {
      const larger = new Int32Array(next.length * 2).fill(UNKNOWN);
      larger.set(next);
      next = larger;
    }
    return number;
  };
  const begin = numberOf(new Uint8Array(rows));
  // Told apart from the beginning by its number alone: nothing leads out of it.
  const closed = codes.push(new Uint8Array(rows)) - 1;
  wholes[begin] = false;
  wholes.push(true);
  for (let r = 0; r < rows; r++) meets.push(0);

  const touched = (code: Uint8Array, row: number, edges: number) => {
    if (code[row] === 0) code[row] = (rows + 1 + row) * 2;
    code[row]! ^= edges & 1;
  };
  const register = (at: number, code: Uint8Array | null): number => {
    const found = code === null ? NEVER : numberOf(code);
    next[at] = found;
    return found;
  };
  const joined = (state: number, row: number, kind: number): Uint8Array | null => {
    const through = kind >= 9;
    const [low, high] = [Math.floor((kind % 9) / 3), kind % 3];
    if (state === closed) return null;
    const code = codes[state]!.slice();
    if (low > 0) touched(code, row, low);
    if (high > 0) touched(code, row + 1, high);
    if (!through) return code;
    const [stays, gone] = [code[row]! >> 1, code[row + 1]! >> 1];
    return code.map((c) => (c > 0 && c >> 1 === gone ? stays * 2 + (c & 1) : c));
  };
  const visited = (state: number, row: number, odd: boolean): Uint8Array | null => {
    if (state === closed) return null;
    const code = codes[state]!.slice();
    touched(code, row, odd ? 1 : 0);
    return code;
  };
  const dropped = (state: number, row: number): number => {
    const code = codes[state]!.slice();
    const c = code[row]!;
    if (c & 1) return NEVER;
    code[row] = 0;
    if (code.some((other) => other > 0 && other >> 1 === c >> 1)) return numberOf(code);
    return code.some((other) => other > 0) ? NEVER : closed;
  };
  return {
    rows,
    begin,
    closed,
    count: () => codes.length,
    at: (state, row) => meets[state * rows + row]!,
    along(state, row, kind) {
      const at = state * OPS + row * 18 + kind;
      if (kind === 0) next[at] = state;
      const known = next[at]!;
      return known === UNKNOWN ? register(at, joined(state, row, kind)) : known;
    },
    table: () => next,
    width: OPS,
    drops: DROP,
    visit(state, row, odd) {
      const at = state * OPS + VISIT + row * 2 + (odd ? 1 : 0);
      const known = next[at]!;
      return known === UNKNOWN ? register(at, visited(state, row, odd)) : known;
    },
    drop(state, row) {
      const at = state * OPS + DROP + row;
      if (next[at] !== UNKNOWN) return next[at]!;
      const found = codes[state]![row] === 0 ? state : dropped(state, row);
      next[at] = found;
      return found;
    },
    whole: (state) => wholes[state]!,
  };
}
