export { GroovesScreen as default } from '../../screens/fetched';
