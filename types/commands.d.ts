// Commands by what `do` says. Written by tools/refresh-contract from the structs of the server. Do not edit.

/** How a study measures angles. */
export type AngleUnit = "radians" | "degrees";

/** What a slider that plays does at an end of its range. */
export type AtEnd = "stop" | "restart" | "reverse";

/** The axes and the grid of a study. */
export interface AxesSpec {
  x?: AxisSpec;
  y?: AxisSpec;
  grid?: GridKind;
  at_edge?: boolean;
  equal?: boolean;
  title?: string;
  legend?: boolean;
  legend_at?: [number, number] | null;
  guides?: boolean;
}

/** The two axes of the plane. */
export type AxisName = "x" | "y";

/** One axis. */
export interface AxisSpec {
  labels?: Labels;
  step?: string;
  name?: string;
  log?: boolean;
}

/** Show what stands on an axis in another unit: its numbers change, not the picture. */
export interface AxisUnit {
  do: "axis_unit";
  axis: AxisName;
  unit: string;
  of_difference?: boolean;
}

/** Calculate a column from others, row by row; an empty formula leaves its cells as typed. */
export interface Calculate {
  do: "calculate";
  name: string;
  formula: string;
}

/** Change the look of the axes and the grid; what is not given stays. */
export interface ChangeAxes {
  do: "axes";
  axes: Partial<AxesSpec>;
}

/** Change one cell; the columns grow as far as they are written into. */
export interface ChangeCell {
  do: "cell";
  name: string;
  row: number;
  text: string;
}

/** Show findings with so many digits. */
export interface ChangeDigits {
  do: "digits";
  digits: number;
}

/** Change one end of a domain: its value, or only whether it is included. */
export interface ChangeDomain {
  do: "domain";
  id: number;
  end: "high" | "low";
  x?: number | null;
  text?: string | null;
  keep?: boolean;
  closed?: boolean | null;
  pixel?: number | null;
}

/** Change the ends, the step, the kind of values, how it plays; what is not given stays. */
export interface ChangeRange {
  do: "range";
  id: number;
  low?: string;
  high?: string;
  step?: string;
  unit?: string;
  note?: string;
  kind?: SliderKind;
  play?: Partial<Play>;
}

/** Change the table of values; what is not given stays. */
export interface ChangeTable {
  do: "table";
  start?: string;
  stop?: string;
  step?: string;
  count?: string;
  listed?: string;
  digits?: number;
  form?: NumberForm;
  columns?: Array<TableColumn>;
  over?: string;
  at?: string;
}

/** Show the trail of a point or a runner, hide, clear or thin it, or add positions to it. */
export interface ChangeTrail {
  do: "trail";
  id: number;
  how: "add" | "clear" | "off" | "show" | "thin";
  most?: number;
  points?: Array<[number, number] | null>;
}

/** Measure angles in radians or degrees. */
export interface ChangeUnit {
  do: "unit";
  unit: AngleUnit;
}

/** Change the what-if table; what is not given stays, and an empty name removes the table. */
export interface ChangeWhatIf {
  do: "what_if";
  name?: string;
  start?: string;
  stop?: string;
  step?: string;
  count?: string;
  listed?: string;
  columns?: Array<string>;
  instead?: string;
  is_drawn?: boolean;
}

/** Use another solution of a set of equations, counted from 0, for all that needs its values. */
export interface ChooseSolution {
  do: "choose_solution";
  id: number;
  number: number;
}

/** Delete all lines of Working. */
export interface ClearWork {
  do: "clear_work";
}

/** How a complex number is written: a + b i, r e^(i φ), or r ∠ φ. */
export type ComplexShape = "rectangular" | "polar" | "angle";

/** Turn a line of Working into a definition of the study. */
export interface DefineWork {
  do: "define_work";
  id: number;
}

/** Disable a line, as if it were not written. */
export interface DisableLine {
  do: "disable";
  id: number;
  disabled: boolean;
}

/** Draw all random numbers again, from another seed. */
export interface DrawAgain {
  do: "draw_again";
  seed: number;
}

/** Draw a line for several values of a slider at once; without a slider, for the present one. */
export interface DrawFamily {
  do: "family";
  id: number;
  slider: number | null;
  values?: string;
  first?: string;
  last?: string;
  count?: string;
}

/** Write a line once more behind itself, under the next free name. */
export interface DuplicateLine {
  do: "duplicate";
  id: number;
}

/** Put a block of entries into a list or a matrix that is written out; it grows for it. */
export interface EnterCells {
  do: "enter_cells";
  id: number;
  row: number;
  column: number;
  cells: Array<Array<string>>;
  in_working?: boolean;
}

/** Keep only the rows for which conditions hold, in points, fits and summaries. */
export interface FilterRows {
  do: "filter_rows";
  text?: string;
  rows?: Array<number>;
  x?: string;
  y?: string;
}

/** Ask for what is located or measured, and keep the question. */
export interface Find {
  do: "find";
  what?: QueryKind;
  line?: number | null;
  other?: number | null;
  low?: string | null;
  high?: string | null;
  text?: string;
  unknown?: string;
  at_window?: boolean;
  over_complex?: boolean;
}

/** Fit a curve to two columns, and keep the fit. */
export interface FitCurve {
  do: "fit";
  model: string;
  x: string;
  y: string;
  drawn?: boolean;
  degree?: number | null;
  formula?: string;
  start?: Partial<Record<string, number>>;
}

/** Turn a slider into a constant, or a constant into a slider. */
export interface FixSlider {
  do: "fix";
  id: number;
  fixed: boolean;
}

/** Write a line that follows a fit: its text is written anew when the data change. */
export interface FollowFit {
  do: "follow_fit";
  fit: number;
}

/** Remove a question. */
export interface Forget {
  do: "forget";
  query: number;
}

/** A column as it was pasted, typed or loaded; a cell that is null is missing. */
export interface GivenColumn {
  name: string;
  cells: Array<string | number | null>;
  unit?: string;
}

/** The lines of the grid. */
export type GridKind = "fine" | "coarse" | "none" | "polar";

/** Hide a line: it works but is not drawn. */
export interface HideLine {
  do: "hide";
  id: number;
  hidden: boolean;
}

/** Keep columns of data; of the same name they are replaced. */
export interface KeepColumns {
  do: "columns";
  columns: Array<GivenColumn>;
}

/** Label some answers on the plane, by their indices; without a question, none of any. */
export interface LabelFinding {
  do: "label_finding";
  query: number | null;
  labels?: Array<number>;
}

/** How an axis is labelled. */
export type Labels = "numbers" | "pi" | "degrees";

/** What was chosen for a line. */
export interface LineStyle {
  stroke?: number | null;
  weight?: 1 | 2 | 3;
  flag?: boolean;
  joined?: boolean;
  mark?: Mark;
}

/** Make sliders of names without a value, with ranges guessed from their use. */
export interface MakeSliders {
  do: "make_sliders";
  names: Array<string>;
}

/** What stands at a point. */
export type Mark = "dot" | "ring" | "cross" | "square";

/** Put a line behind another; ``after`` null for the top. */
export interface MoveLine {
  do: "move";
  id: number;
  after?: number | null;
}

/** Move the runner of a path, remove it (``t`` null), or change how it plays. */
export interface MoveRunner {
  do: "runner";
  id: number;
  t?: number | string | null;
  play?: Partial<Play>;
}

/** Move a line of Working to another place, counted from 0. */
export interface MoveWork {
  do: "move_work";
  id: number;
  to: number;
}

/** Keep a note with a question. */
export interface NoteFinding {
  do: "note_finding";
  query: number;
  note: string;
}

/** How the numbers of a table are written. */
export type NumberForm = "significant" | "fixed" | "scientific";

/** How a result is written. */
export type NumberShape = "exact" | "decimal" | "mixed" | "percent" | "scientific" | "engineering";

/** How a slider moves by itself. */
export interface Play {
  seconds?: number;
  forward?: boolean;
  at_end?: AtEnd;
  in_step?: boolean;
}

/** Draw two columns as points, or remove them from the plane. */
export interface PlotColumns {
  do: "plot";
  x: string;
  y: string;
  x_error?: string;
  y_error?: string;
  away?: boolean;
}

/** What is located or measured. */
export type QueryKind = "zeros" | "extrema" | "inflections" | "breaks" | "crossing" | "asymptotes" | "intersections" | "solve" | "point" | "interval" | "data";

/** Delete a column. */
export interface RemoveColumn {
  do: "remove_column";
  name: string;
}

/** Delete a line and the findings about it. */
export interface RemoveLine {
  do: "remove";
  id: number;
}

/** Delete lines. */
export interface RemoveLines {
  do: "remove_several";
  ids: Array<number>;
}

/** Delete rows of all columns, by their numbers from 0. */
export interface RemoveRows {
  do: "remove_rows";
  rows: Array<number>;
}

/** Rename a column, or change its unit. */
export interface RenameColumn {
  do: "rename_column";
  name: string;
  to: string;
  unit?: string;
}

/** Rename a definition wherever it is used. */
export interface RenameLine {
  do: "rename";
  id: number;
  name: string;
}

/** Change the size of a list or a matrix that is written out. */
export interface ResizeCells {
  do: "resize_cells";
  id: number;
  rows: number;
  columns: number;
  in_working?: boolean;
}

/** Bound the search for the unknowns of a set of equations; without bounds as it was at first. */
export interface SearchBetween {
  do: "search_between";
  id: number;
  bounds?: Array<SearchBound>;
}

/** Between which values an unknown of a set is sought. */
export interface SearchBound {
  name: string;
  low: string;
  high: string;
}

/** What a column shows of the values from row to row. */
export type Series = "value" | "difference" | "ratio" | "sum";

/** Move a slider: a number snaps to its steps, a text such as ``pi/2`` stays as it was typed. */
export interface SetSlider {
  do: "set";
  id: number;
  value: number | string;
}

/** Show points of a function over its curve, and what they miss; without a line, none. */
export interface ShowCheck {
  do: "check";
  line: number | null;
  count?: string;
  step?: string;
}

/** Show the value of a line in another unit; of a function all values on its axis. */
export interface ShowIn {
  do: "show_in";
  id: number;
  unit: string;
  name?: string;
}

/** Choose how the result of a line of Working is written; what is left out stays. */
export interface ShowWork {
  do: "show_work";
  id: number;
  shape?: NumberShape;
  complex_shape?: ComplexShape;
  digits?: number;
  unit?: string;
}

/** What a slider's values are. */
export type SliderKind = "real" | "whole" | "angle";

/** Sort all rows by one column; missing cells come last. */
export interface SortColumns {
  do: "sort_columns";
  name: string;
  falls?: boolean;
}

/** Draw a line in another way; what is not given stays. */
export interface StyleLine {
  do: "style";
  id: number;
  tone?: number | null;
  style?: Partial<LineStyle>;
}

/** A column that was added to a table, or what was set for one of a shown function. */
export interface TableColumn {
  text: string;
  series?: Series;
  digits?: number | null;
  form?: NumberForm | null;
  out?: boolean;
}

/** Make sliders of a formula's letters, and draw it. */
export interface TryFormula {
  do: "try_formula";
  formula: string;
}

/** Remove a fit. */
export interface Unfit {
  do: "unfit";
  fit: number;
}

/** Delete a line of Working. */
export interface Unwork {
  do: "unwork";
  id: number;
}

/** Move an end of a slider to its value, if that lies beyond it. */
export interface WidenRange {
  do: "widen";
  id: number;
}

/** Write a line of Working, whether it reads or not; without an id, a new one. */
export interface Work {
  do: "work";
  id: number | null;
  text: string;
}

/** Write a line, whether it reads or not; without an id, a new one behind ``after``. */
export interface WriteLine {
  do: "write";
  id: number | null;
  text: string;
  after?: number | null;
}

export interface Commands {
  write: WriteLine;
  rename: RenameLine;
  remove: RemoveLine;
  remove_several: RemoveLines;
  hide: HideLine;
  disable: DisableLine;
  style: StyleLine;
  domain: ChangeDomain;
  move: MoveLine;
  duplicate: DuplicateLine;
  set: SetSlider;
  range: ChangeRange;
  widen: WidenRange;
  fix: FixSlider;
  make_sliders: MakeSliders;
  family: DrawFamily;
  choose_solution: ChooseSolution;
  search_between: SearchBetween;
  runner: MoveRunner;
  trail: ChangeTrail;
  unit: ChangeUnit;
  digits: ChangeDigits;
  axes: ChangeAxes;
  check: ShowCheck;
  table: ChangeTable;
  find: Find;
  forget: Forget;
  note_finding: NoteFinding;
  label_finding: LabelFinding;
  columns: KeepColumns;
  cell: ChangeCell;
  calculate: Calculate;
  filter_rows: FilterRows;
  remove_rows: RemoveRows;
  rename_column: RenameColumn;
  remove_column: RemoveColumn;
  sort_columns: SortColumns;
  plot: PlotColumns;
  fit: FitCurve;
  follow_fit: FollowFit;
  try_formula: TryFormula;
  unfit: Unfit;
  work: Work;
  unwork: Unwork;
  show_work: ShowWork;
  move_work: MoveWork;
  clear_work: ClearWork;
  define_work: DefineWork;
  draw_again: DrawAgain;
  enter_cells: EnterCells;
  resize_cells: ResizeCells;
  show_in: ShowIn;
  axis_unit: AxisUnit;
  what_if: ChangeWhatIf;
}

export type AnyCommand = Commands[keyof Commands];
