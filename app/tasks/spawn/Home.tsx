import { lazy, Suspense } from 'react';
import { tableText } from '../../sheet/tableText';
import { useTaskMoment } from '../../state/tempo';
import { plain } from '../../ui/figures';
import { saveFile } from '../../ui/files';
import { useFound } from './Points';
import type { SpawnState } from './kept';
import { surfaceOf, termsUsed } from './terms';

const RegionCode = lazy(() => import('./RegionCode'));

/** Regions and points as files, and the region as code. */
export function Home() {
  const now = useTaskMoment<SpawnState>('spawn');
  const found = useFound();
  const terms = termsUsed(now);
  const { flat, codec: e, points: form } = now;
  const surface = surfaceOf(now);
  const places = () =>
    Array.from({ length: found!.points.length / 2 }, (_, i) =>
      surface.at([found!.points[2 * i]!, found!.points[2 * i + 1]!]),
    );
  const csv = () =>
    tableText(
      [...form.letters, 'seconds', 'in view'],
      places().map((p, i) => [
        ...form.show(p).map(plain),
        Number.isNaN(found!.seconds[i]) ? '' : plain(found!.seconds[i]!),
        found!.inView[i] ? 'yes' : 'no',
      ]),
    );
  const triangles = () => (typeof terms === 'string' ? [] : (terms.found?.region.triangles() ?? []));
  const json = () =>
    JSON.stringify(
      {
        unit: now.project.unit,
        axes: form.letters,
        seen: typeof terms === 'string' ? [] : terms.drawn.map((p) => form.show(surface.at(p))),
        area: typeof terms === 'string' ? 0 : (terms.found?.region.area ?? 0),
        triangles: triangles().map((p) => form.show(surface.at(p))),
        points: places().map((p) => form.show(p)),
      },
      null,
      1,
    ) + '\n';
  const svg = () => {
    const corners = triangles();
    const all = [...corners, ...(typeof terms === 'string' ? [] : terms.drawn)];
    const [x0, x1] = [Math.min(...all.map(([x]) => x)), Math.max(...all.map(([x]) => x))];
    const [y0, y1] = [Math.min(...all.map(([, y]) => y)), Math.max(...all.map(([, y]) => y))];
    const at = ([x, y]: readonly [number, number]) => `${plain(x - x0)} ${plain(y1 - y)}`;
    const path = Array.from(
      { length: corners.length / 3 },
      (_, i) =>
        `M${corners
          .slice(3 * i, 3 * i + 3)
          .map(at)
          .join('L')}Z`,
    ).join('');
    const dots = Array.from({ length: found!.points.length / 2 }, (_, i) => {
      const [x, y] = at([found!.points[2 * i]!, found!.points[2 * i + 1]!]).split(' ');
      return `<circle cx="${x}" cy="${y}" r="${plain(Math.max(now.slice.radius, (x1 - x0) / 400))}"/>`;
    }).join('');
    const seen =
      typeof terms === 'string'
        ? ''
        : `<path fill="none" stroke="#8f6412" stroke-width="${plain((x1 - x0) / 300)}" d="M${terms.drawn.map(at).join('L')}Z"/>`;
    return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${plain(x1 - x0)} ${plain(y1 - y0)}"><path fill="#bbdad8" d="${path}"/>${seen}<g fill="#17636b">${dots}</g></svg>\n`;
  };
  const ready = found !== null && typeof terms !== 'string' && terms.found !== null;
  return (
    <>
      <p className="text-note leading-4 text-ink2">
        Region and points in {flat ? 'the world’s' : 'the ground’s'} own coordinates, in the conventions in force
        {e.handedness.world === 'left' ? ', left-handed' : ''}. The terms and the seed go with the project as a compute
        request.
      </p>
      <div className="row">
        <button
          className="plain-button"
          disabled={!ready}
          onClick={() => void csv().then((text) => saveFile('spawn.csv', text, 'text/csv'))}
        >
          Points as CSV
        </button>
        <button className="plain-button" disabled={!ready} onClick={() => saveFile('spawn.json', json())}>
          JSON
        </button>
        <button
          className="plain-button"
          disabled={!ready}
          onClick={() => saveFile('spawn.svg', svg(), 'image/svg+xml')}
        >
          SVG
        </button>
      </div>
      <div className="rule">As code</div>
      <Suspense fallback={<p className="text-note leading-4 text-ink2">Loading the languages…</p>}>
        <RegionCode now={now} terms={terms} />
      </Suspense>
    </>
  );
}
