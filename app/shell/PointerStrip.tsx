import './PointerStrip.css';
import { useMoment } from '../state/tempo';
import { reading as paced } from '../state/pace';
import { usePointer } from '../state/pointer';
import { readPointer } from '../state/pointerReadout';
import { figure } from '../ui/figures';
import { Arrow } from '../ui/icons';
import type { Vec3 } from '../../core/math/vec3';
import { countsOf, reasonSentence } from '../state/wording';

/** The pointer in every space at once. Reads nothing that would re-render the sheet. */
export function PointerStrip() {
  const moment = useMoment();
  const css = paced.strip((state) => state.css);
  const here = usePointer((state) => state.here);
  const { codec: e, project, roots, flat, points } = moment;
  const reading = readPointer(moment, css);
  const ndc = e.toNdc({ across: reading.picture[0], upward: reading.picture[1], depth01: { near: 1, far: 0 } });
  const point = (p: Vec3, decimals = 2) =>
    points
      .show(p)
      .map((v) => figure(v, decimals))
      .join(', ');
  const nameOf = (id: string) => project.bodies.find((body) => body.id === roots.get(id))!.name;
  return (
    <footer className="strip" aria-label="Pointer">
      <div className="alone">
        <span>
          <b>Pointer</b> <output data-testid="pointer-css">{css.map((v) => figure(v, 1)).join(', ')}</output>{' '}
          <u title="CSS pixels, counted downward from the top left as the browser does">css ↓</u>
        </span>
        <Arrow />
        <span>
          <output data-testid="pointer-framebuffer">{reading.framebuffer.map((v) => figure(v, 1)).join(', ')}</output>{' '}
          <u title={`Pixels of the framebuffer, counted from its ${e.conventions.screen.origin.replace('-', ' ')}`}>
            px {countsOf(e) === 'y down' ? '↓' : '↑'}
          </u>
        </span>
        <Arrow />
        <span>
          <b>NDC</b> <output data-testid="pointer-ndc">{[ndc[0], ndc[1]].map((v) => figure(v, 3)).join(', ')}</output>
        </span>
        {reading.ground && (
          <>
            <Arrow />
            <span>
              <b>{reading.ground.name}</b>{' '}
              <output
                data-testid="pointer-ground"
                title={reading.ground.ok ? undefined : reasonSentence[reading.ground.reason]}
              >
                {reading.ground.ok ? point(reading.ground.value) : 'not met'}
              </output>
            </span>
          </>
        )}
        {reading.tile && (
          <>
            <Arrow />
            <span>
              <b>{reading.tile.name}</b>{' '}
              <output data-testid="pointer-tile">
                {reading.tile.value === null ? 'land' : figure(reading.tile.value, 1)}
              </output>
            </span>
          </>
        )}
        {flat ? (
          reading.hit && (
            <>
              <Arrow />
              <b data-testid="pointer-hit">{nameOf(reading.hit.body)}</b>
            </>
          )
        ) : (
          <>
            <Arrow />
            {reading.hit ? (
              <span>
                <b>{nameOf(reading.hit.body)}</b> <output data-testid="pointer-hit">{point(reading.hit.point)}</output>{' '}
                <u>range</u> {figure(reading.hit.distance, 2)}
              </span>
            ) : (
              <span>
                <b>ray</b> <output data-testid="pointer-hit">{point(reading.direction, 3)}</output>
              </span>
            )}
          </>
        )}
        {!here && <span className="held">held where it left the picture</span>}
        <span className="right">
          {project.bodies.length} {project.bodies.length === 1 ? 'body' : 'bodies'}, {project.unit}
        </span>
      </div>
    </footer>
  );
}
