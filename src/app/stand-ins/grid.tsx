export { StandInRoute as default } from '../../screens/standIns/StandInRoute';
