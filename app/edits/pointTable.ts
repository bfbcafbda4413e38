import { spacesStride } from '../../core/kernels/spaces';
import { writeTable } from '../../formats/csv';
import { useTable } from '../state/table';
import { currentMoment } from '../state/tempo';
import { outsideWords } from '../state/wording';
import { plain } from '../ui/figures';
import { saveFile } from '../ui/files';
import { complain } from '../ui/notices';

/** Returns the filtered rows of the point table as CSV, every number with all its digits. */
export function pointTableText(): string {
  const { points: form } = currentMoment();
  const { table, converted, rows } = useTable.getState();
  if (!table || !converted) return '';
  const vector = (name: string, letters: readonly string[]) => letters.map((letter) => `${name} ${letter}`);
  const heads = [
    ...(table.names ? ['name'] : []),
    ...vector('world', form.letters),
    ...vector('view', ['x', 'y', 'z']),
    ...vector('clip', ['x', 'y', 'z', 'w']),
    ...vector('ndc', ['x', 'y', 'z']),
    ...['screen x', 'screen y', 'depth', 'ahead', 'verdict'],
  ];
  const text = (v: number) => (Number.isNaN(v) ? '' : plain(v));
  const out: string[][] = [];
  for (const i of rows) {
    const p = table.points;
    out.push([
      ...(table.names ? [table.names[i]!] : []),
      ...form.show([p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!]).map(text),
      ...Array.from(converted.spaces.subarray(i * spacesStride, (i + 1) * spacesStride), text),
      outsideWords(converted.outside[i]!),
    ]);
  }
  return writeTable(heads, out);
}

/** Saves the filtered rows of the point table as CSV. */
export function savePointTable(): void {
  const text = pointTableText();
  if (text) saveFile('points.csv', text, 'text/csv');
  else complain('There are no points to save. Paste or load them under Convert, Points.');
}
