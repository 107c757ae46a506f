import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { root } from './root.mjs';

/** Draws the icons of the home screen from the sign of the page: `node scripts/icons.mjs`, after that has changed. */
const folder = join(root, 'src', 'web', 'public');
const sign = readFileSync(join(folder, 'favicon.svg'));
const GROUND = '#f1f5f4';

/** @param share of the width that the sign takes: a mask may cut off a fifth on each side */
async function icon(name, size, share) {
  const drawn = Math.round(size * share);
  const input = await sharp(sign, { density: 2400 })
    .resize(drawn, drawn, { fit: 'contain', background: GROUND })
    .toBuffer();
  await sharp({ create: { width: size, height: size, channels: 3, background: GROUND } })
    .composite([{ input, gravity: 'centre' }])
    .png({ palette: true, colours: 64 })
    .toFile(join(folder, name));
}

await icon('icon-192.png', 192, 0.72);
await icon('icon-512.png', 512, 0.72);
await icon('icon-maskable-512.png', 512, 0.5);
await icon('apple-touch-icon.png', 180, 0.66);
