export { GroovesLater as default } from '../../screens/fetched';
