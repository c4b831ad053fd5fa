/** Temperature at which a sheet's plain times hold. Common practice. */
export const SHEET_K = 293.15;
