import { useState } from 'react';
import { anglesOfBasis } from '../../../core/camera/orientation';
import { radians } from '../../../core/math/angle';
import { poseAt } from '../../../core/motion/bodies';
import { coreMotion } from '../../../formats/camera';
import { mostPlaces } from '../../../formats/project';
import { writeTable } from '../../../formats/csv';
import { readMotion } from '../../../formats/motionTable';
import { newId } from '../../state/crashLog';
import { journeyAt, journeyFocus } from '../../state/journey';
import { useSelection } from '../../state/selection';
import { spanOf } from '../../state/span';
import { currentTaskMoment, useTaskMoment } from '../../state/tempo';
import { counted, plain } from '../../ui/figures';
import { askFile, saveFile } from '../../ui/files';
import { complain, copy, say } from '../../ui/notices';
import { changeBodyMotion, changeTrack } from './edits';
import { Num } from './fields';
import { journeyOf, trackOf } from './journey';
import { requestTrack } from './queries';
import { verticalFov } from './series';
import { mostKeys, type MotionState, type PathKey } from './kept';

type Triple = [number, number, number];

/** The camera at even steps as a table, in the conventions in force; empty where it stands. */
function cameraTable(rate: number): string {
  const now = currentTaskMoment<MotionState>('motion');
  const { points: form, codec: e } = now;
  const journey = journeyOf(now);
  if (!journey) return '';
  const count = Math.floor(spanOf(now.project) * rate + 1e-9);
  const times = Array.from({ length: count + 1 }, (_, i) => i / rate);
  // A 2D camera has its focus, before snapping.
  if (journey.kind === 'flat')
    return writeTable(
      ['time', ...form.letters.map((letter) => `focus ${letter}`)],
      times.map((time) => [time, ...form.show([...journeyFocus(journey, time), 0])].map(plain)),
    );
  const rows = times.flatMap((time) => {
    const made = journeyAt(journey, time);
    if (!made.ok) return [];
    const place = form.show(made.value.eye);
    const { yaw, pitch, roll } = e.toAngles(anglesOfBasis(made.value));
    const fov = verticalFov(made.value);
    return [[plain(time), ...[...place, yaw, pitch, roll].map(plain), fov === null ? '' : plain(e.toAngle(fov))]]; // prettier-ignore
  });
  return writeTable(['time', ...form.letters, 'yaw', 'pitch', 'roll', 'fov'], rows);
}

/** A body's place at even steps, in the space of its parent, as a path is taken. */
function bodyTable(id: string, rate: number): string {
  const { points: form, project } = currentTaskMoment<MotionState>('motion');
  const body = project.bodies.find((one) => one.id === id)!;
  const motion = body.motion && coreMotion(body.motion);
  const count = Math.floor(spanOf(project) * rate + 1e-9);
  const rows = Array.from({ length: count + 1 }, (_, i) => i / rate).map((time) => [
    plain(time),
    ...form.show(motion ? poseAt(motion, body, time).position : body.position).map(plain),
  ]);
  return writeTable(['time', ...form.letters], rows);
}

/** Takes a table as the camera's path, in the conventions in force. */
export function takeCameraTable(text: string): void {
  const now = currentTaskMoment<MotionState>('motion');
  const { points: form, codec: e, rest, flat } = now;
  if (flat)
    return say('A flat camera has no path of keys. Let it follow a body that has one: give the table to the body.');
  const read = readMotion(text, form.letters);
  if (!read.ok) return complain('The table was not taken.', read.problems);
  if (read.rows.length > mostKeys) return say(`It has ${read.rows.length} lines, and a path at most ${mostKeys} keys. Thin it out.`); // prettier-ignore
  const own = e.toAngles(anglesOfBasis(rest));
  const keys = read.rows.map((row): PathKey => {
    const angles = e.fromAngles({ yaw: row.yaw ?? own.yaw, pitch: row.pitch ?? own.pitch, roll: row.roll ?? own.roll });
    return {
      ...{ id: newId(), time: row.time, position: [...form.read(row.place)] as Triple, ease: 'even' },
      ...angles,
      verticalFov: row.fov === null ? (verticalFov(rest) ?? radians(45)) : e.fromAngle(row.fov),
    };
  });
  changeTrack('take a path from a table', (track) => void (track.travel = { kind: 'path', keys }));
  say(`Took ${counted(keys.length, 'key', 'keys')} for the camera.`);
}

/** Takes a table as a body's path, in its parent's space, in the conventions in force. */
export function takeBodyTable(id: string, text: string): void {
  const { points: form, flat, project } = currentTaskMoment<MotionState>('motion');
  const read = readMotion(text, form.letters);
  if (!read.ok) return complain('The table was not taken.', read.problems);
  const keys = read.rows.filter(({ time }) => time > 0).map(({ time, place }) => ({ time, place: [...form.read(place)] as Triple })); // prettier-ignore
  if (!keys.length) return say('It has no place after the time 0. A body sets out from where it rests.');
  if (keys.length > mostPlaces)
    return say(
      `It has ${keys.length} places, and a body goes through ${mostPlaces.toLocaleString('en')} at most. Thin it out.`,
    );
  changeBodyMotion(id, 'take a path from a table', { kind: 'path', keys, turns: false, axis: flat ? [0, 0, 1] : [0, 1, 0] }); // prettier-ignore
  say(`Took ${counted(keys.length, 'place', 'places')} for ${project.bodies.find((body) => body.id === id)?.name}.`);
}

/** Motions in and out, as tables and as the track of a compute request. */
export function Home() {
  const now = useTaskMoment<MotionState>('motion');
  const { project, flat } = now;
  const selected = useSelection((state) => state.ids);
  const [rate, setRate] = useState(30);
  const journey = journeyOf(now);
  const track = trackOf(now);
  const body = project.bodies.find(({ id }) => id === selected.at(-1)) ?? project.bodies.find(({ motion }) => motion !== null); // prettier-ignore
  const asked = track && requestTrack(track, now);
  const open = (take: (text: string) => void) => askFile('.csv,.tsv,.txt,text/csv', (file) => void file.text().then(take)); // prettier-ignore
  return (
    <>
      <div className="row">
        <Num
          name="Lines a second"
          label="lines"
          unit="/s"
          value={rate}
          refuse={(v) => (v > 0 && v <= 240 ? null : 'From above 0 to 240 lines a second.')}
          set={setRate}
        />
      </div>
      <div className="rule">The camera</div>
      <div className="row">
        <button
          className="plain-button"
          disabled={!journey}
          onClick={() => saveFile('camera-motion.csv', cameraTable(rate), 'text/csv')}
        >
          Save as CSV
        </button>
        <button className="plain-button" disabled={flat} onClick={() => open(takeCameraTable)}>
          Take a CSV
        </button>
      </div>
      <div className="row">
        <button
          className="plain-button"
          disabled={!asked}
          onClick={() => void copy(JSON.stringify(asked, null, 1), 'the track')}
        >
          Copy as a track of a request
        </button>
      </div>
      <div className="rule">{body ? body.name : 'A body'}</div>
      <div className="row">
        <button
          className="plain-button"
          disabled={!body}
          onClick={() => saveFile(`${body!.id}-motion.csv`, bodyTable(body!.id, rate), 'text/csv')}
        >
          Save as CSV
        </button>
        <button className="plain-button" disabled={!body} onClick={() => open((text) => takeBodyTable(body!.id, text))}>
          Take a CSV
        </button>
      </div>
      <p className="text-note leading-4 text-ink2">
        Columns time, {flat ? 'and the world’s two letters' : 'x, y, z, and yaw, pitch, roll, fov for the camera'}, in
        the conventions in force. A body’s places are in the space of its parent.
      </p>
    </>
  );
}
