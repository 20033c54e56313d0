export { readTracking, s10, s10CheckDigit, trackingExample, type TrackingForm } from './tracking.ts';
