import { useState } from 'react';
import { Brought } from './Brought';
import { betweenNodes, descendsFrom, normalMatrix, reparented, stackOf } from '../../../core/convert/nodes';
import { type PlacedBody } from '../../../core/bodies/body';
import type { ConventionCodec } from '../../../core/conventions/codec';
import { transpose, type Mat4 } from '../../../core/math/mat4';
import { probeBody } from '../../edits/actions';
import { useMoment } from '../../state/tempo';
import { edit } from '../../state/document';
import { complain, copy } from '../../ui/notices';
import { figure, plain } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { Head } from './Head';
import { Place } from './NodePlace';
import { Turn } from './NodeTurn';

/**
 * Nodes: the stack of transforms that the probed one stands on, its point in another's space, its
 * normals, another parent, a turn about a pivot.
 */
export const Nodes = () => (
  <>
    <Brought />
    <Stack />
  </>
);

/** A choice among bodies, and the world if it may be. */
function NodeChoice({
  name,
  source,
  value,
  without = () => false,
  onChange,
}: {
  name: string;
  /** What of a working it sets. */
  source?: string;
  value: string | null;
  without?: (id: string) => boolean;
  onChange: (id: string | null) => void;
}) {
  const { project } = useMoment();
  return (
    <select
      className="select"
      aria-label={name}
      data-source={source}
      value={value ?? ''}
      onChange={({ target }) => onChange(target.value || null)}
    >
      <option value="">the world</option>
      {project.bodies
        .filter(({ id }) => !without(id))
        .map((body) => (
          <option key={body.id} value={body.id}>
            {body.name}
          </option>
        ))}
    </select>
  );
}

const numbers = (values: readonly number[], decimals = 2) => values.map((v) => figure(v, decimals)).join(', ');

/** A matrix as it stands in a formula in the conventions in force, small. */
function SmallMatrix({ matrix, e, name }: { matrix: Mat4; e: ConventionCodec; name: string }) {
  const given = e.toModel(matrix);
  const written = e.conventions.matrix.vectors === 'row' ? transpose(given) : given;
  return (
    <button
      className="matrix small"
      title={`Copy ${name}`}
      onClick={() => void copy(`[${e.toList(given).map(plain).join(', ')}]`, name)}
    >
      {written.map((v, i) => (
        <span key={i} className={v === 0 ? 'zero' : undefined}>
          {figure(v, Math.abs(v) >= 100 ? 1 : 3)}
        </span>
      ))}
    </button>
  );
}

function Stack() {
  const { project, placed, codec: e, points, flat } = useMoment();
  const id = project.probe.body;
  const own = id === null ? null : placed.get(id)!;
  const levels = id === null ? [] : stackOf(placed, id);
  const [opened, setOpened] = useState<string | null>(null);
  const nameOf = (one: string) => project.bodies.find((body) => body.id === one)!.name;
  const row = e.conventions.matrix.vectors === 'row';
  return (
    <>
      <div className="row">
        <span className="label">Node</span>
        <NodeChoice name="Node" source="body" value={id} onChange={probeBody} />
      </div>
      {own === null && (
        <p className="text-note leading-4 text-ink2">
          The probe is a free point. Choose a node to see what it stands on.
        </p>
      )}
      {levels.length > 0 && (
        <>
          <div className="rule">
            Its stack <em>{row ? 'save, multiply from the left' : 'save, multiply from the right'}</em>
          </div>
          <ol className="stack" aria-label="Transform stack">
            {levels.map(({ body, local, toWorld }, i) => {
              const t = body.scale.some((v) => v !== 1);
              const turned = body.rotation[3] !== 1 && body.rotation[3] !== -1;
              return (
                <li key={body.id} style={{ marginLeft: i * 10 }}>
                  <button
                    aria-expanded={opened === body.id}
                    onClick={() => setOpened(opened === body.id ? null : body.id)}
                  >
                    <b>{nameOf(body.id)}</b>
                    <span className="right">
                      {[
                        numbers(points.show(body.position), 1),
                        turned ? 'turned' : '',
                        t
                          ? `× ${[...new Set(flat ? body.scale.slice(0, 2) : e.toSizes(body.scale))].map((v) => figure(v, 2)).join(', ')}`
                          : '',
                      ]
                        .filter(Boolean)
                        .join(', ')}
                    </span>
                  </button>
                  {opened === body.id && (
                    <>
                      <div className="text-small text-ink2">to its parent: what this level contributes</div>
                      <SmallMatrix matrix={local} e={e} name={`the matrix of ${nameOf(body.id)} to its parent`} />
                      <div className="text-small text-ink2">to the world: the top of the stack</div>
                      <SmallMatrix matrix={toWorld} e={e} name={`the matrix of ${nameOf(body.id)} to the world`} />
                    </>
                  )}
                </li>
              );
            })}
            <li className="text-ink2" style={{ marginLeft: levels.length * 10 }}>
              draw, then restore {levels.length === 1 ? 'once' : `${levels.length} times`}
            </li>
          </ol>
        </>
      )}
      {own && <Place own={own} />}
      <Between own={own} />
      {own && !flat && <Normals own={own} />}
      {own && <Parent own={own} nameOf={nameOf} />}
      {own && <Turn own={own} />}
    </>
  );
}

/** The probe in the space of another node. */
function Between({ own }: { own: PlacedBody | null }) {
  const { placed, chain, points } = useMoment();
  const [to, setTo] = useState<string | null>(null);
  const other = to === null ? null : (placed.get(to) ?? null);
  if (!chain.ok) return null;
  const there = points.show(betweenNodes(own, other, chain.value.local));
  return (
    <>
      <Head aside="the probe there">
        In the space of {(own || other) && <WorkingButton of="between" subject={{ node: to }} />}
      </Head>
      <div className="row">
        <NodeChoice name="In the space of" source="space" value={to} onChange={setTo} />
        <button
          className="number ml-auto"
          title="Copy the point"
          data-testid="between"
          onClick={() => void copy(`[${there.map(plain).join(', ')}]`, 'the point in that space')}
        >
          {numbers(there, 3)}
        </button>
      </div>
    </>
  );
}

/** The matrix for normals, and whether the model matrix would have done. */
function Normals({ own }: { own: PlacedBody }) {
  const { codec: e } = useMoment();
  const m = normalMatrix(own);
  const big = [m[0], m[1], m[2], 0, m[3], m[4], m[5], 0, m[6], m[7], m[8], 0, 0, 0, 0, 1] as unknown as Mat4;
  const given = e.toModel(big);
  const written = e.conventions.matrix.vectors === 'row' ? transpose(given) : given;
  const nine = [0, 1, 2].flatMap((i) => [0, 1, 2].map((j) => written[4 * i + j]!));
  const l = own.toWorld;
  const size = Math.hypot(l[0]!, l[4]!, l[8]!);
  // Under a turn and one scale s the two differ by s² alone.
  const same = [0, 1, 2].every((i) =>
    [0, 1, 2].every((j) => Math.abs(m[3 * i + j]! * size * size - l[4 * i + j]!) < 1e-9 * size),
  );
  return (
    <>
      <Head aside={same ? 'model would do' : 'unequal scale'}>
        Normal matrix <WorkingButton of="normal" />
      </Head>
      <button
        className="matrix small three"
        title="Copy the normal matrix"
        data-testid="normal-matrix"
        onClick={() => void copy(`[${nine.map(plain).join(', ')}]`, 'the normal matrix, by rows')}
      >
        {nine.map((v, i) => (
          <span key={i} className={v === 0 ? 'zero' : undefined}>
            {figure(v, 4)}
          </span>
        ))}
      </button>
    </>
  );
}

/** Hangs the node under another parent, its place kept. */
function Parent({ own, nameOf }: { own: PlacedBody; nameOf: (id: string) => string }) {
  const { placed } = useMoment();
  const { id, parent } = own.body;
  const hang = (to: string | null) => {
    const t = reparented(own, to === null ? null : placed.get(to)!);
    if (!t) {
      complain(
        `${nameOf(id)} cannot keep its place under ${to === null ? 'the world' : nameOf(to)}: turned under an unequal scale it is sheared, and no position, rotation and scale shear. Make the scale of its ancestors equal first.`,
      );
      return;
    }
    edit(`hang ${nameOf(id)} under ${to === null ? 'the world' : nameOf(to)}`, (draft) => {
      const body = draft.bodies.find((one) => one.id === id)!;
      body.parent = to;
      body.position = [...t.position];
      body.rotation = [...t.rotation];
      body.scale = [...t.scale];
    });
  };
  return (
    <>
      <Head aside="its place is kept">Parent</Head>
      <div className="row">
        <NodeChoice
          name="Parent"
          value={parent}
          without={(one) => one === id || descendsFrom(placed, one, id)}
          onChange={hang}
        />
      </div>
    </>
  );
}
