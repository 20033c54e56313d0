/** Prints a figure as soon as it is measured: what, how much, in which unit, and the aim where there is one. */
export function note(what: string, figure: number, unit: string, aim = ''): void {
  console.log(`${what.padEnd(66)} ${figure.toFixed(figure < 10 ? 1 : 0).padStart(8)} ${unit.padEnd(4)} ${aim}`);
}

export type Note = typeof note;
