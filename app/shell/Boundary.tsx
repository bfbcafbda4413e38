import './Boundary.css';
import { Component, type ReactNode } from 'react';
import { saveProject } from '../edits/exporting';
import { undo, useDocument } from '../state/document';
import { couldNotShow } from '../state/shown';

interface Props {
  readonly children: ReactNode;
  /** Where the list of projects lies. */
  readonly projects: string;
}

/** A part of the page that the browser could not fetch, rather than a fault of what is shown. */
const partMissing = ({ message }: Error): boolean =>
  /dynamically imported module|[Ii]mporting a module|Unable to preload/.test(message);

/**
 * Where showing fails, the page says so and what can be done, instead of standing empty: nothing
 * that was made is lost, and the project can be left for another.
 */
export class Boundary extends Component<Props, { readonly error: Error | null }> {
  override state = { error: null };

  static getDerivedStateFromError(error: unknown) {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidCatch(error: Error): void {
    const { project } = useDocument.getState();
    if (project && !partMissing(error)) couldNotShow(project.id);
  }

  #end: () => void = () => undefined;
  override componentDidMount(): void {
    // Another state of the project may well be shown.
    this.#end = useDocument.subscribe(() => this.state.error && this.setState({ error: null }));
  }
  override componentWillUnmount(): void {
    this.#end();
  }

  override render(): ReactNode {
    const { error } = this.state as { error: Error | null };
    if (!error) return this.props.children;
    // A part of the page that could not be fetched: the server has a newer one, or is gone.
    const fetched = partMissing(error);
    const { past } = useDocument.getState();
    return (
      <div className="failed" role="alert">
        <h1>{fetched ? 'A part of the page could not be fetched' : 'This could not be shown'}</h1>
        <p>
          {fetched
            ? 'There may be a newer version, or no server any more. What you made is kept in this browser.'
            : 'The fault is ours. What you made is kept; save it as a file to be sure.'}
        </p>
        <p className="failed-why">{error.message}</p>
        <div className="flex flex-wrap gap-1">
          <button className="plain-button" onClick={() => window.location.reload()}>
            Load the page again
          </button>
          <button className="plain-button" onClick={saveProject}>
            Save the project as a file
          </button>
          {past.length > 0 && (
            <button className="plain-button" onClick={undo}>
              Undo: {past.at(-1)!.name}
            </button>
          )}
          <button className="plain-button" onClick={() => window.location.assign(this.props.projects)}>
            All projects
          </button>
        </div>
      </div>
    );
  }
}
