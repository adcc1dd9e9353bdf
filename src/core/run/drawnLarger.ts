import { calmedArt } from '../clean/calmedArt.ts';
import { assertEnlargeable, enlarge } from '../clean/enlarge.ts';
import { isRestless } from '../clean/isRestless.ts';
import { traceMesh } from '../outline/mesh/arcMesh.ts';
import { drawMesh } from '../outline/mesh/drawMesh.ts';
import { DEFAULT_OUTLINE } from '../outline/traceOutline.ts';
import type { Art } from '../raster/art.ts';
import { evenTones } from '../separate/evenTones.ts';
import { isStepped } from '../separate/isStepped.ts';
import { within, type Task } from '../task/task.ts';
import { isLacking, lackingIn, withArtNear } from './lackingIn.ts';

/** Edges are followed closer than for cutting, px, since what is drawn is traced again and both err; in restless art less close, or its ripples are drawn. */
const FOLLOW_PX = 0.05;
const FOLLOW_RESTLESS_PX = 0.1;

/**
 * Art so many times as large. What is in even tones is drawn anew from its outlines, so that its edges are as clean as those that are cut, but by its own pixels
 * (`enlarge`) where the drawing lacks what they hold; other art by its pixels alone.
 * @throws AppError `enlargedTooLarge`.
 */
export function* drawnLarger(art: Art, times: 2 | 4): Task<Art> {
  assertEnlargeable(art, times);
  const restless = yield* within(isRestless(art.colour), 0, 0.02);
  const drawn = yield* within(drawnFrom(art, times, restless), 0.02, 0.5);
  if (drawn === undefined) return yield* within(enlarge(art, times, restless), 0.5, 1);
  const lacking = lackingIn(drawn.art, art, { noise: (yield* calmedArt(art)).noise, restless, stepped: drawn.stepped });
  return isLacking(lacking) ? yield* within(withArtNear(lacking, drawn.art, art, times, restless), 0.5, 1) : drawn.art;
}

/** The drawing of art in even tones, and whether its edges run in steps. */
function* drawnFrom(art: Art, times: number, restless: boolean): Task<{ art: Art; stepped: boolean } | undefined> {
  const flat = yield* within(evenTones(art), 0, 0.5);
  if (flat === undefined) return undefined;
  const followPx = restless ? FOLLOW_RESTLESS_PX : FOLLOW_PX;
  const mesh = yield* within(traceMesh(art, flat.labels, flat.tones, { ...DEFAULT_OUTLINE, followPx }), 0.5, 0.7);
  const { colour, alpha } = yield* within(drawMesh(mesh, flat.tones, times), 0.7, 1);
  const frame = { ...art.frame, scale: art.frame.scale * times };
  return { art: { kind: 'art', width: colour.width, height: colour.height, colour, alpha, frame }, stepped: isStepped(art, flat) };
}
