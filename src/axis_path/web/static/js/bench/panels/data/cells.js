// @ts-check
/** Cells and columns that are written, named, sorted, calculated and deleted. */

export function makeCells() {
  return {
    /** A column that is to be calculated. */
    madeName: "",
    madeFormula: "",

    addColumn() {
      const taken = new Set(this.columns.map((column) => column.name));
      let k = this.columns.length + 1;
      while (taken.has(`col${k}`)) k += 1;
      this.change({ do: "columns", columns: [{ name: `col${k}`, cells: [], unit: "" }] });
    },
    async writeCell(cell, event) {
      const text = event.target.value.trim();
      if (text === cell.text) return;
      const error = await this.change({ do: "cell", name: cell.name, row: cell.row, text });
      if (error) event.target.value = cell.text;
    },
    async renameColumn(column, event) {
      const match = /^\s*(.*?)\s*(?:\/\s*(.*?))?\s*$/.exec(event.target.value);
      const to = match?.[1] ?? "";
      const unit = match?.[2] ?? "";
      if (to === column.name && unit === column.unit) return;
      const error = await this.change({ do: "rename_column", name: column.name, to, unit });
      if (error) event.target.value = column.head;
    },
    removeColumn(column) {
      this.change({ do: "remove_column", name: column.name });
    },
    sortBy(column) {
      this.change({ do: "sort_columns", name: column.name, falls: this.fallsNow(column) });
    },
    /** A column that rises already is turned round. */
    fallsNow(column) {
      const values = column.cells.filter(Boolean).map((text) => Number(text.replace("−", "-")));
      return values.length > 1 && values.every((value, k) => k === 0 || values[k - 1] <= value);
    },

    async calculate() {
      const error = await this.change({
        do: "calculate",
        name: this.madeName.trim(),
        formula: this.madeFormula,
      });
      if (!error) this.madeName = this.madeFormula = "";
    },
    get canCalculate() {
      return this.madeName.trim() !== "" && this.madeFormula.trim() !== "";
    },
    async writeFormula(column, event) {
      const formula = event.target.value.trim();
      if (formula === column.formula) return;
      const error = await this.change({ do: "calculate", name: column.name, formula });
      if (error) event.target.value = column.formula;
    },
  };
}
