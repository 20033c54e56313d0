import type { PalletDetail } from '@hand-relay/contract';
import { isometric } from '@hand-relay/core/stacking/drawing';
import type { Sides } from '@hand-relay/core/stacking/boxes';
import { finish, newDocument } from './page.ts';
import { words } from './words.ts';

const MARGIN = 40;
const INK = '#1E2326';
const EDGE = '#57606A';
/** Shades of the three sides of a carton: below the layer that is drawn, and in it. */
const shades = {
  below: { top: '#E4E2DC', left: '#D3D1CB', right: '#C2C0BA' },
  layer: { top: '#B9BEC0', left: '#99A0A3', right: '#7C8488' },
} as const;
/** Room of a drawing. */
const DRAWN = { width: 220, height: 190 };
const ROW = 15;

/** How a pallet is built: each layer drawn on those below it, and its units in the order in which they are put down. */
export function palletSheet(pallet: PalletDetail, paper: 'a4' | 'letter'): Promise<Buffer> {
  const title = `${words.pallet} ${pallet.number}`;
  const document = newDocument(paper === 'a4' ? 'A4' : 'LETTER', MARGIN, title);
  const width = document.page.width - 2 * MARGIN;
  const layers = Math.max(0, ...pallet.places.map((p) => p.layer));
  const facts = [
    pallet.type.name,
    `${pallet.places.length} ${words.cartons.toLowerCase()}`,
    `${layers} ${words.layers}`,
    `${(pallet.weightG / 1000).toFixed(1)} ${words.kg}`,
    pallet.heightMm === null ? '' : `${words.height} ${pallet.heightMm} mm`,
    pallet.departure?.name ?? '',
    pallet.sscc ? `(00)${pallet.sscc}` : '',
  ];
  document.font('strong').fontSize(20).fillColor(INK).text(title, MARGIN, MARGIN);
  document.font('text').fontSize(11).text(facts.filter(Boolean).join(' · '), { width });
  document.text(words.buildIn);
  let y = document.y + 12;
  for (let layer = 1; layer <= layers; layer++) {
    const own = pallet.places.flatMap((p, i) => (p.layer === layer ? [{ ...p, number: i + 1 }] : []));
    const needed = Math.max(DRAWN.height, 22 + own.length * ROW);
    if (y + needed > document.page.height - MARGIN) {
      document.addPage();
      y = MARGIN;
    }
    drawLayer(document, pallet, layer, MARGIN, y);
    const x = MARGIN + DRAWN.width + 20;
    document.font('strong').fontSize(13).fillColor(INK).text(`${words.layer} ${layer}`, x, y);
    own.forEach((unit, i) => {
      const at = y + 22 + i * ROW;
      document.font('strong').fontSize(10).text(String(unit.number), x, at, { width: 22 });
      document
        .font('text')
        .text(`${unit.name}   ${unit.sscc.slice(-5)}`, x + 26, at, { width: 170, height: 12, ellipsis: true });
      document.text(unit.type, x + 200, at, { width: width - DRAWN.width - 220, height: 12, ellipsis: true });
    });
    y += needed + 14;
  }
  return finish(document);
}

function drawLayer(
  document: PDFKit.PDFDocument,
  { type, deckMm, places }: PalletDetail,
  layer: number,
  x: number,
  y: number,
) {
  const [length, width, highest] = type.sides;
  const units = places.filter((p) => p.layer <= layer);
  // As high as it is built so far, not as high as it could be: the layers are to be seen.
  const top = Math.max(...units.map((p) => p.at[2] + p.placed[2]), 1);
  const room: Sides = [length, width, Math.min(highest - deckMm, top)];
  const drawn = isometric(
    room,
    units.map((u) => ({ at: u.at, size: u.placed })),
    0,
  );
  const scale = Math.min(DRAWN.width / drawn.width, DRAWN.height / drawn.height);
  const polygon = (points: readonly (readonly [number, number])[]) =>
    document.polygon(...points.map(([px, py]): [number, number] => [x + px * scale, y + py * scale]));
  polygon(drawn.floor).lineWidth(0.7).fillAndStroke('#F4F3EF', EDGE);
  for (const face of drawn.faces) {
    const of = units[face.box]!.layer === layer ? shades.layer : shades.below;
    polygon(face.points).lineWidth(0.6).fillAndStroke(of[face.side], INK);
  }
}
