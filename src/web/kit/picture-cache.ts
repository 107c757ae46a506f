/** Where the service worker keeps pictures that were seen or taken along; let go with whoever was signed in. */
export const PICTURES = 'jolly-rota-pictures';
