export { mapFloor, type Floor, type FloorMap, type Place, type Point } from './floor.ts';
