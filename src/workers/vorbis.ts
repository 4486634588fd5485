import { exchangeable } from './exchangeable';

export default exchangeable('vorbis');
