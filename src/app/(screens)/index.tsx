export { PatternScreen as default } from '../../screens/pattern/PatternScreen';
