import { must } from './lib.mjs';

/**
 * The unit tests' projects. Each runs in processes of its own: the test runner remembers of a file whether it is an
 * ES module, and takes one project's answer for the other's.
 */
export const unitProjects = ['node', 'app'];

/** The command line, after Node.js itself, that runs one project. */
export function jestOf(project) {
  return [
    '--experimental-vm-modules',
    '--no-warnings',
    'node_modules/jest/bin/jest.js',
    '--selectProjects',
    project,
    // Three files at once: each waits now and then for its database, and two would leave a core idle.
    '--maxWorkers=3',
  ];
}

if (import.meta.filename === process.argv[1])
  for (const project of unitProjects)
    must(process.execPath, [...jestOf(project), '--passWithNoTests', ...process.argv.slice(2)]);
