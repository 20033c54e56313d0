import { TripView } from '../../floor/index.ts';

export default TripView;
