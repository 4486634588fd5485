export { SongScreen as default } from '../../screens/fetched';
