import './policy';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './App';
import { openShelf } from './state/keep';
import { followTheme } from './state/settings';
import './style.css';

followTheme();
createRoot(document.getElementById('root')!).render(
  <BrowserRouter>
    <App />
  </BrowserRouter>,
);
void openShelf();
