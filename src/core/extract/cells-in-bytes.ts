/**
 * The cells of a column as they lie in the UTF-8 bytes of a file, without being cut out: that of each of `rows` rows reaches
 * from `starts[i]` up to `ends[i]`, where i begins at `first` and grows by `step`.
 */
export interface CellsInBytes {
  bytes: Uint8Array;
  starts: Uint32Array;
  ends: Uint32Array;
  first: number;
  step: number;
  rows: number;
}

/** The same without the first of them. */
export const without = (cells: CellsInBytes, rows: number): CellsInBytes => ({
  ...cells,
  first: cells.first + rows * cells.step,
  rows: cells.rows - rows,
});

/** Where the cells of a piece of UTF-8 lie: cell c of row r from `starts[r * width + c]` up to `ends[r * width + c]`. */
export interface Spans {
  bytes: Uint8Array;
  starts: Uint32Array;
  ends: Uint32Array;
  rows: number;
}
