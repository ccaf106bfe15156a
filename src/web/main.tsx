import './styles.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router/dom';
import { PLACES } from './places/registry.ts';
import { createAppRouter } from './router.tsx';
import { boot } from './shell/boot.ts';
import { haveEditing } from './store/edits.ts';
import { judge } from './store/judge.ts';
import { selectSiteId } from './store/site-slice.ts';
import { siteReader } from './store/site-store.ts';
import { store } from './store/store.ts';
import { createVault } from './vault/vault.ts';
import { VaultContext } from './vault/vault-context.tsx';
import { browserVaultStorage } from './vault/vault-storage.ts';

judge.warm();
// What nearly every visit needs next comes while the server is asked; whoever needs it asks again, and tells.
for (const load of [siteReader, ...PLACES.slice(0, 1).map((place) => place.load)]) load().catch(() => {});

/** In a function of its own: what is loaded here leans on this module, and would wait for its end for ever. */
async function begin(): Promise<void> {
  const editing = import('./store/editing.ts').then(haveEditing);
  const vault = await createVault(browserVaultStorage(), () => selectSiteId(store.getState()));
  const [started] = await Promise.all([boot(vault), editing]);
  const root = document.getElementById('root');
  if (!root) throw new Error('index.html has no #root');
  const router = createAppRouter(started);
  createRoot(root).render(
    <StrictMode>
      <Provider store={store}>
        <VaultContext.Provider value={vault}>
          <RouterProvider router={router} />
        </VaultContext.Provider>
      </Provider>
    </StrictMode>,
  );
  // What the first view can do without for a moment.
  void import('./shell/focus-keeper.ts').then(({ keepFocus }) => keepFocus(router));
  void import('./vault/idle-lock.ts').then(({ lockWhenIdle }) => lockWhenIdle(vault));
  void import('./store/secret-watch.ts').then(({ watchSecrets }) => watchSecrets(vault));
}

/** What this says needs nothing that may not have come. */
function tellNotLoaded(): void {
  const words = document.createElement('p');
  words.setAttribute('role', 'alert');
  words.style.padding = '20px';
  words.textContent =
    'Clear Tap was not loaded completely: its own server on this computer did not respond. Start it again, then reload this page. Your sites are safe.';
  document.getElementById('root')?.replaceChildren(words);
}
begin().catch(tellNotLoaded);
