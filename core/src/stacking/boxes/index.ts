export { arrange, FEW, type Arranged } from './arrange.ts';
export { fitsAlone, turnsOf, volumeOf, type BoxKind, type Placed, type Room, type Sides } from './box.ts';
export { blockOf, type Block } from './blocks.ts';
export { faultsOf, type StackFault } from './check.ts';
export { Effort } from './effort.ts';
export { fill, type Filled } from './fill.ts';
export { kitFor, type Kit } from './kit.ts';
export { cutSpaces, type Space } from './spaces.ts';
export { Stack } from './stack.ts';
