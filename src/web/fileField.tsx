import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './fileField.web';

const Missing = onlyInBrowser(words.choosingFiles);

export const useFileField: typeof Web.useFileField = () => ({ field: <Missing />, choose: () => undefined });
