import type { Find } from '../task';

/** What the worksheet of Deliver has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'Language of the code', at: '#deliver-language', words: 'generate source export library header shader' },
  { name: 'Code', at: '[data-section="deliver-code"]', words: 'source functions download copy' },
  { name: 'Example of the code', at: '[data-section="deliver-example"]', words: 'usage main expected values' },
  { name: 'Test vectors', at: '[data-section="deliver-vectors"]', words: 'check harness unit test expected faults' },
  { name: 'Save pictures', at: '[data-section="deliver-pictures"]', words: 'PNG SVG image export screenshot' },
  { name: 'Scene files', at: '[data-section="deliver-files"]', words: 'glTF glb OBJ CSV JSON import export' },
  { name: 'Report', at: '[data-section="deliver-report"]', words: 'print HTML page working' },
  { name: 'Commands for CI', at: '[data-section="deliver-commands"]', words: 'build server pipeline command line' },
];
