export { BeatsLater as default } from '../../screens/fetched';
