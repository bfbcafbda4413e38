import './policy';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './App';
import { openShelf } from './state/keep';
import { followTheme } from './state/settings';
import { followHand } from './ui/hand';
import './style.css';

followTheme();
followHand();
createRoot(document.getElementById('root')!).render(
  <BrowserRouter>
    <App />
  </BrowserRouter>,
);
void openShelf();
