import { Dimensions } from 'react-native';
import { asItIs } from '../ui/onlyInBrowser';
import type * as Web from './OnTop.web';

export const OnTop = asItIs;
export const pageHeight: typeof Web.pageHeight = () => Dimensions.get('window').height;
