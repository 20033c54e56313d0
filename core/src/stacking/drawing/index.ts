export { isometric, type DrawnBox, type Face, type Isometric } from './isometric.ts';
