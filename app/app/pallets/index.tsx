import { pallets } from '../../places.ts';

export default pallets.view('PalletsView');
