export { FeelLater as default } from '../../screens/fetched';
