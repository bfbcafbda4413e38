import { chooseFile, openDemo, openEmpty } from '../edits/actions';

/** The ways to begin, as buttons; `done` is called when a project is open. */
export function Beginnings({ done = () => undefined }: { done?: () => void }) {
  const ways: readonly (readonly [label: string, title: string, run: () => Promise<void>])[] = [
    ['3D demo: the harbour', 'Five cameras, 82 bodies, motion', () => openDemo('harbour')],
    ['2D demo: the quay', 'Pixel art: sprites, tiles of 16 texels, a camera that follows', () => openDemo('quay')],
    ['2D demo: the chart', 'A map of tiles with soundings, y up', () => openDemo('chart')],
    ['New 3D project', 'A camera over level ground', () => openEmpty('space')],
    ['New 2D project, y up', 'The origin in the lower left corner', () => openEmpty('flatUp')],
    ['New 2D project, y down', 'The origin in the upper left corner', () => openEmpty('flatDown')],
  ];
  return (
    <>
      {ways.map(([label, title, run]) => (
        <button key={label} className="plain-button" title={title} onClick={() => void run().then(done)}>
          {label}
        </button>
      ))}
      <button className="plain-button" onClick={() => chooseFile(done, 'project')}>
        Open a file…
      </button>
    </>
  );
}
