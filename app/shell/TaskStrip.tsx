import './TaskStrip.css';
import { NavLink } from 'react-router';
import { planned } from '../tasks/names';
import { tasks } from '../tasks/page';

const order = '1234567890';

/**
 * The tasks that there are and those to come, in the order of their digits; a task with another key
 * stands behind them.
 */
const strip = [
  ...tasks.map(({ name, key, route }) => ({ name, key, route })),
  ...planned
    .filter(([name]) => !tasks.some((task) => task.name === name))
    .map(([name, key]) => ({ name, key, route: null })),
].sort((a, b) => place(a.key) - place(b.key));

function place(key: string): number {
  return order.includes(key) ? order.indexOf(key) : order.length;
}

export function TaskStrip() {
  return (
    <nav className="tasks" aria-label="Tasks" style={{ gridTemplateColumns: `repeat(${strip.length}, 1fr)` }}>
      {strip.map(({ name, route, key }) =>
        route !== null ? (
          <NavLink key={name} to={`/${route}`} className="task">
            <span className="key">{key}</span>
            {name}
          </NavLink>
        ) : (
          <span key={name} className="task" aria-disabled="true" title={`${name} is not built yet`}>
            <span className="key">{key}</span>
            {name}
          </span>
        ),
      )}
    </nav>
  );
}
