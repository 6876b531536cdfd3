/** Octets that a workbook may unfold to; a small file can hold a very large one. */
export const MOST_UNFOLDED = 200 * 1024 * 1024;
/** Rows, columns and cells that a sheet for us may have. */
export const MOST_ROWS = 100_000;
export const MOST_COLUMNS = 200;
export const MOST_CELLS = 2_000_000;
/** Memory and time that reading one may take before its thread is ended. */
export const MOST_MEMORY_MB = 512;
export const MOST_SECONDS = 60;
