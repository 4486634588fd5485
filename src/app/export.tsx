export { ExportScreen as default } from '../screens/export/ExportScreen';
