import './styles.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router/dom';
import { PLACES } from './places/registry.ts';
import { createAppRouter } from './router.tsx';
import { boot } from './shell/boot.ts';
import { judge } from './store/judge.ts';
import { selectSite } from './store/site-slice.ts';
import { siteReader } from './store/site-store.ts';
import { store } from './store/store.ts';
import { createVault } from './vault/vault.ts';
import { VaultContext } from './vault/vault-context.tsx';
import { browserVaultStorage } from './vault/vault-storage.ts';

judge.warm();
// What nearly every visit needs next comes while the server is asked; whoever needs it asks again, and tells.
for (const load of [siteReader, ...PLACES.slice(0, 1).map((place) => place.load)]) load().catch(() => {});
const vault = await createVault(browserVaultStorage(), () => selectSite(store.getState()).id);
const started = await boot(vault);
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
