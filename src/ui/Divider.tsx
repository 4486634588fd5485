import { Divider as RneDivider } from '@rneui/base/dist/Divider';
import { colour } from './tokens';

/** A line between parts. */
export const Divider = () => <RneDivider width={1} color={colour.line as string} />;
