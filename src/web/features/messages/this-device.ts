import type { PushPlace } from '../../../contract/index.ts';

/** Whether this browser can show what happens though no page is open; else why not. */
export type CanShow = 'yes' | 'refused' | 'no secure page' | 'not here';

export function canShow(): CanShow {
  if (!window.isSecureContext) return 'no secure page';
  if (!('serviceWorker' in navigator) || !('PushManager' in window) || !('Notification' in window)) return 'not here';
  return Notification.permission === 'denied' ? 'refused' : 'yes';
}

/** The address at which this browser is reached by now; null where it is not. */
export async function placeHere(): Promise<string | null> {
  if (canShow() !== 'yes') return null;
  const registration = await navigator.serviceWorker.getRegistration();
  return (await registration?.pushManager.getSubscription())?.endpoint ?? null;
}

/**
 * Asks whoever sits here, and the browser, for a place to send to; null where they refuse.
 * @param key ours, by which the push service knows us
 */
export async function askForPlace(key: string): Promise<PushPlace | null> {
  if ((await Notification.requestPermission()) !== 'granted') return null;
  const registration = await navigator.serviceWorker.ready;
  const had = await registration.pushManager.getSubscription();
  const place =
    had ?? (await registration.pushManager.subscribe({ userVisibleOnly: true, applicationServerKey: bytesOf(key) }));
  const { endpoint, keys } = place.toJSON();
  if (!endpoint || !keys?.['p256dh'] || !keys['auth']) throw new Error('The browser names no place to send to.');
  return { endpoint, keys: { p256dh: keys['p256dh'], auth: keys['auth'] }, name: nameHere() };
}

/** Nothing is sent to this browser any more, whatever a server still knows. */
export async function leavePlace(): Promise<void> {
  const registration = await navigator.serviceWorker.getRegistration();
  await (await registration?.pushManager.getSubscription())?.unsubscribe();
}

/** What this is, as far as it can be told without asking. */
const nameHere = (): string => (window.matchMedia('(pointer: coarse)').matches ? 'phone or tablet' : 'computer');

const bytesOf = (base64url: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(base64url.replaceAll('-', '+').replaceAll('_', '/')), (sign) => sign.charCodeAt(0));
