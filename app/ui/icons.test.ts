import * as paths from '@mdi/js';
import { iconPaths } from './iconPaths.ts';

it('icons are those of the common set, none drawn by hand', () => {
  const named = (name: string) => `mdi${name.replace(/(^|-)(\w)/g, (_, __, letter: string) => letter.toUpperCase())}`;
  const set = Object.fromEntries(Object.keys(iconPaths).map((name) => [name, Reflect.get(paths, named(name))]));
  expect(iconPaths).toEqual(set);
});
