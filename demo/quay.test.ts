import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { bytesOfBase64 } from '../formats/images';
import { parseProject, writeProject } from '../formats/project';
import { saltmarrowQuay } from './quay';
import { quayImages } from './quayImages';

describe('Saltmarrow quay', () => {
  it('is a project that is saved and opened unchanged', () => {
    const project = saltmarrowQuay();
    const read = parseProject(writeProject(project));
    expect(read.ok && read.project).toEqual(project);
  });

  it('has images of the sizes that it says, and uses every one of them', () => {
    for (const { png, width, height } of quayImages)
      expect(decode(bytesOfBase64(png))).toMatchObject({ width, height, channels: 4 });
    const { bodies, tiles } = saltmarrowQuay();
    const used = new Set([...bodies.map(({ image }) => image), ...tiles!.images!]);
    expect(quayImages.map(({ id }) => id).filter((id) => !used.has(id))).toEqual([]);
  });

  it('stands every sprite on its foot, in the middle of the lower edge of its image', () => {
    for (const { shape, foot, image } of saltmarrowQuay().bodies) {
      const { width, height } = quayImages.find(({ id }) => id === image)!;
      expect(shape).toEqual({ kind: 'quad', size: [width, height] });
      expect(foot).toEqual([0, -height / 2, 0]);
    }
  });
});
