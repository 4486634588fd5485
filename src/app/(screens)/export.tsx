export { ExportScreen as default } from '../../screens/fetched';
