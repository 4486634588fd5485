export { BeatsScreen as default } from '../../screens/fetched';
