import { describe, expect, it } from 'vitest';
import { saltmarrow } from '../demo/saltmarrow';
import { readImport } from './importing';
import { placeWords } from './places';

describe('places in the words of the screen', () => {
  const value = {
    bodies: [{ id: 'a', name: 'Crane A' }, { id: 'quay' }, {}],
    cameras: [{ id: 'c', name: 'Lamp room' }],
  };
  it.each([
    ['bodies[0].position[0]', '“Crane A”, position x'],
    ['bodies[1].rotation[3]', '“quay”, rotation w'],
    ['bodies[2].shape.positions', 'body 3, positions'],
    ['bodies[7].scale', 'body 8, scale'],
    ['cameras[0].projection.verticalFov', '“Lamp room”, vertical field of view'],
    ['camera.orientation.lookAt[2]', 'camera, the point looked at z'],
    ['camera.projection.near', 'camera, the near limit'],
    ['viewport.devicePixelRatio', 'viewport, device pixels per CSS pixel'],
    ['line 3', 'line 3'],
    ['', ''],
    ['bodies', 'bodies'],
  ])('%s', (path, words) => expect(placeWords(path, value)).toBe(words));

  it('are what is said of a file that cannot be read', () => {
    const spoiled = JSON.parse(JSON.stringify(saltmarrow())) as { bodies: { name: string; position: unknown[] }[] };
    spoiled.bodies[13]!.position[0] = 'left';
    const read = readImport(JSON.stringify(spoiled), 'spoiled.json', {
      id: 'new',
      conventions: saltmarrow().conventions,
    });
    if (read.ok) throw new Error();
    expect(read.problems[0]!.path).toBe(`“${spoiled.bodies[13]!.name}”, position x`);
    expect(JSON.stringify(read.problems)).not.toMatch(/bodies\[|orientation\./);
  });
});
