export { SongLater as default } from '../../screens/fetched';
