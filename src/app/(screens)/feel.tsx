export { FeelScreen as default } from '../../screens/fetched';
