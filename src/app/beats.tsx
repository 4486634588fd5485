export { BeatsScreen as default } from '../screens/beats/BeatsScreen';
