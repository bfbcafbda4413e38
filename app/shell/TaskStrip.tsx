import './TaskStrip.css';
import { NavLink } from 'react-router';
import { taskNames } from '../tasks/names';

/** Links to the tasks, with their keys. */
export function TaskStrip() {
  return (
    <nav className="tasks" aria-label="Tasks" style={{ gridTemplateColumns: `repeat(${taskNames.length}, 1fr)` }}>
      {taskNames.map(({ name, route, key }) => (
        <NavLink key={name} to={`/${route}`} className="task">
          <span className="key">{key}</span>
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
