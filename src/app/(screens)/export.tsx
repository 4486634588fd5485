export { ExportLater as default } from '../../screens/fetched';
