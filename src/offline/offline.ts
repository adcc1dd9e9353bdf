import { readonly, ref, type Ref } from 'vue';
import { TAKE_OVER } from './takeOver.ts';

/** How far Limner is from working without a network: not in this browser, files still coming, ready. */
export type OfflineState = 'impossible' | 'coming' | 'ready';

/** What the browser offers to put Limner among its applications (W3C, "Web App Manifest": app information). */
interface InstallPrompt extends Event {
  prompt(): Promise<unknown>;
}

const state = ref<OfflineState>(typeof navigator !== 'undefined' && 'serviceWorker' in navigator ? 'coming' : 'impossible');
const newer = ref(false);
const installable = ref(false);
let waiting: ServiceWorker | undefined;
let installPrompt: InstallPrompt | undefined;

/** What is known of working without a network; the same everywhere. */
export const offline: { readonly state: Readonly<Ref<OfflineState>>; readonly newer: Readonly<Ref<boolean>>; readonly installable: Readonly<Ref<boolean>> } = {
  state: readonly(state),
  newer: readonly(newer),
  installable: readonly(installable),
};

/** The build that waits takes over, and the page is loaded anew as soon as it has. @param before what is done first: saving. */
export async function takeUpNewer(before: () => Promise<unknown>): Promise<void> {
  if (waiting === undefined) return;
  await before();
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
  waiting.postMessage(TAKE_OVER);
}

/** Asks the browser to install Limner; after its question it can be asked no more. */
export async function install(): Promise<void> {
  const prompt = installPrompt;
  installPrompt = undefined;
  installable.value = false;
  await prompt?.prompt();
}

function follow(worker: ServiceWorker | null): void {
  if (worker === null) return;
  const tell = (): void => {
    if (worker.state === 'activated') state.value = 'ready';
    else if (worker.state === 'installed' && navigator.serviceWorker.controller !== null) {
      waiting = worker;
      newer.value = true;
    }
  };
  worker.addEventListener('statechange', tell);
  tell();
}

/** Keeps the application’s files in this browser, and tells when there is a newer build. Called once, when the first screen stands. */
export async function keepForOffline(): Promise<void> {
  addEventListener('beforeinstallprompt', (event) => {
    event.preventDefault();
    installPrompt = event as InstallPrompt;
    installable.value = true;
  });
  if (!('serviceWorker' in navigator)) return;
  try {
    const registration = await navigator.serviceWorker.register('/service-worker.js');
    for (const worker of [registration.active, registration.waiting, registration.installing]) follow(worker);
    registration.addEventListener('updatefound', () => follow(registration.installing));
  } catch {
    state.value = 'impossible';
  }
}

/** Files that the system opens with Limner, now and whenever it does (WICG, "File Handling API"). */
export function whenOpenedWith(take: (files: File[]) => void): void {
  const queue = (window as { launchQueue?: { setConsumer(consumer: (launch: { readonly files: readonly FileSystemFileHandle[] }) => void): void } }).launchQueue;
  queue?.setConsumer(({ files }) => {
    if (files.length > 0) void Promise.all(files.map((file) => file.getFile())).then(take);
  });
}
