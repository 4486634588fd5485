export { PortsLater as default } from '../../screens/fetched';
