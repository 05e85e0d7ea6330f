/** What the forms of the kinds of code share. */
import type { DateCode, PatternNumberCode, SerialCode } from '@jutbank/core/reference';
import type { FormProps } from './formParts.tsx';

export type AnyCode = Partial<DateCode> & Partial<PatternNumberCode> & Partial<SerialCode>;
export type Props = FormProps<AnyCode>;
