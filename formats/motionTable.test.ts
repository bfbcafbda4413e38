import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { writeTable } from './csv';
import { readMotion } from './motionTable';

const number = fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((v) => v || 0);

describe('a motion as a table', () => {
  it('comes back as it was written', () => {
    const row = fc.record({ step: fc.double({ min: 0.001, max: 9, noNaN: true }), at: fc.tuple(number, number, number), turn: fc.tuple(number, number, number), fov: number }); // prettier-ignore
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 20 }), (list) => {
        let time = -0.001;
        const rows = list.map(({ step, at: place, turn: [yaw, pitch, roll], fov }) => ({ time: (time += step), place, yaw, pitch, roll, fov })); // prettier-ignore
        const text = writeTable(
          ['time', 'x', 'y', 'z', 'yaw', 'pitch', 'roll', 'fov'],
          rows.map(({ time: t, place, yaw, pitch, roll, fov }) => [t, ...place, yaw, pitch, roll, fov]),
        );
        if (rows[0]!.time < 0) return;
        expect(readMotion(text, ['x', 'y', 'z'])).toEqual({ ok: true, rows });
      }),
    );
  });

  it('is read by other names and dividers, with what it lacks null', () => {
    const text = 'Seconds;pos_x;pos_y;pos_z;Heading (deg)\n0;1;2;3;90\n0.5;4;5;6;91\n';
    expect(readMotion(text, ['x', 'y', 'z'])).toEqual({
      ok: true,
      rows: [
        { time: 0, place: [1, 2, 3], yaw: 90, pitch: null, roll: null, fov: null },
        { time: 0.5, place: [4, 5, 6], yaw: 91, pitch: null, roll: null, fov: null },
      ],
    });
    expect(readMotion('t\tx\ty\n0\t1\t2\n', ['x', 'y'])).toMatchObject({ ok: true });
    // Blank where a camera has none; comments and blank lines count as lines.
    expect(readMotion('time,x,y,z,fov\n# the start\n0,1,2,3,\n\n1,1,2,x,40', ['x', 'y', 'z'])).toMatchObject({ ok: false, problems: [{ path: 'line 5' }] }); // prettier-ignore
    expect(readMotion('time,x,y,z,fov\n0,1,2,3,\n1,1,2,3,40', ['x', 'y', 'z'])).toMatchObject({ ok: true, rows: [{ fov: null }, { fov: 40 }] }); // prettier-ignore
  });

  it.each([
    ['time,x,y\n0,1,2', 'line 1', /no column for z/],
    ['x,y,z\n1,2,3', 'line 1', /no column for time/],
    ['time,x,y,z', 'line 1', /nothing below the headings/],
    ['time,x,y,z\n0,1,2,3\n1,1,two,3', 'line 3', /y is “two”/],
    ['time,x,y,z\n0,1,2,3\n1,1,,3', 'line 3', /y is missing/],
    ['time,x,y,z\n2,1,2,3\n1,1,2,3', 'line 3', /does not come after 2/],
    ['time,x,y,z\n-1,1,2,3', 'line 2', /before 0/],
  ])('says of %j what is wrong with it', (text, path, message) => {
    const read = readMotion(text, ['x', 'y', 'z']);
    if (read.ok) throw new Error('it was taken');
    expect(read.problems[0]).toMatchObject({ path });
    expect(read.problems[0]!.message).toMatch(message);
  });
});
