import { NavLink, useLocation } from 'react-router';
import { tasks } from '../tasks';

export function TaskStrip() {
  const { search } = useLocation();
  return (
    <nav className="tasks" aria-label="Tasks">
      {tasks.map(({ name, route, key, Sheet }) =>
        Sheet ? (
          <NavLink key={route} to={`/${route}${search}`} className="task">
            <span className="key">{key}</span>
            {name}
          </NavLink>
        ) : (
          <span key={route} className="task" aria-disabled="true" title={`${name} is not built yet`}>
            <span className="key">{key}</span>
            {name}
          </span>
        ),
      )}
    </nav>
  );
}
