import { footOf } from '../../../core/bodies/body';
import type { ProjectBody } from '../../../formats/project';
import { NumberField } from '../../sheet/NumberField';
import { edit } from '../../state/document';
import { useMoment } from '../../state/tempo';
import { Choice } from '../../ui/Choice';
import { counted, figure } from '../../ui/figures';
import { lengths } from '../../ui/parseNumber';
import { bottomOf, chooseImageFor, chooseSprite, removeUnusedImages, setFoot, setImage, setPixelsPerUnit } from './sprites'; // prettier-ignore

/** How bodies of a 2D world cover one another, and the foot and image of the probed one. */
export function Sprites() {
  const { project } = useMoment();
  const { bodyOrder, images, bodies, tiles } = project;
  const body = bodies.find(({ id }) => id === project.probe.body);
  const used = new Set([...bodies.map(({ image }) => image), ...(tiles?.images ?? [])]);
  const unused = images.filter(({ id }) => !used.has(id)).length;
  return (
    <>
      <div className="row flex-wrap">
        <span className="label long">Bodies cover one another</span>
        <Choice
          name="Bodies cover one another"
          value={bodyOrder}
          options={[
            { value: 'list', label: 'by list', title: 'Later bodies of the list cover earlier ones' },
            { value: 'feet', label: 'by feet', title: 'Bodies with lower feet cover those with higher feet' },
          ]}
          onChange={(value) => edit('change how bodies cover one another', (draft) => void (draft.bodyOrder = value))}
        />
      </div>
      {body ? (
        <Sprite body={body} />
      ) : (
        <p className="text-note leading-4 text-ink2">Probe a body to set its foot and its image.</p>
      )}
      <div className="row mt-1 flex-wrap">
        <button className="plain-button" onClick={chooseSprite}>
          Add a sprite from a PNG…
        </button>
        {unused > 0 && (
          <button className="plain-button" onClick={removeUnusedImages}>
            Remove {counted(unused, 'unused image', 'unused images')}
          </button>
        )}
      </div>
    </>
  );
}

/** The foot and image of a body. */
function Sprite({ body }: { body: ProjectBody }) {
  const { project, points, placed } = useMoment();
  const { id, name, shape } = body;
  const foot = points.show(body.foot ?? [0, 0, 0]);
  const inWorld = points.show(footOf(placed.get(id)!));
  const image = project.images.find((one) => one.id === body.image);
  return (
    <>
      <div className="rule">{name}</div>
      <div className="row">
        <span className="label">Foot</span>
        {foot.map((value, i) => (
          <NumberField
            key={i}
            label={points.letters[i]}
            name={`Foot ${points.letters[i]}`}
            width="50%"
            value={value}
            shown={(v) => figure(v, 2)}
            units={lengths}
            onChange={(v, gesture) => {
              const next = points.read(foot.map((old, k) => (k === i ? v : old)));
              setFoot(id, [next[0], next[1]], gesture);
            }}
          />
        ))}
      </div>
      <div className="row">
        <span className="label" />
        <button className="plain-button" onClick={() => setFoot(id, bottomOf(shape))}>
          At the bottom
        </button>
        <button className="plain-button" disabled={!body.foot} onClick={() => setFoot(id, null)}>
          At the origin
        </button>
      </div>
      <p className="text-note leading-4 text-ink2">
        In its own space. In the world the foot is at {inWorld.map((v) => figure(v, 2)).join(', ')}.
      </p>
      <div className="row wide">
        <label className="label" htmlFor="sprite-image">
          Image
        </label>
        <select
          id="sprite-image"
          className="select"
          value={image?.id ?? ''}
          onChange={({ target }) => setImage(id, project.images.find((one) => one.id === target.value) ?? null)}
        >
          <option value="">none</option>
          {project.images.map((one) => (
            <option key={one.id} value={one.id}>
              {`${one.name}, ${one.width} × ${one.height}`}
            </option>
          ))}
        </select>
      </div>
      <div className="row">
        <span className="label" />
        <button className="plain-button" onClick={() => chooseImageFor(id)}>
          Another image from a PNG…
        </button>
      </div>
      {image && shape.kind === 'quad' && (
        <div className="row flex-wrap">
          <span className="label long">Pixels per unit</span>
          <NumberField
            name="Pixels per unit of the sprite"
            width={110}
            value={image.width / shape.size[0]}
            shown={(v) => figure(v, 3)}
            refuse={(v) => (v > 0 ? null : 'Pixels per unit must be above 0.')}
            onChange={(v, gesture) => setPixelsPerUnit(id, v, gesture)}
          />
        </div>
      )}
    </>
  );
}
