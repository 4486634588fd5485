export { KitScreen as default } from '../../screens/fetched';
