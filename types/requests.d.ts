// Requests by their tasks. Written by tools/refresh-contract from the structs of the server. Do not edit.

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

/** Carry out commands and keep what they make; undo is called after the one at ``named``. */
export interface CommandsQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  commands: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  named?: number;
  findings?: "ledger" | "marks" | null;
}

/** The picture of what was just committed, read from the request that did it. */
export interface CommittedQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  findings?: "ledger" | "marks" | null;
}

/** How a complex number is written: a + b i, r e^(i φ), or r ∠ φ. */
export type ComplexShape = "rectangular" | "polar" | "angle";

/** Some rows of all columns, and the fits. */
export interface DataQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  from?: number | null;
  predict?: Prediction | null;
}

/** Turn a line of Working into a definition of the study. */
export interface DefineWork {
  do: "define_work";
  id: number;
}

/** What the window shows, in words. */
export interface DescriptionQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
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

/** A set of equations that is a line: its solutions, and on request each put into them. */
export interface EquationSetQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  id: number;
  checked?: boolean;
}

/** The exact values in one row of the table. */
export interface ExactCellsQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  abscissa: string;
  finer?: [string, string] | null;
}

/** The exact forms of all computed values. */
export interface ExactQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
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

/** All answers of the Findings panel; ``whole`` asks for every row of one of them. */
export interface FindingsQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  whole?: number | null;
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

/** Nothing but the file, which comes beside the request. */
export interface OpenFileQuery {
}

/** Nothing is asked but the study itself, before its first scene. */
export interface OpeningQuery {
}

/** A picture of the present state, or the study itself. */
export interface PictureQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  format: "pdf" | "png" | "study" | "svg";
  scale?: number;
  white?: boolean;
  with_reading?: boolean;
  with_findings?: boolean;
  dark?: boolean;
}

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

/** A prediction of a fit: of y for an x, or of x for a y. */
export interface Prediction {
  fit: number;
  of: "x" | "y";
  value: number | null;
}

/** How a text would be read in the place of a line, or as a new line; or as one of Working. */
export interface PreviewQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  text?: string;
  id?: number | null;
  is_working?: boolean;
}

/** What is located or measured. */
export type QueryKind = "zeros" | "extrema" | "inflections" | "breaks" | "crossing" | "asymptotes" | "intersections" | "solve" | "point" | "interval" | "data";

/** A text to be read as columns; what is not given is found out. */
export interface ReadDataQuery {
  text: string;
  separator?: string;
  decimal?: string;
  header?: boolean | null;
}

/** A workbook (XLSX) of which a sheet is to be read; without a name it is the first. */
export interface ReadWorkbookQuery {
  content: string;
  sheet?: string;
}

/** The values at the reading line alone. */
export interface ReadingQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
}

/** A row reduction of a matrix or a linear system, and operations that the student chose. */
export interface ReductionQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  text: string;
  operations?: Array<string>;
}

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

/** The scene of a state, and those of other states if there is time. */
export interface SceneQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  findings?: "ledger" | "marks" | null;
  passed?: Array<Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>>;
  prefetch?: Array<Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>>;
}

/** What is located. */
export type Search = "zeros" | "extrema" | "intersections";

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

/** A state of a study, seen through a window: what all requests of the Bench begin with. */
export interface StateQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
}

/** Draw a line in another way; what is not given stays. */
export interface StyleLine {
  do: "style";
  id: number;
  tone?: number | null;
  style?: Partial<LineStyle>;
}

/** Follow a finding over a slider: its values by number, or those of a line's family. */
export interface SweepQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  slider: number;
  what: Search;
  line: number;
  other?: number | null;
  low?: string | null;
  high?: string | null;
  count?: number;
  family?: number;
}

/** A column that was added to a table, or what was set for one of a shown function. */
export interface TableColumn {
  text: string;
  series?: Series;
  digits?: number | null;
  form?: NumberForm | null;
  out?: boolean;
}

/** The whole table as a file. */
export interface TableFileQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  units?: boolean;
  exact?: boolean;
}

/** Some rows of the table: from a row on, or around a value of x. */
export interface TableQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  from?: number | null;
  rows?: number | null;
  around?: number | null;
  finer?: [string, string] | null;
}

/** The positions of a trail, by the id of its line. */
export interface TrailQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  line: number;
}

/** Make sliders of a formula's letters, and draw it. */
export interface TryFormula {
  do: "try_formula";
  formula: string;
}

/** The bounds of a window as they were typed. */
export interface TypedBounds {
  x_low: string;
  x_high: string;
  y_low: string;
  y_high: string;
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

/** The window and the open tab, which are stored and have no history. */
export interface ViewQuery {
  window: Viewport;
  reading?: number | null;
  tab?: string;
  folded?: boolean;
}

/** A part of the plane on a screen; bounds as they stand on its axes. */
export interface Viewport {
  x?: [number, number];
  y?: [number, number];
  width: number;
  height: number;
  log_x?: boolean;
  log_y?: boolean;
  x_unit?: string;
  y_unit?: string;
  follows?: Partial<Record<"x_high" | "x_low" | "y_high" | "y_low", string>>;
}

/** Rows of the what-if table, from one on. */
export interface WhatIfQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  from?: number;
}

/** Move an end of a slider to its value, if that lies beyond it. */
export interface WidenRange {
  do: "widen";
  id: number;
}

/** Another window: home, framed (all, or one line by ``id``), by rows or by typed bounds. */
export interface WindowQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  how: "bounds" | "frame" | "home" | "reading" | "rows";
  id?: number | null;
  from?: number;
  to?: number;
  bounds?: TypedBounds;
  text?: string;
}

/** Write a line of Working, whether it reads or not; without an id, a new one. */
export interface Work {
  do: "work";
  id: number | null;
  text: string;
}

/** A part of a list or a matrix, of a line of Working or of a name; it begins at a cell. */
export interface WorkCellsQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  id?: number | null;
  name?: string;
  row?: number;
  column?: number;
  digits?: number;
}

/** A small graph of a line of Working; its width and height in px. */
export interface WorkSketchQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  id: number;
  size?: [number, number];
}

/** All of a long result of a line of Working. */
export interface WorkTextQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  id: number;
  digits?: number;
}

/** The lines of Working with their results; ``again`` is one that took too long before. */
export interface WorkingQuery {
  version: number;
  window: Viewport;
  drafts?: Array<WriteLine | RenameLine | RemoveLine | RemoveLines | HideLine | DisableLine | StyleLine | ChangeDomain | MoveLine | DuplicateLine | SetSlider | ChangeRange | WidenRange | FixSlider | MakeSliders | DrawFamily | ChooseSolution | SearchBetween | MoveRunner | ChangeTrail | ChangeUnit | ChangeDigits | ChangeAxes | ShowCheck | ChangeTable | Find | Forget | NoteFinding | LabelFinding | KeepColumns | ChangeCell | Calculate | FilterRows | RemoveRows | RenameColumn | RemoveColumn | SortColumns | PlotColumns | FitCurve | FollowFit | TryFormula | Unfit | Work | Unwork | ShowWork | MoveWork | ClearWork | DefineWork | DrawAgain | EnterCells | ResizeCells | ShowIn | AxisUnit | ChangeWhatIf>;
  reading?: number | null;
  is_reading_typed?: boolean;
  pointer_y?: number | null;
  visits?: Array<Array<[number, number | string]>>;
  joined?: boolean;
  box?: [[number, number], [number, number]] | null;
  beyond?: number;
  stretch?: number;
  part?: "reading" | "scene";
  digits: number;
  again?: number | null;
}

/** Write a line, whether it reads or not; without an id, a new one behind ``after``. */
export interface WriteLine {
  do: "write";
  id: number | null;
  text: string;
  after?: number | null;
}

export interface Requests {
  scene: SceneQuery;
  reading: ReadingQuery;
  commands: CommandsQuery;
  committed: CommittedQuery;
  opening: OpeningQuery;
  trail: TrailQuery;
  view: ViewQuery;
  window: WindowQuery;
  preview: PreviewQuery;
  findings: FindingsQuery;
  description: DescriptionQuery;
  table: TableQuery;
  data: DataQuery;
  read_data: ReadDataQuery;
  read_workbook: ReadWorkbookQuery;
  exact_cells: ExactCellsQuery;
  exact: ExactQuery;
  working: WorkingQuery;
  work_text: WorkTextQuery;
  work_csv: WorkCellsQuery;
  work_sketch: WorkSketchQuery;
  work_cells: WorkCellsQuery;
  reduction: ReductionQuery;
  equation_set: EquationSetQuery;
  what_if: WhatIfQuery;
  what_if_curves: StateQuery;
  what_if_csv: StateQuery;
  sweep: SweepQuery;
  table_csv: TableFileQuery;
  table_workbook: TableFileQuery;
  picture: PictureQuery;
  open_file: OpenFileQuery;
}

export type AnyRequest = Requests[keyof Requests];
