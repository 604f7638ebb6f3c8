// A study file. Written by tools/refresh-contract from the structs of the server. Do not edit.

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

/** One axis. */
export interface AxisSpec {
  labels?: Labels;
  step?: string;
  name?: string;
  log?: boolean;
}

/** Points of a function that are shown over its curve. */
export interface Check {
  line: number;
  count?: string;
  step?: string;
}

/** A column. */
export interface Column {
  name: string;
  cells: Array<string | null>;
  unit?: string;
  formula?: string;
}

/** How a complex number is written: a + b i, r e^(i φ), or r ∠ φ. */
export type ComplexShape = "rectangular" | "polar" | "angle";

/** A family as it is stored, its numbers as they were typed. */
export interface Family {
  slider: number;
  values?: string;
  first?: string;
  last?: string;
  count?: string;
}

/** A fit as it was asked for. */
export interface FitRequest {
  id: number;
  model: string;
  x: string;
  y: string;
  degree?: number | null;
  formula?: string;
  start?: Partial<Record<string, number>>;
}

/** The lines of the grid. */
export type GridKind = "fine" | "coarse" | "none" | "polar";

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

/** What stands at a point. */
export type Mark = "dot" | "ring" | "cross" | "square";

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

/** Two columns that are drawn as points. */
export interface Plot {
  x: string;
  y: string;
  x_error?: string;
  y_error?: string;
}

/** What is located or measured. */
export type QueryKind = "zeros" | "extrema" | "inflections" | "breaks" | "crossing" | "asymptotes" | "intersections" | "solve" | "point" | "interval" | "data";

/** The unit in which the value of a line is shown, or that of a name in a set of equations. */
export interface RowUnit {
  line: number;
  unit: string;
  name?: string;
}

/** The point of a path at one parameter. */
export interface Runner {
  at?: string;
  play?: Play;
}

/** A question that is stored with the study and answered again whenever something changes. */
export interface SavedQuery {
  id: number;
  line?: number | null;
  low?: string | null;
  high?: string | null;
  what?: QueryKind;
  other?: number | null;
  text?: string;
  unknown?: string;
  note?: string;
  labels?: Array<number>;
  at_window?: boolean;
  over_complex?: boolean;
}

/** Between which values an unknown of a set is sought. */
export interface SearchBound {
  name: string;
  low: string;
  high: string;
}

/** What a column shows of the values from row to row. */
export type Series = "value" | "difference" | "ratio" | "sum";

/** What was chosen for a set of equations. */
export interface SetOptions {
  chosen?: number;
  bounds?: Array<SearchBound>;
}

/** Which units were chosen; what was not chosen follows from how the lines are written. */
export interface ShownUnits {
  x?: Array<string>;
  y?: Array<string>;
  rows?: Array<RowUnit>;
  x_difference?: string;
  y_difference?: string;
}

/** A slider as it is stored; its ends and its step are expressions, as they were typed. */
export interface Slider {
  low: string;
  high: string;
  step: string;
  kind?: SliderKind;
  unit?: string;
  note?: string;
  play?: Play;
}

/** What a slider's values are. */
export type SliderKind = "real" | "whole" | "angle";

/**  */
export interface StudyFile {
  format: "axis-path-study";
  version: 2;
  angle_unit: AngleUnit;
  lines: Array<StudyLine>;
  axes?: AxesSpec;
  check?: Check | null;
  table?: TableSpec;
  findings?: Array<SavedQuery>;
  digits?: number;
  columns?: Array<Column>;
  fits?: Array<FitRequest>;
  plots?: Array<Plot>;
  row_filter?: string;
  working?: Array<WorkingLine>;
  random_seed?: number;
  units?: ShownUnits;
  what_if?: WhatIfSpec;
}

/** One line, with what the student chose for it. */
export interface StudyLine {
  id: number;
  text: string;
  hidden?: boolean;
  disabled?: boolean;
  halted?: boolean;
  given?: string | null;
  slider?: Slider | null;
  fixed?: boolean;
  tone?: number | null;
  style?: LineStyle;
  runner?: Runner | null;
  trail?: Trail | null;
  family?: Family | null;
  fit?: number | null;
  fit_lost?: boolean;
  options?: SetOptions | null;
}

/** A column that was added to a table, or what was set for one of a shown function. */
export interface TableColumn {
  text: string;
  series?: Series;
  digits?: number | null;
  form?: NumberForm | null;
  out?: boolean;
}

/** A table of values. */
export interface TableSpec {
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

/** Where a point has been, in the coordinates of the plane. */
export interface Trail {
  points?: Array<[number, number] | null>;
  most?: number;
}

/** What a what-if table is made from, as it was typed. */
export interface WhatIfSpec {
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

/** A line of the scratch calculator, as typed. */
export interface WorkingLine {
  id: number;
  text: string;
  shape?: NumberShape;
  complex_shape?: ComplexShape;
  digits?: number;
  unit?: string;
}

export interface Files {
  study: StudyFile;
}

export type AnyFile = Files[keyof Files];
