export { mapFloor, type FloorMap } from './floor.ts';
export { networkOf, type Aisle, type Blocked, type Floor, type Network, type Place, type Point } from './network.ts';
export { layoutRows, readLayout, type Layout, type LayoutFault } from './layoutRows.ts';
