export { PortsScreen as default } from '../../screens/fetched';
