export { AmountInput, DateInput, DayInput, MoneyInput, NumberInput, SizeInput } from './figures.tsx';
export {
  CellSelect,
  CellTick,
  MultiSelect,
  ReferencePicker,
  SuggestInput,
  Select,
  Tick,
  chosen,
  optionsOf,
  type Option,
} from './choices.tsx';
export { CellInput } from './CellInput.tsx';
export { FieldErrors } from './Field.tsx';
export { LinesInput, TextInput } from './TextInput.tsx';
export { FormProblem, Submit } from './Submit.tsx';
export { LineInput } from './LineInput.tsx';
export { Rows } from './Rows.tsx';
export { useContractForm, type Bound, type ContractForm } from './useContractForm.ts';
export { decimal, readNumber } from './typed.ts';
