export { KitLater as default } from '../../screens/fetched';
