import './TaskStrip.css';
import { NavLink } from 'react-router';
import { tasks } from '../tasks/page';

/** The tasks in the order of their digits; one with another key stands behind them. */
export function TaskStrip() {
  return (
    <nav className="tasks" aria-label="Tasks" style={{ gridTemplateColumns: `repeat(${tasks.length}, 1fr)` }}>
      {tasks.map(({ name, route, key }) => (
        <NavLink key={name} to={`/${route}`} className="task">
          <span className="key">{key}</span>
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
