import load, { type Highs } from 'highs';
import type { Effort, Program, Solved, Solver } from './solver.ts';

/**
 * Opens the HiGHS solver (Huangfu and Hall, 2018: dual simplex with branch and cut), which takes a moment to load.
 *
 * @returns a solver that works in the calling thread until it is done
 */
export async function openSolver(): Promise<Solver> {
  const highs = await load();
  return (program, effort) => solve(highs, program, effort);
}

function solve(highs: Highs, { gain, top, whole, rows, start }: Program, effort: Effort): Solved {
  if (gain.length === 0) return { x: [], bound: 0, proven: true };
  const starts = [0];
  const indices: number[] = [];
  const values: number[] = [];
  for (const row of rows) {
    for (const { variable, factor } of row.terms) {
      indices.push(variable);
      values.push(factor);
    }
    starts.push(indices.length);
  }
  const { variableType, objectiveSense, modelStatus, solutionStatus } = highs.constants;
  return highs.withModel(
    {
      numCols: gain.length,
      numRows: rows.length,
      sense: objectiveSense.maximize,
      colCost: Float64Array.from(gain),
      colLower: new Float64Array(gain.length),
      colUpper: Float64Array.from(top),
      rowLower: new Float64Array(rows.length).fill(-highs.infinity),
      rowUpper: Float64Array.from(rows, (row) => row.limit),
      matrix: {
        format: 'csr',
        numRows: rows.length,
        numCols: gain.length,
        starts: Int32Array.from(starts),
        indices: Int32Array.from(indices),
        values: Float64Array.from(values),
      },
      integrality: Int32Array.from(whole, (w) => (w ? variableType.integer : variableType.continuous)),
    },
    (model) => {
      model.options.set({
        output_flag: false,
        time_limit: effort.seconds,
        mip_max_nodes: effort.nodes,
        random_seed: effort.seed,
        mip_rel_gap: 0,
        mip_abs_gap: 1e-6,
      });
      if (start) model.setSolution({ colValue: Float64Array.from(start) });
      model.run();
      const optimal = model.getModelStatus() === modelStatus.optimal;
      const mixed = whole.includes(true);
      const bound = mixed ? Number(model.info.get('mip_dual_bound')) : optimal ? model.getObjectiveValue() : Infinity;
      const found = mixed ? Number(model.info.get('primal_solution_status')) === solutionStatus.feasible : optimal;
      return { x: found ? [...model.getSolution().colValue] : null, bound, proven: optimal };
    },
  );
}
