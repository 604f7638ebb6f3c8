// Answers by their tasks. Written by tools/refresh-contract from the structs of the server. Do not edit.

/** A line of the study that an answer offers. */
export interface Addition {
  label: string;
  text: string;
}

/** How a study measures angles. */
export type AngleUnit = "radians" | "degrees";

/** What a slider that plays does at an end of its range. */
export type AtEnd = "stop" | "restart" | "reverse";

/** Why an axis is labelled in another way than was chosen. */
export interface AxesNote {
  text: string;
  unit: string | null;
}

/** The axes and the grid of a study. */
export interface AxesSpec {
  x: AxisSpec;
  y: AxisSpec;
  grid: GridKind;
  at_edge: boolean;
  equal: boolean;
  title: string;
  legend: boolean;
  legend_at: [number, number] | null;
  guides: boolean;
}

/** One axis. */
export interface AxisSpec {
  labels: Labels;
  step: string;
  name: string;
  log: boolean;
}

/** The labelled lines of an axis, and the finer ones between them. */
export interface AxisTicks {
  finer: Array<number>;
  labels: Array<string>;
  name: string;
  positions: Array<number>;
}

/** A cell that is not a number: its line and column in the text, from 1. */
export interface BadCell {
  column: number;
  line: number;
  text: string;
}

/** A scene with what the page must know of its study. */
export interface BenchScene {
  axes: SceneAxes;
  axes_spec: AxesSpec;
  check: CheckPoints | null;
  data: Array<DataPoints>;
  digits: number;
  empty: string | null;
  legend: Legend | null;
  reading: Reading | null;
  rows: Array<Row>;
  sets: Partial<Record<string, SceneSet>>;
  sliders: Array<SceneSlider>;
  table: TableSpec;
  unit: AngleUnit;
  units: SceneUnits | null;
  what_if: Array<WhatIfCurve>;
  what_if_spec: WhatIfTableSpec;
  window: SceneWindow;
}

/** The bounds of a window as they stand on its axes: in decades on a logarithmic one. */
export interface Bounds {
  log_x: boolean;
  log_y: boolean;
  x: [number, number];
  x_unit: string;
  y: [number, number];
  y_unit: string;
}

/** One finding followed over the slider: its value, x and y. */
export interface Branch {
  kind: string;
  points: Array<[number, number, number]>;
}

/** The points of a sampling check, and what they miss in a sentence. */
export interface CheckPoints {
  count: string;
  line: number;
  points: Array<number>;
  sentence: string;
  step: string;
}

/** An equation of a set with the values of a solution in it. */
export interface CheckedEquation {
  difference: string;
  is_exact: boolean;
  left: string;
  mathml: string;
  right: string;
  text: string;
}

/** A solution put into all equations of its set. */
export interface CheckedSolution {
  equations: Array<CheckedEquation>;
  label: string;
}

/** A circle of a polar grid. */
export interface Circle {
  rx: number;
  ry: number;
  text: string;
}

/** The range over which a path closes. */
export interface Closing {
  high: string;
  low: string;
  text: string;
}

/** A coefficient of a fit with its standard error. */
export interface Coefficient {
  error: string;
  name: string;
  unit: string;
  value: string;
}

/** What is shown of a version that was just committed; no scene if it takes long. */
export interface CommittedAnswer {
  findings?: FollowingFindings;
  redo?: string | null;
  scene: BenchScene | null;
  trails: Partial<Record<string, Array<[number, number] | null>>>;
  undo?: string | null;
  version?: number;
}

/** How a complex number is written: a + b i, r e^(i φ), or r ∠ φ. */
export type ComplexShape = "rectangular" | "polar" | "angle";

/** What is drawn of a line of the study. */
export interface Curve {
  bands: Array<Array<number>>;
  dashed?: Array<Array<number>>;
  dense?: Array<Array<number>>;
  dots?: Array<number>;
  ends?: Array<CurveEnd>;
  fills?: Array<Array<number>>;
  guides?: Array<number>;
  joined?: boolean;
  levels?: Array<Level>;
  pieces: Array<Array<number>>;
  specks?: Array<number>;
}

/** An end of a curve: filled if it is included. */
export interface CurveEnd {
  closed: boolean;
  x: number;
  y: number;
}

/** Some rows of all columns, and the fits. */
export interface DataAnswer {
  data: DataPart;
  version: number;
}

/** Some cells of a column. */
export interface DataColumn {
  cells: Array<string>;
  formula: string;
  name: string;
  problem: string;
  summary: Summary | null;
  unit: string;
}

/**  */
export interface DataPart {
  chosen: Array<number>;
  columns: Array<DataColumn>;
  count: number;
  filter: string;
  filter_problem: string;
  fits: Array<FitAnswer>;
  from: number;
  kept: number | null;
  out: Array<boolean>;
  plots: Array<Plot>;
}

/** Two columns drawn as points, and which of them are chosen. */
export interface DataPoints {
  chosen?: Array<number>;
  points: Array<number>;
  tone: number;
  x: string;
  x_bars?: Array<Array<number>>;
  y: string;
  y_bars?: Array<Array<number>>;
}

/** What the window shows of a line, in sentences. */
export interface DescribedLine {
  id: number;
  mathml: string;
  sentences: Array<string>;
  text: string;
}

/** What the window shows, in words. */
export interface DescriptionAnswer {
  data: Array<string>;
  lines: Array<DescribedLine>;
  version: number;
  window: string;
}

/** A set of equations with all its solutions. */
export interface EquationSetAnswer {
  bounds: Array<SetBound>;
  box: number;
  chosen: number;
  equations: Array<string>;
  is_sure: boolean;
  known: Array<SetName>;
  latex: string;
  note: string;
  solutions: Array<SetSolutionAnswer>;
  text: string;
  title: string;
  verdict: string;
  version: number;
}

/** The answer to a request that cannot be answered; its status is not 200. */
export interface ErrorAnswer {
  error: Problem;
}

/** The computed values of a study, by the ids of their lines. */
export interface ExactAnswer {
  exact: Partial<Record<string, ExactResult>>;
  version: number;
}

/** An exact value of a row. */
export interface ExactCell {
  mathml: string;
  name: string;
  text: string;
}

/** The exact values in one row. */
export interface ExactCellsAnswer {
  cells: Array<ExactCell>;
  note: string;
  version: number;
}

/** A value in its exact form and as a decimal. */
export interface ExactResult {
  decimal: string;
  exact: string;
  is_equal: boolean;
  is_plain: boolean;
  kind: ResultKind;
  mathml: string;
  note: string;
  reason: string;
}

/** One curve of a family. */
export interface FamilyMember {
  bands: Array<Array<number>>;
  dashed: Array<Array<number>>;
  flag: Flag | null;
  pieces: Array<Array<number>>;
  problem: string;
  text: string;
}

/** A question with its answer now. */
export interface FindingEntry {
  add: Array<Addition>;
  checks: Array<CheckedSolution>;
  complete: boolean | null;
  draw: Array<string>;
  high: string | null;
  id: number;
  labels: Array<number>;
  line: number | null;
  low: string | null;
  mathml: Array<string>;
  note: string;
  other: number | null;
  problem: string;
  remark: string;
  rows: Array<FindingRow>;
  text: string;
  title: string;
  total: number;
  unknown: string;
  variable: string;
  verdict: string;
  what: QueryKind;
  where: string;
}

/** An answer on the plane and the lanes, in tenths of a pixel. */
export interface FindingMark {
  at: [number, number] | null;
  kind: string;
  line: number | null;
  name: string;
  other: number | null;
  proved: boolean | null;
  query: number;
  row: number;
  text: string;
  tone: number | null;
  value: number;
  x: number;
  y: number;
}

/** One line of an answer. */
export interface FindingRow {
  decimal: string;
  flags: Array<string>;
  is_equal: boolean;
  label: string;
  latex: string;
  note: string;
  proved: boolean | null;
  text: string;
  value: string;
  why: Array<string>;
  x: number | null;
  y: number | null;
}

/** An interval in which an inequality holds, in tenths of a pixel. */
export interface FindingSpan {
  high: number;
  high_end: "" | "closed" | "open";
  low: number;
  low_end: "" | "closed" | "open";
  query: number;
}

/** All answers of the Findings panel. */
export interface FindingsAnswer {
  findings: Array<FindingEntry>;
  marks: Array<FindingMark>;
  spans: Array<FindingSpan>;
  version: number;
}

/** A fit; a problem says why it has no result. */
export interface FitAnswer {
  coefficients?: Array<Coefficient>;
  degree: number | null;
  follows: string | null;
  form?: string;
  formula: string;
  freedom?: number;
  id: number;
  line?: string;
  model: string;
  note?: string;
  predicted?: string;
  problem: string;
  r_squared?: string;
  residual_sd?: string;
  residuals?: Array<[number, number]>;
  text?: string;
  x: string;
  y: string;
}

/** Where the flag with a name stands. */
export interface Flag {
  width: number;
  x: number;
  y: number;
}

/** The answers that keep up with a drag, and the questions whose answers come when it rests. */
export interface FollowingFindings {
  findings: Array<FindingEntry>;
  late: Array<number>;
  marks: Array<FindingMark>;
  spans: Array<FindingSpan>;
}

/** The lines of the grid. */
export type GridKind = "fine" | "coarse" | "none" | "polar";

/** What functions do between a row and the next ones. */
export interface Happening {
  last: number;
  sentence: string;
  what: string;
}

/** A name behind a number that hides a unit, and the line with the unit in its place. */
export interface HiddenUnit {
  name: string;
  text: string;
  unit: string;
}

/** What a line is. */
export type Kind = "function" | "several" | "operation" | "path" | "polar" | "relation" | "region" | "parameter" | "point" | "list" | "matrix" | "truth" | "note" | "equations" | "unread";

/** How an axis is labelled. */
export type Labels = "numbers" | "pi" | "degrees";

/** Where a line is defined; signs and trends are ``[from, to, -1 | 0 | 1]``. */
export interface Lane {
  band: [number, number] | null;
  bands?: Array<[number, number]>;
  complete?: boolean;
  fixed?: boolean;
  high: LaneEnd | null;
  holes: Array<number>;
  low: LaneEnd | null;
  marks: Array<LaneMark>;
  reasons?: Array<string>;
  scale?: LaneScale;
  signs?: Array<[number, number, number]>;
  trends?: Array<[number, number, number]>;
  undefined: Array<[number, number]>;
}

/** An end of a domain on its lane. */
export interface LaneEnd {
  closed: boolean;
  text: string;
  x: number;
}

/** A zero, or another mark, on a lane. */
export interface LaneMark {
  kind: string;
  proved: boolean;
  short: string;
  text: string;
  value: number;
  x: number;
}

/** The scale of a lane whose parameter is not the x of the plane. */
export interface LaneScale {
  high: number;
  low: number;
  ticks: Array<LaneTick>;
}

/** A label of a lane with a scale of its own. */
export interface LaneTick {
  text: string;
  x: number;
}

/** The legend, in px; ``rows`` are indices of lines. */
export interface Legend {
  height: number;
  row: number;
  rows: Array<number>;
  width: number;
  x: number;
  y: number;
}

/** A level of a map, with the parts filled above it. */
export interface Level {
  fills: Array<Array<number>>;
  labels: Array<LevelLabel>;
  lines: Array<Array<number>>;
  text: string;
}

/** Where the label of a level stands, and its angle in degrees. */
export interface LevelLabel {
  angle: number;
  x: number;
  y: number;
}

/** What was chosen for a line. */
export interface LineStyle {
  stroke: number | null;
  weight: 1 | 2 | 3;
  flag: boolean;
  joined: boolean;
  mark: Mark;
}

/** What stands at a point. */
export type Mark = "dot" | "ring" | "cross" | "square";

/** Why nothing of a line is seen, and whether another window would show it. */
export interface NotDrawn {
  frame: boolean;
  sentence: string;
}

/** A piece of a note; a formula is MathML too. */
export interface NotePart {
  mathml: string;
  text: string;
}

/** How the numbers of a table are written. */
export type NumberForm = "significant" | "fixed" | "scientific";

/** How a result is written. */
export type NumberShape = "exact" | "decimal" | "mixed" | "percent" | "scientific" | "engineering";

/** What the page must know of a study before its first scene. */
export interface OpeningAnswer {
  axes_spec: AxesSpec;
  digits: number;
  is_compiled: boolean;
  table: TableSpec;
  trails: Partial<Record<string, Array<[number, number] | null>>>;
  unit: AngleUnit;
}

/** An operation that the student chose, with what it led to. */
export interface OwnReductionStep {
  is_done: boolean;
  is_nearer: boolean;
  operation: string;
  rows: Array<Array<string>>;
  sentence: string;
}

/** How a slider moves by itself. */
export interface Play {
  seconds: number;
  forward: boolean;
  at_end: AtEnd;
  in_step: boolean;
}

/** Two columns that are drawn as points. */
export interface Plot {
  x: string;
  y: string;
  x_error: string;
  y_error: string;
}

/** A polar grid. */
export interface PolarGrid {
  circles: Array<Circle>;
  spokes: Array<Spoke>;
  x: number;
  y: number;
}

/** How a text would be read; a line of Working has no kind. */
export interface PreviewAnswer {
  domain: string;
  hint: string;
  kind: Kind | null;
  latex: string;
  mathml: string;
  name: string | null;
  problem: Problem | null;
  text: string;
}

/** The one shape of an error: what went wrong, in which field or where in a text. */
export interface Problem {
  code: string;
  letters?: Array<string>;
  message: string;
  path: string;
  position?: [number, number];
  repair?: Repair | null;
  retry_after_s?: number;
  suggestion?: string | null;
}

/** What is located or measured. */
export type QueryKind = "zeros" | "extrema" | "inflections" | "breaks" | "crossing" | "asymptotes" | "intersections" | "solve" | "point" | "interval" | "data";

/** A column that was read from a text. */
export interface ReadColumn {
  cells: Array<string>;
  name: string;
  unit: string;
}

/** A text read as columns. */
export interface ReadDataAnswer {
  bad: Array<BadCell>;
  bad_count: number;
  columns: Array<ReadColumn>;
  decimal: string;
  header: boolean;
  separator: string;
}

/** A sheet of a workbook as text, its cells apart by tabs, and the names of all sheets. */
export interface ReadWorkbookAnswer {
  sheet: string;
  sheets: Array<string>;
  text: string;
}

/** The reading line. */
export interface Reading {
  text: string;
  value: number;
  x: number;
}

/** The reading line, and what the lines show at it, by their ids. */
export interface ReadingAnswer {
  reading: Reading | null;
  values: Partial<Record<string, RowReading | null>>;
  version: number;
}

/** A row reduction with its steps, and what it says. */
export interface ReductionAnswer {
  own: Array<OwnReductionStep>;
  own_problem: Problem | null;
  pivots: Array<number>;
  rank: number;
  sentence: string;
  solution: Array<string>;
  start: Array<Array<string>>;
  steps: Array<ReductionStep>;
  unknowns: Array<string>;
  version: number;
}

/** A row operation with the matrix after it; pivots are [row, column] from 0. */
export interface ReductionStep {
  operation: string;
  pivots: Array<Array<number>>;
  rows: Array<Array<string>>;
}

/** A change of a text that corrects it. */
export interface Repair {
  label: string;
  position: [number, number];
  text: string;
}

/** What an expression gave. */
export type ResultKind = "number" | "complex" | "point" | "list" | "matrix" | "truth" | "quantity";

/** A line of the study: its text, what it means, its curve and its lane. */
export interface Row {
  assumed: string;
  closes: Closing | null;
  curve: Curve | null;
  disabled: boolean;
  domain: string;
  ends: RowEnds;
  family: RowFamily | null;
  fixed: boolean;
  flag: Flag | null;
  hidden: boolean;
  id: number;
  kind: Kind;
  lane: Lane | null;
  mathml: string;
  name: string | null;
  note: string;
  problem: Problem | null;
  reading: RowReading | null;
  runner: RowRunner | null;
  size: string;
  style: LineStyle;
  text: string;
  tone: number | null;
  trail: RowTrail | null;
  undrawn: string | null;
  used_by: Array<string>;
  value: string | null;
  variable: string | null;
  variables: Array<string>;
  why: NotDrawn | null;
  words: Array<NotePart>;
}

/** The ends of a domain as they were typed. */
export interface RowEnds {
  high: string;
  low: string;
}

/** A line drawn for several values of a slider. */
export interface RowFamily {
  count: string;
  first: string;
  last: string;
  members: Array<FamilyMember>;
  name: string;
  problem: Problem | null;
  sign: string;
  slider: number;
  values: string;
}

/** What a line shows at the reading line. */
export interface RowReading {
  reason: string;
  text: string;
  x?: number;
  y: number | null;
}

/** The runner of a path. */
export interface RowRunner {
  at: string;
  high: number;
  is_set: boolean;
  lane: number;
  low: number;
  play: Play;
  problem: string | null;
  text: string;
  value: number;
  x: number | null;
  y: number | null;
}

/** A trail: how many of its positions are shown. */
export interface RowTrail {
  most: number;
}

/** The unit of a row, and a name in it that may be meant as a unit. */
export interface RowUnits {
  choice: UnitChoice | null;
  hidden: HiddenUnit | null;
}

/** The scene of a state, of those before it on the way, and of those that may come next. */
export interface SceneAnswer {
  before: Array<BenchScene>;
  findings?: FollowingFindings;
  may_prefetch?: boolean;
  prefetched?: Array<SceneAnswer>;
  scene: BenchScene;
  spent_ms: number;
  version: number;
  visited: Partial<Record<string, Array<[number, number] | null>>>;
}

/** The axes and the grid. */
export interface SceneAxes {
  grid: GridKind;
  guides: boolean;
  left_edge: boolean;
  lower_edge: boolean;
  note: AxesNote | null;
  polar: PolarGrid | null;
  title: Array<TitleLine>;
  x: AxisTicks;
  x_axis: number | null;
  y: AxisTicks;
  y_axis: number | null;
}

/** What a letter behind a number means in an equation of a set, and its text with the other. */
export interface SceneLetterMeaning {
  equation: number;
  other: string;
  sentence: string;
  text: string;
}

/** A set of equations in short, with its names as they are shown. */
export interface SceneSet {
  chosen: number;
  count: number;
  is_sure: boolean;
  known: Array<string>;
  meanings: Array<SceneLetterMeaning>;
  note: string;
  unknown: Array<string>;
  values: Array<SceneSetValue>;
  verdict: string;
}

/** An unknown of a set: its name, typeset too, its value with its unit, and who uses it. */
export interface SceneSetValue {
  choice: UnitChoice | null;
  mathml: string;
  name: string;
  text: string;
  used_by: Array<string>;
}

/** A slider: its value, its range as typed and as numbers, and how it plays. */
export interface SceneSlider {
  about: string;
  high: string;
  high_value: number;
  id: number;
  is_beyond: boolean;
  kind: SliderKind;
  low: string;
  low_value: number;
  moves: boolean;
  name: string;
  note: string;
  play: Play;
  problem: Problem | null;
  short: string;
  sign: string;
  step: string;
  step_value: number;
  text: string;
  unit: string;
  used_by: Array<string>;
  value: number;
}

/** The units of rows, by their ids, and those of both axes. */
export interface SceneUnits {
  rows: Partial<Record<string, RowUnits>>;
  x: Array<UnitChoice>;
  y: Array<UnitChoice>;
}

/** The window of a scene, which reaches ``beyond`` px farther than what is seen. */
export interface SceneWindow {
  beyond: number;
  height: number;
  log_x: boolean;
  log_y: boolean;
  stretch: number;
  width: number;
  x: [number, number];
  x_unit: string;
  y: [number, number];
  y_unit: string;
}

/** What is located. */
export type Search = "zeros" | "extrema" | "intersections";

/** What a column shows of the values from row to row. */
export type Series = "value" | "difference" | "ratio" | "sum";

/** Where an unknown of a set is sought; empty texts where nothing was typed. */
export interface SetBound {
  high: string;
  low: string;
  name: string;
  unit: string;
}

/** A name of a set with its value, typeset, and its unit. */
export interface SetName {
  exact: string;
  mathml: string;
  name: string;
  proved: boolean;
  text: string;
}

/** One solution of a set: its unknowns, and its equations with the values put in. */
export interface SetSolutionAnswer {
  checks: Array<CheckedEquation>;
  proved: boolean;
  values: Array<SetName>;
}

/** What a slider's values are. */
export type SliderKind = "real" | "whole" | "angle";

/** A line of a polar grid from its pole. */
export interface Spoke {
  label: [number, number] | null;
  text: string;
  x: number;
  y: number;
}

/** A column in a few numbers, and its histogram. */
export interface Summary {
  count: number | null;
  edges: Array<number>;
  greatest: number | null;
  heights: Array<number>;
  least: number | null;
  mean: number | null;
  missing: number | null;
  quartiles: Array<number | null>;
  sd: number | null;
}

/** A sweep that waits in the queue. */
export interface SweepBegun {
  sweep: string;
  total: number;
}

/** Where findings appear, merge or vanish. */
export interface SweepEvent {
  sentence: string;
  value: number;
  x: number;
}

/** A finding for one value of the slider. */
export interface SweepItem {
  kind: string;
  proved: boolean | null;
  x: string;
  y: string;
}

/** How far a sweep is. */
export interface SweepProgress {
  done: number;
  problem: string;
  result: SweepResult | null;
  state: string;
  total: number;
}

/** A sweep that is done. */
export interface SweepResult {
  branches: Array<Branch>;
  complete: boolean;
  events: Array<SweepEvent>;
  high: string | null;
  high_value: number;
  low: string | null;
  low_value: number;
  name: string;
  note: string;
  other: string;
  rows: Array<SweepRow>;
  slider: string;
  what: Search;
}

/** What was found for one value of the slider. */
export interface SweepRow {
  complete: boolean;
  items: Array<SweepItem>;
  value: string;
}

/** Some rows of the table. */
export interface TableAnswer {
  table: TablePart;
  version: number;
}

/** A value with right digits, or why there is none. */
export interface TableCell {
  reason: string;
  text: string;
}

/** A column that was added to a table, or what was set for one of a shown function. */
export interface TableColumn {
  text: string;
  series: Series;
  digits: number | null;
  form: NumberForm | null;
  out: boolean;
}

/** A column of the table; a problem says why it has no values. */
export interface TableHead {
  digits?: number;
  form?: NumberForm;
  name: string;
  own: number | null;
  problem: string;
  series?: Series;
  text: string;
  tone?: number | null;
  unit?: string;
}

/**  */
export interface TablePart {
  columns: Array<TableHead>;
  count: number;
  from: number;
  problem: string | null;
  rows: Array<TableRow>;
  variable?: string;
  variable_unit?: string;
}

/** A row of the table. */
export interface TableRow {
  cells: Array<TableCell>;
  happenings: Array<Happening>;
  row: number;
  typed: string;
  value: number;
  x: string;
}

/** A table of values. */
export interface TableSpec {
  start: string;
  stop: string;
  step: string;
  count: string;
  listed: string;
  digits: number;
  form: NumberForm;
  columns: Array<TableColumn>;
  over: string;
  at: string;
}

/** A line of the title; a formula in it is MathML. */
export interface TitleLine {
  mathml: string;
  text: string;
}

/** The unit that is shown, and those that fit as well. */
export interface UnitChoice {
  fits: Array<UnitOption>;
  measures: string;
  of_difference: boolean;
  shown: string;
}

/** A unit that can be chosen: as it is typed, and as it is printed. */
export interface UnitOption {
  symbol: string;
  text: string;
}

/** The window and the open tab as they are stored. */
export interface ViewAnswer {
  folded: boolean;
  follows: Partial<Record<string, string>>;
  reading: number | null;
  tab: string;
  window: Bounds;
}

/**  */
export interface WhatIfAnswer {
  columns: Array<WhatIfColumn>;
  count: number;
  drawn: Array<string>;
  from: number;
  given: Array<WhatIfName>;
  missing: Array<string>;
  names: Array<WhatIfName>;
  problem: string;
  rows: Array<WhatIfRow>;
  unit: string;
  version: number;
}

/** A value, or why there is none. */
export interface WhatIfCell {
  reason: string;
  text: string;
}

/** A column of the what-if table. */
export interface WhatIfColumn {
  label: string;
  problem: string;
  text: string;
  unit: string;
}

/** A column of the what-if table as a curve, with a dot for each row. */
export interface WhatIfCurve {
  dots: Array<number>;
  label: string;
  lines: Array<Array<number>>;
  tone: number;
}

/** The columns of the what-if table for which equations are solved, as curves. */
export interface WhatIfCurvesAnswer {
  curves: Array<WhatIfCurve>;
  version: number;
}

/** A name that can be varied, and how it is shown. */
export interface WhatIfName {
  name: string;
  text: string;
}

/** A row of the what-if table. */
export interface WhatIfRow {
  cells: Array<WhatIfCell>;
  row: number;
  value: string;
}

/** What the what-if table is made from; what has its usual value is left out. */
export interface WhatIfTableSpec {
  columns?: Array<string>;
  count?: string;
  instead?: string;
  is_drawn?: boolean;
  listed?: string;
  name?: string;
  start?: string;
  step?: string;
  stop?: string;
}

/** Another window; for ``reading`` the number alone. */
export interface WindowAnswer {
  follows?: Partial<Record<string, string>>;
  window?: Bounds;
  x?: number;
}

/** A part of a list or a matrix: its first row and column from 0, and its cells. */
export interface WorkCellsAnswer {
  cells: Array<Array<string>>;
  column: number;
  exact: Array<Array<string>>;
  row: number;
  shape: Array<number>;
  typed: Array<Array<string>>;
  version: number;
}

/** What a line of Working is. */
export type WorkKind = "value" | "function" | "equation" | "note" | "unread";

/** A result of Working: what stands large, what stands beside it, and what can be chosen. */
export interface WorkResult {
  beside: string;
  complex_shapes: Array<ComplexShape>;
  corner: Array<Array<string>>;
  is_equal: boolean;
  kind: ResultKind;
  large: string;
  latex: string;
  length: number;
  mathml: string;
  note: string;
  reason: string;
  shape: Array<number>;
  shapes: Array<NumberShape>;
  units: UnitChoice | null;
}

/** A small graph: x and y are its window, positions are in tenths of a pixel. */
export interface WorkSketchAnswer {
  bands: Array<Array<number>>;
  bars: Array<number | null>;
  cells: Array<Array<number | null>>;
  is_cut: boolean;
  kind: "bars" | "cells" | "curve";
  origin: Array<number>;
  pieces: Array<Array<number>>;
  version: number;
  x: Array<number>;
  y: Array<number>;
}

/** All of a long result. */
export interface WorkTextAnswer {
  text: string;
  version: number;
}

/** All lines of Working. */
export interface WorkingAnswer {
  version: number;
  working: Array<WorkingLine>;
}

/** A line of Working with its result, or why there is none. */
export interface WorkingLine {
  complex_shape: ComplexShape;
  digits: number;
  id: number;
  is_waiting: boolean;
  kind: WorkKind;
  latex: string;
  mathml: string;
  name: string | null;
  problem: Problem | null;
  result: WorkResult | null;
  shape: NumberShape;
  text: string;
  variables: Array<string>;
  words: Array<NotePart>;
}

export interface Answers {
  scene: SceneAnswer;
  reading: ReadingAnswer;
  committed: CommittedAnswer;
  opening: OpeningAnswer;
  view: ViewAnswer;
  window: WindowAnswer;
  preview: PreviewAnswer;
  findings: FindingsAnswer;
  description: DescriptionAnswer;
  table: TableAnswer;
  data: DataAnswer;
  read_data: ReadDataAnswer;
  read_workbook: ReadWorkbookAnswer;
  exact_cells: ExactCellsAnswer;
  exact: ExactAnswer;
  working: WorkingAnswer;
  work_text: WorkTextAnswer;
  work_sketch: WorkSketchAnswer;
  work_cells: WorkCellsAnswer;
  reduction: ReductionAnswer;
  equation_set: EquationSetAnswer;
  what_if: WhatIfAnswer;
  what_if_curves: WhatIfCurvesAnswer;
  error: ErrorAnswer;
  commands: CommittedAnswer;
  history: CommittedAnswer;
  sweeps: SweepBegun;
  sweep_progress: SweepProgress;
}

export type AnyAnswer = Answers[keyof Answers];
