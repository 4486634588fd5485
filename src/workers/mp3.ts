import { exchangeable } from './exchangeable';

export default exchangeable('mp3');
