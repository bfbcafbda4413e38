import fc from 'fast-check';
import { deflateSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { saltmarrowChart } from '../demo/chart';
import { emptySpace } from '../demo/empty';
import { saltmarrow } from '../demo/saltmarrow';
import { runs } from '../core/testing/seed';
import { parseProject, writeProject } from './project';
import { decodeLink, encodeLink, mostLinkLength } from './projectLink';

describe('a project in a link', () => {
  it('comes back as it was, in characters of addresses', () => {
    for (const project of [saltmarrow(), saltmarrowChart(), emptySpace('empty')]) {
      const link = encodeLink(writeProject(project));
      expect(link).toMatch(/^[\w-]+$/);
      const read = parseProject(decodeLink(link)!);
      expect(read.ok && writeProject(read.project)).toBe(writeProject(project));
    }
  });

  it('fits for the demos', () => {
    for (const project of [saltmarrow(), saltmarrowChart()])
      expect(encodeLink(writeProject(project)).length).toBeLessThan(mostLinkLength);
  });

  it('keeps any text', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme-composite', maxLength: 3000 }), (text) => {
        expect(decodeLink(encodeLink(text))).toBe(text);
      }),
      { numRuns: runs(300) },
    );
  });

  it('is rejected when it is cut off, is something else or unfolds without end', () => {
    const link = encodeLink(writeProject(saltmarrow()));
    for (const share of [0.1, 0.5, 0.9, 0.999])
      expect(decodeLink(link.slice(0, Math.floor(link.length * share)))).toBeNull();
    for (const text of ['', '%%%', 'AAAA', 'project']) expect(decodeLink(text)).toBeNull();
    const bomb = Buffer.from(deflateSync(new Uint8Array(40e6))).toString('base64url');
    expect(decodeLink(bomb)).toBeNull();
  });
});
