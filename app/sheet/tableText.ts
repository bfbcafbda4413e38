/**
 * Writes rows of named columns as comma-separated text, with a line of headings. Loads the CSV library when
 * it is first called.
 */
export const tableText = async (
  headings: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): Promise<string> => (await import('../../formats/csv')).writeTable(headings, rows);
