import { degrees, radians } from '../../../core/math/angle';
import { useState } from 'react';
import { rotatedAbout } from '../../../core/convert/nodes';
import { localTransform, type PlacedBody } from '../../../core/bodies/body';
import { axisVector, letterOf } from '../../../core/conventions/axes';
import { conjugate, multiplyQuat, quatAbout } from '../../../core/math/quat';
import { invertAffine, transformPoint } from '../../../core/math/mat4';
import type { Vec3 } from '../../../core/math/vec3';
import { useMoment } from '../../state/tempo';
import { edit } from '../../state/document';
import { angleUnit } from '../../ui/angles';
import { Choice } from '../../ui/Choice';
import { Sense } from '../../ui/Sense';
import { figure } from '../../ui/figures';
import { NumberField } from '../../sheet/NumberField';
import { anglesIn, lengths } from '../../ui/parseNumber';
import { Head } from './Head';

/** Which way a positive angle about an axis turns: from the next letter towards the one after it. */
const senseOf = (letter: string): string => {
  const i = 'xyz'.indexOf(letter);
  return `${'xyz'[(i + 1) % 3]} towards ${'xyz'[(i + 2) % 3]}`;
};

/** Turns the node about a pivot and an axis, each of its own space or of its parent's. */
export function Turn({ own }: { own: PlacedBody }) {
  const { codec: e, points, flat, project } = useMoment();
  const [pivot, setPivot] = useState<Vec3>([0, 0, 0]);
  const [axis, setAxis] = useState<'right' | 'up' | 'forward'>('up');
  const [angle, setAngle] = useState(15);
  const [space, setSpace] = useState<'own' | 'parent'>('own');
  const unit = e.conventions.angles.unit;
  const shownAngle = e.toAngle(radians(angle));
  const { world } = e.conventions;
  const turn = () => {
    const by = radians(angle);
    // About the world's axis as the conventions have it; a flat world turns counter-clockwise as it
    // is seen.
    const rotation = flat
      ? quatAbout([0, 0, 1], by)
      : e.fromRotation(quatAbout(axisVector(`+${letterOf(world[axis])}`), by));
    const { rotation: q } = own.body;
    const inverse = invertAffine(localTransform(own.body));
    const inParent = space === 'parent' || flat;
    const t = rotatedAbout(
      own.body,
      inParent && inverse ? transformPoint(inverse, pivot) : pivot,
      inParent ? rotation : multiplyQuat(multiplyQuat(q, rotation), conjugate(q)),
    );
    edit(`turn ${project.bodies.find(({ id }) => id === own.body.id)!.name}`, (draft) => {
      const body = draft.bodies.find((one) => one.id === own.body.id)!;
      body.position = [t.position[0], t.position[1], flat ? 0 : t.position[2]];
      body.rotation = [...t.rotation];
    });
  };
  return (
    <>
      <Head aside="the pivot stays">Turn about a pivot</Head>
      <div className="row">
        <span className="label">Said in</span>
        <Choice
          name="In which space pivot and axis are said"
          value={space}
          options={[
            { value: 'own', label: 'its own space' },
            { value: 'parent', label: own.body.parent === null ? 'the world' : 'its parent’s' },
          ]}
          onChange={setSpace}
        />
      </div>
      <div className="row">
        <span className="label">Pivot</span>
        {points.show(pivot).map((v, i) => (
          <NumberField
            key={i}
            label={points.letters[i]}
            name={`Pivot ${points.letters[i]}`}
            width="33%"
            value={v}
            shown={(n) => figure(n, 2)}
            units={lengths}
            onChange={(n) => setPivot(points.read(points.show(pivot).map((old, k) => (k === i ? n : old))))}
          />
        ))}
      </div>
      <div className="row">
        {!flat && (
          <select
            className="select"
            aria-label="Axis of the turn"
            value={axis}
            onChange={({ target }) => setAxis(target.value as typeof axis)}
          >
            {(['right', 'up', 'forward'] as const).map((one) => (
              <option key={one} value={one}>
                about {world[one][1]}
              </option>
            ))}
          </select>
        )}
        <NumberField
          name="Angle of the turn"
          width={84}
          value={Number(shownAngle.toPrecision(12))}
          unit={angleUnit(e)}
          units={anglesIn(unit)}
          onChange={(v) => setAngle(degrees(e.fromAngle(v)))}
        />
        <button className="plain-button" onClick={turn}>
          Turn
        </button>
      </div>
      <p className="text-small leading-4 text-ink2">
        <Sense counter={flat || e.handedness.world === 'right'} />{' '}
        {flat
          ? '+ is counter-clockwise as you see it'
          : `+ turns ${senseOf(letterOf(world[axis]))}, ${e.handedness.world === 'right' ? 'counter-clockwise' : 'clockwise'} seen from the tip of ${letterOf(world[axis])}`}
      </p>
    </>
  );
}
