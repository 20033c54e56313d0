import { floor } from '../../places.ts';

export default floor.view('TripView');
