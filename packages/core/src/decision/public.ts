/** What of decision tables is for others, by name. */
export {
  checkDecisions,
  type ExampleValue,
  type Overlap,
  type RowFinding,
  type TableCheck,
} from './checking/check-table';
export { type NeverCame, neverCame } from './checking/never-came';
export { type Column, columnsOf, type TableAround } from './column';
export { blankRow, cellSetting, missesBefore, readyTable } from './decide';
export { columnValueText, decidedInWords, tableInWords } from './decision-in-words';
export {
  type DecisionInput,
  type DecisionOutput,
  type DecisionRow,
  type DecisionTable,
  type InputAs,
  OUTPUT_TYPES,
  type OutputType,
  TABLE_LIMITS,
} from './decision-table';
export type { DecidedTrace } from './decisions';
export {
  cellNames,
  outputTexts,
  rowTexts,
  withBlock,
  withCell,
  withInput,
  withInputChanged,
  withOutput,
  withOutputChanged,
  withoutInput,
  withoutOutput,
  withoutRows,
  withRowMoved,
  withRows,
} from './edit-table';
export { factsOf } from './facts';
export { INPUT_KINDS, inputAsFor } from './input-kinds/registry';
export { NOTATIONS } from './notation/registry';
export { outputChoices } from './notation/output-choices';
export { readTableCsv, type ReadTableCsv, tableCsv } from './table-csv';
