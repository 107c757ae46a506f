import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Bytes, FileStore } from '../src/server/files/stored/index.ts';

/** A file that may lie beside many tasks of the demo. */
export interface DemoFile extends Bytes {
  readonly name: string;
  readonly bytes: number;
}

const PHOTOS = [
  { name: 'hose stamp.jpg', sky: '#b9ccc6', thing: '#3d5a61', label: 'HOSE 06 2024' },
  { name: 'bottle.jpg', sky: '#d9d4c5', thing: '#6f99a1', label: 'SHUT' },
  { name: 'berth.jpg', sky: '#c6dbe0', thing: '#f7f9f8', label: 'B 12' },
] as const;

export interface DemoFiles {
  readonly photos: readonly DemoFile[];
  readonly papers: readonly DemoFile[];
  /** For the instructions of the boarding check. */
  readonly diagram: DemoFile;
}

/** Draws a few photos and a certificate, and keeps them like any other files. */
export async function demoFiles(store: FileStore): Promise<DemoFiles> {
  const photos = await Promise.all(
    PHOTOS.map(async (photo) =>
      keep(
        store,
        photo.name,
        await sharp(Buffer.from(drawing(photo)))
          .jpeg({ quality: 84 })
          .toBuffer(),
      ),
    ),
  );
  const papers = [await keep(store, 'certificate.pdf', onePagePdf('Tern Quay: certificate'))];
  const diagram = await keep(store, 'test point.png', await sharp(Buffer.from(DIAGRAM)).png().toBuffer());
  return { photos, papers, diagram };
}

async function keep(store: FileStore, name: string, bytes: Buffer): Promise<DemoFile> {
  const path = join(store.incoming, name.replace(/ /g, '-'));
  await writeFile(path, bytes);
  const kept = await store.keep(path);
  if (!kept || kept === 'too large') throw new Error(`The demo’s ${name} is not a file that may be kept.`);
  return { ...kept, name };
}

const DIAGRAM = `<svg xmlns="http://www.w3.org/2000/svg" width="840" height="300">
  <rect width="840" height="300" fill="#eef3f2"/><rect x="60" y="70" width="110" height="190" rx="44" fill="#6f99a1"/>
  <rect x="96" y="36" width="38" height="40" fill="#22343a"/><path d="M134 54 H 420 V 150" fill="none" stroke="#22343a" stroke-width="12"/>
  <circle cx="420" cy="200" r="50" fill="#ffffff" stroke="#22343a" stroke-width="10"/><path d="M420 200 L 446 172" stroke="#b83a26" stroke-width="8"/>
  <path d="M470 200 H 720" fill="none" stroke="#22343a" stroke-width="12"/><rect x="720" y="160" width="70" height="80" fill="#22343a"/>
  <text x="200" y="36" font-family="sans-serif" font-size="26" fill="#22343a">valve</text>
  <text x="486" y="270" font-family="sans-serif" font-size="26" fill="#22343a">test point, port locker</text></svg>`;

function drawing({ sky, thing, label }: (typeof PHOTOS)[number]): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="800">
    <rect width="1200" height="800" fill="${sky}"/><rect y="600" width="1200" height="200" fill="#7c8c86"/>
    <rect x="380" y="220" width="230" height="420" rx="90" fill="${thing}"/><rect x="455" y="150" width="80" height="90" fill="#22343a"/>
    <path d="M535 180 C 760 120 780 420 960 400" fill="none" stroke="#22343a" stroke-width="34"/>
    <circle cx="960" cy="400" r="96" fill="#f4f6f5" stroke="#22343a" stroke-width="18"/><path d="M960 400 L 1010 350" stroke="#b83a26" stroke-width="12"/>
    <text x="60" y="740" font-family="sans-serif" font-size="64" fill="#f4f6f5">${label}</text></svg>`;
}

/** The smallest PDF that every reader opens: one page with one line. */
export function onePagePdf(line: string): Buffer {
  const text = `BT /F1 24 Tf 72 720 Td (${line.replace(/[()\\]/g, '')}) Tj ET`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>',
    `<< /Length ${text.length} >>\nstream\n${text}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  ];
  let body = '%PDF-1.4\n';
  const offsets = objects.map((object, i) => {
    const at = body.length;
    body += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return at;
  });
  const table = offsets.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
  return Buffer.from(
    `${body}xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${table}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${body.length}\n%%EOF\n`,
  );
}
