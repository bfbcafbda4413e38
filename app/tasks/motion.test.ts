import { resolvedCamera, resolvedCameraSchema } from '../../core/request/resolvedCamera';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { compute } from '../../core/compute/compute';
import { basisOfAngles } from '../../core/camera/orientation';
import { radians } from '../../core/math/angle';
import { frameStages } from '../../core/motion/stages';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { reinterpretValue, writeValue } from '../../core/quantities/convert';
import { space } from '../../core/quantities/world';
import { presets } from '../../core/conventions/conventions';
import { projectRequest } from '../../formats/camera';
import { allCameras, type Project } from '../../formats/project';
import { journeyAt } from '../state/journey';
import { installMovers, momentOf, type Moment } from '../state/moment';
import { installSlices, sliceOf, taskMoment, withSliceIn, withWays } from '../state/slices';
import { moves, spanOf } from '../state/span';
import { jobs, type Compared, type SeamsFound, type TurnedBoth } from './motion/job';
import { beginsElsewhere, journeyOf, mannerNow, trackKey, trackOf } from './motion/journey';
import { newTravel } from './motion/newTravel';
import { mannersOf } from '../../core/motion/rates';
import { moves as motionMoves } from './motion/moves';
import { requestShake, requestTrack } from './motion/queries';
import { seriesOf } from './motion/series';
import { cameraTrack, travelKinds, type CameraTrack, type MotionState, type Travel } from './motion/kept';
import { slice } from './motion/state';
import { steeredFrame, withFrame } from './motion/steer';
import { subjectOf } from './motion/subject';
import { runs } from '../../core/testing/seed';

/* Motion: what the page shows is what the operation answers, in any conventions. */

beforeAll(() => {
  installSlices({ motion: slice });
  installMovers([(rest) => motionMoves(taskMoment('motion', rest))]);
});

const harbour = saltmarrow();
const own = (project: Project, time = 0): Moment<MotionState> => taskMoment('motion', momentOf(project, time));
/** A project looked through another of its cameras. */
const through = (project: Project, id: string): Project => {
  const all = allCameras(project);
  return { ...project, camera: all.find((one) => one.id === id)!, cameras: all.filter((one) => one.id !== id) };
};
/** A project whose camera has a track. */
const withTrack = (project: Project, track: CameraTrack): Project =>
  withSliceIn('motion', project, {
    ...sliceOf<MotionState>('motion', project),
    tracks: { [project.camera.id]: track },
  });

const real = (min: number, max: number) => fc.integer({ min: 0, max: 4096 }).map((v) => min + ((max - min) * v) / 4096);
const place = fc.tuple(real(-30, 30), real(-5, 30), real(-30, 30)).map((p): [number, number, number] => [...p]);
/** Radians of an angle between two in degrees. */
const turn = (min: number, max: number) => real(min, max).map(radians);
const ease = fc.constantFrom('even', 'gentle', 'gentleStart', 'gentleEnd' as const) as fc.Arbitrary<'even' | 'gentle'>;
const travels: fc.Arbitrary<Travel> = fc.oneof(
  place.map((velocity): Travel => ({ kind: 'scroll', velocity })),
  fc.record({ halfLife: real(0, 2), zone: fc.tuple(real(0, 4), real(0, 4), real(0, 4)) }).map(({ halfLife, zone }): Travel => ({ kind: 'follow', body: 'gull-1', halfLife, lookAhead: halfLife / 3, deadZone: [...zone], bounds: null })), // prettier-ignore
  fc.record({ centre: place, yaw: turn(-60, 60), pitch: turn(-20, 20), far: real(-0.1, 0.1) }).map(({ centre, yaw, pitch, far }): Travel => ({ kind: 'orbit', centre, yawRate: yaw, pitchRate: pitch, pitchLimits: [radians(-70), radians(60)], distanceRate: far })), // prettier-ignore
  fc.array(fc.record({ step: real(0.2, 5), position: place, yaw: turn(-180, 180), pitch: turn(-80, 80), roll: turn(-30, 30), fov: turn(20, 100), ease }), { minLength: 1, maxLength: 5 }).map((list): Travel => {
    let time = -0.2;
    return { kind: 'path', keys: list.map(({ step, position, yaw, pitch, roll, fov, ease: e }, i) => ({ id: `k${i}`, time: (time += step), position, yaw, pitch, roll, verticalFov: fov, ease: e })) };
  }), // prettier-ignore
  fc.array(fc.record({ from: real(0, 5), long: real(0.1, 5), right: real(-5, 5), ahead: real(-5, 5), yaw: turn(-90, 90), pitch: turn(-40, 40) }), { maxLength: 3 }).map((list): Travel => ({
    ...{ kind: 'walk', pitchLimit: radians(75) },
    inputs: list.map(({ from, long, right, ahead, yaw, pitch }) => ({ from, to: from + long, right, up: 0.5, ahead, yawRate: yaw, pitchRate: pitch })),
  })), // prettier-ignore
  fc.record({ from: real(5, 60), to: real(5, 60), ease }).map(({ from, to, ease: e }): Travel => ({ kind: 'dollyZoom', target: [-21, 13, -20], distance: [from, to], widest: radians(100), duration: 8, ease: e })), // prettier-ignore
);

it('steps every kind of track in a way that it allows, and knows an answer of an earlier track', () => {
  const keys = new Set<string>();
  for (const travel of fc.sample(travels, { numRuns: 40, seed: 1 })) {
    const now = own(withTrack(harbour, { travel, shake: null }));
    keys.add(trackKey(now));
    const asked = jobs['compared']!.input(now as never) as { manner: string; track: string } | null;
    expect(asked).toMatchObject({ manner: mannerNow(now), track: trackKey(now) });
    expect(mannersOf(travel.kind)).toContain(mannerNow(now));
  }
  expect(keys.size).toBeGreaterThan(30);
});

describe('the camera of the page over time', () => {
  it('is the one that `motion` answers, whatever the track, the conventions and the time', () => {
    let asked = 0;
    fc.assert(
      fc.property(travels, fc.constantFrom(...Object.values(presets)), real(0, 12), (travel, conventions, time) => {
        const project = withTrack({ ...harbour, conventions }, { travel, shake: null });
        const now = own(project, time);
        const track = requestTrack(trackOf(now)!, now);
        const request = projectRequest(project, now.codec, null);
        const made = compute({ ...request, queries: [{ id: 'm', op: 'motion', track: track!, times: [time] }] });
        if (!made.ok) throw new Error(JSON.stringify(made.problem));
        const answered = (made.response.results[0] as unknown as { times: { camera: unknown }[] }).times;
        const shown = journeyAt(journeyOf(now)!, time);
        if (!shown.ok) {
          expect(answered).toBeUndefined();
          return;
        }
        asked++;
        const leaves = (v: unknown): number[] => typeof v === 'number' ? [v] : v && typeof v === 'object' ? Object.values(v).flatMap(leaves) : []; // prettier-ignore
        const [a, b] = [
          leaves(answered[0]!.camera),
          leaves(writeValue(resolvedCameraSchema, resolvedCamera(shown.value, now.codec), now)),
        ];
        expect(a).toHaveLength(b.length);
        // An angle of half a round may come out with either sign.
        const apart = (v: number, w: number) => Math.min(Math.abs(v - w), Math.abs(Math.abs(v - w) - 360), Math.abs(Math.abs(v - w) - 2 * Math.PI)); // prettier-ignore
        a.forEach((v, i) => expect(apart(v, b[i]!)).toBeLessThan(1e-7 * (1 + Math.abs(v))));
        // What is shown is that camera; at 0 it is the project’s own, wherever the track begins.
        const wanted = time === 0 ? now.rest : shown.value;
        expect(Math.hypot(...now.frame.eye.map((v, i) => v - wanted.eye[i]!))).toBeLessThan(1e-9);
      }),
      { numRuns: runs(150) },
    );
    expect(asked).toBeGreaterThan(runs(48));
  });

  it('is the project’s own at time 0, the same object, with every opening motion; and none needs the moment before', () => {
    for (const { id } of allCameras(harbour)) {
      const project = through(harbour, id);
      const now = momentOf(project);
      expect(now.frame).toBe(now.rest);
      if (id !== 'quay') expect(now.journey).not.toBeNull();
      // By any way: asked from afar and back again.
      const there = momentOf({ ...project }, 7.25).frame;
      momentOf(project, 31);
      expect([...momentOf(project, 7.25).frame.viewProjection]).toEqual([...there.viewProjection]);
    }
    expect(moves(through(harbour, 'quay'))).toBe(true);
    expect(spanOf(harbour)).toBe(48);
  });

  it('on the chart follows the launch as `motion` does, and stays in its bounds', () => {
    for (const conventions of Object.values(presets)) {
      const project: Project = { ...saltmarrowChart(), conventions };
      const now = own(project, 17.3);
      const track = requestTrack(trackOf(now)!, now)!;
      const request = projectRequest(project, now.codec, null);
      const made = compute({ ...request, queries: [{ id: 'm', op: 'motion', track, times: [17.3] }] });
      if (!made.ok) throw new Error(JSON.stringify(made.problem));
      const [{ camera }] = (made.response.results[0] as unknown as { times: { camera: { focus: [number, number] } }[] }).times as [{ camera: { focus: [number, number] } }]; // prettier-ignore
      const shown = now.points.read(camera.focus);
      const focus = [-13 + now.frame.eye[0] - now.rest.eye[0], -73 + now.frame.eye[1] - now.rest.eye[1]];
      expect(Math.hypot(shown[0] - focus[0]!, shown[1] - focus[1]!)).toBeLessThan(1e-9);
      // What the picture shows lies in the bounds, wherever the launch has gone.
      const { travel } = trackOf(now)!;
      if (travel.kind !== 'follow' || !travel.bounds) throw new Error('the chart begins with bounds');
      for (let time = 1; time <= 40; time += 3) {
        const { eye, extents: x } = momentOf(project, time).frame;
        expect(eye[0] + x.left).toBeGreaterThan(travel.bounds.min[0] - 1e-9);
        expect(eye[1] + x.bottom).toBeGreaterThan(travel.bounds.min[1] - 1e-9);
        expect(eye[0] + x.right).toBeLessThan(travel.bounds.max[0] + 1e-9);
        expect(eye[1] + x.top).toBeLessThan(travel.bounds.max[1] + 1e-9);
      }
    }
  });

  it('is late for stages that run before it has moved, by as many frames as the order says', () => {
    const base = through(harbour, 'round-the-light');
    const order = ['billboards', ...frameStages.filter((stage) => stage !== 'billboards')];
    const project = withSliceIn('motion', base, { ...sliceOf<MotionState>('motion', base), order });
    const now = momentOf(project, 5);
    expect(Object.keys(now.stale)).toEqual(['billboards']);
    const then = momentOf(project, 5 - 1 / 60).frame;
    now.stale.billboards!.eye.forEach((v, i) => expect(v).toBeCloseTo(then.eye[i]!, 9));
    expect(momentOf(base, 5).stale).toEqual({});
  });

  it('has the ways that a scene brought: at each of their keys the camera stands and looks as it says', () => {
    const numbers = { position: place, yaw: turn(-170, 170), pitch: turn(-80, 80), roll: turn(-30, 30), verticalFov: turn(20, 100) }; // prettier-ignore
    const keys = fc.array(fc.record({ step: real(0.2, 5), ...numbers }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(keys, fc.constantFrom(...allCameras(harbour).map(({ id }) => id)), (list, id) => {
        let time = 0;
        const way = list.map(({ step, ...key }) => ({ time: (time += step), ...key }));
        const project = withWays(through(harbour, id), [{ id, keys: way }]);
        // The other cameras keep their own.
        const [kept, before] = [project, harbour].map((one) => sliceOf<MotionState>('motion', one).tracks) as [MotionState['tracks'], MotionState['tracks']]; // prettier-ignore
        expect({ ...kept, [id]: null }).toEqual({ ...before, [id]: null });
        const journey = journeyOf(own(project))!;
        for (const { time: at, position, yaw, pitch, roll } of way) {
          const shown = journeyAt(journey, at);
          if (!shown.ok) throw new Error('a proper camera');
          shown.value.eye.forEach((v, i) => expect(v).toBeCloseTo(position[i]!, 9));
          const basis = basisOfAngles({ yaw, pitch, roll });
          for (const axis of ['right', 'up', 'forward'] as const)
            shown.value[axis].forEach((v, i) => expect(v).toBeCloseTo(basis[axis][i]!, 9));
        }
      }),
      { numRuns: runs(100) },
    );
  });

  it('keeps its numbers, read by other conventions: what is written stays the same', () => {
    const [from, to] = [presets.WebGL, presets.Vulkan].map((conventions) => own({ ...harbour, conventions }).codec) as [Moment['codec'], Moment['codec']]; // prettier-ignore
    fc.assert(
      fc.property(travels, (travel) => {
        const track: CameraTrack = { travel, shake: { seed: 1, frequency: 2, decay: 0, strength: 1, yaw: 0.01, pitch: 0.02, roll: 0.03, offset: [0, 1] } }; // prettier-ignore
        const again = reinterpretValue(cameraTrack, track, { codec: from, world: space }, { codec: to, world: space });
        const written = (one: CameraTrack, e: Moment['codec']) => [requestShake(one, { codec: e, world: space }), one.travel.kind === 'follow' ? null : requestTrack(one, { ...own(harbour), project: harbour, codec: e, world: space, rest: own(harbour).rest })]; // prettier-ignore
        const numbers = (v: unknown): number[] => JSON.stringify(v).match(/-?\d+(\.\d+)?(e[+-]?\d+)?/g)?.map(Number) ?? []; // prettier-ignore
        const [a, b] = [numbers(written(track, from)), numbers(written(again, to))];
        expect(b).toHaveLength(a.length);
        a.forEach((v, i) => expect(b[i]).toBeCloseTo(v, 6));
      }),
      { numRuns: runs(60) },
    );
  });
});

const control = { progress: () => undefined, breathe: () => Promise.resolve() };

describe('what Motion works out', () => {
  it('charts the subject: a dolly zoom keeps the height, so its share of the picture', () => {
    const now = own(through(harbour, 'breakwater'));
    const series = seriesOf(journeyOf(now)!, subjectOf(now)!, 15, 60);
    expect(series).toHaveLength(61);
    expect(series[0]!.fov).toBeCloseTo(radians(34), 8);
    expect(series.at(-1)!.fov!).toBeGreaterThan(radians(90));
    for (const { x } of series) expect(x).toBeCloseTo(640, 0);
    expect(series.at(-1)!.speed).toBeLessThan(0.01);
  });

  it('finds how far a factor is off at other rates, and nothing at the rate that it was made for but the first frames', async () => {
    const chart = saltmarrowChart();
    const found = async (rate: string, manner: string): Promise<Compared> => {
      const kept = { ...sliceOf<MotionState>('motion', chart), rate, manner };
      const input = jobs.compared!.input(own(withSliceIn('motion', chart, kept)));
      return (await jobs.compared!.run(input, control)) as Compared;
    };
    const [slow, fast, uneven] = [await found('30', 'factor'), await found('144', 'factor'), await found('uneven', 'factor')]; // prettier-ignore
    const [tuned] = [await found('60', 'factor')];
    for (const one of [slow, fast, uneven]) expect(one.most.units).toBeGreaterThan(3 * tuned.most.units);
    expect(slow.times).toHaveLength(1201);
    expect(slow.most.pixels! / slow.most.units).toBeGreaterThan(1);
  });

  it('counts seams of a scroll, none where a tile is whole and the scroll too', async () => {
    const at = async (zoom: number): Promise<SeamsFound> => {
      const chart = saltmarrowChart();
      const project = { ...chart, camera: { ...chart.camera, zoom } } as Project;
      return (await jobs.seams!.run(jobs.seams!.input(own(project)), control)) as SeamsFound;
    };
    const [odd, whole] = [await at(4.83), await at(5)];
    expect(odd.free.frames).toBeGreaterThan(odd.frames / 2);
    expect(whole.free.frames).toBe(0);
    expect(whole.snapped.frames).toBe(0);
    expect(whole.unevenness).toBeLessThanOrEqual(1);
    expect(whole.unevenness).toBeGreaterThan(0.3);
  });

  it('turns a basis with repair and without', async () => {
    const { without, repaired } = (await jobs.turned!.run(jobs.turned!.input(own(harbour)), control)) as TurnedBoth;
    expect(without.at(-1)!.error).toBeGreaterThan(100 * repaired.at(-1)!.error);
    expect(without.at(-1)!.time).toBe(300);
  });

  it('records steering: stretches as long as the hand does the same, the pointer by what it moved', () => {
    const steering = { speed: 6, sensitivity: radians(0.2), pitchLimit: radians(85) };
    const ahead = steeredFrame(new Set(['ArrowUp']), [0, 0], 0.016, steering);
    expect(ahead).toEqual({ right: 0, up: 0, ahead: 6, yawRate: 0, pitchRate: 0 });
    const across = steeredFrame(new Set(['ArrowUp', 'ArrowRight']), [10, -5], 0.02, steering);
    expect(Math.hypot(across.right, across.ahead)).toBeCloseTo(6, 12);
    // Ten pixels turn by two degrees, however long the frame was.
    expect(across.yawRate * 0.02).toBeCloseTo(radians(2), 12);
    expect(across.pitchRate * 0.02).toBeCloseTo(radians(1), 12);
    const inputs: MotionState['tracks'][string]['travel'] & { kind: 'walk' } = { kind: 'walk', inputs: [], pitchLimit: 85 }; // prettier-ignore
    const still = steeredFrame(new Set(), [0, 0], 0.016, steering);
    withFrame(inputs.inputs, still, 0, 0.1);
    withFrame(inputs.inputs, ahead, 0.1, 0.2);
    withFrame(inputs.inputs, ahead, 0.2, 0.3);
    withFrame(inputs.inputs, across, 0.3, 0.4);
    expect(inputs.inputs.map(({ from, to }) => [from, to])).toEqual([[0.1, 0.3], [0.3, 0.4]]); // prettier-ignore
  });
});

describe('a new track', () => {
  it('begins where the camera is, whatever its kind', () => {
    for (const { id } of allCameras(harbour))
      for (const kind of travelKinds) {
        const now = own(through(harbour, id));
        // A followed body moves the camera at once. Rest has no track.
        if (now.flat || kind === 'follow' || kind === 'rest') continue;
        const track = withTrack(now.project, { travel: newTravel(kind, now), shake: null });
        const journey = journeyOf(own(track));
        expect(journey && beginsElsewhere(journey, now.rest), `${id} ${kind}`).toBe(false);
      }
  });
});
