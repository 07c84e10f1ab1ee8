import type { Column } from './column.js';
import type { Counter } from './counter.js';
import type { Ground } from './ground.js';
import type { Pane } from './pane.js';
import type { Panel } from './panel.js';
import type { NamedSurface, OfEverySurface } from './shared.js';
import type { Sign } from './sign.js';
import type { SurfaceKind, SurfaceOf } from './surface.js';
import type { Wall } from './wall.js';

// apart from the schemas, so that a page which begins a surface does not carry them

/** What a surface of each kind is called. */
export const surfaceKindNames: { readonly [K in SurfaceKind]: string } = {
  pane: 'pane',
  column: 'column',
  panel: 'panel',
  wall: 'wall',
  counter: 'counter',
  sign: 'sign',
};

/** A ground that nobody has looked at. */
export const unknownGround: Ground = {
  material: 'unknown',
  finish: 'unknown',
  madeOn: null,
  gloss: 'unknown',
  state: 'unknown',
  isDamp: null,
  isGreasy: null,
  surfaceTempC: null,
};

/** A surface nobody has looked at yet, as far as every kind goes. */
const unseen = {
  measuredLikeId: null,
  filmId: null,
  signed: null,
  doubtLater: false,
  extraPieces: [],
  servedById: null,
  note: '',
  deletedAt: null,
} satisfies Partial<OfEverySurface>;

/** A pane nobody has looked at yet, with what is known of it. */
export const newPane = (known: NamedSurface & Partial<Omit<Pane, 'kind'>>): Pane => ({
  ...unseen,
  kind: 'pane',
  grid: null,
  shape: null,
  cutOuts: [],
  curved: null,
  sizeKind: 'daylight',
  revealMm: null,
  frame: 'unknown',
  obstructions: [],
  seenFrom: 'room',
  filmFace: 'room',
  calledCrooked: false,
  glazing: null,
  exposure: null,
  workedFace: 'unknown',
  choose: null,
  method: null,
  seam: null,
  design: null,
  allowances: null,
  ...known,
});

/** A column nobody has looked at yet, with what is known of it. */
export const newColumn = (known: NamedSurface & Partial<Omit<Column, 'kind'>>): Column => ({
  ...unseen,
  kind: 'column',
  section: 'round',
  ends: { foot: 'floor', head: 'ceiling' },
  ground: unknownGround,
  dry: null,
  ...known,
});

/** A door nobody has looked at yet: its upright edges are wrapped, its top and foot trimmed, as is usual. @source common practice */
export const newPanel = (known: NamedSurface & Partial<Omit<Panel, 'kind'>>): Panel => ({
  ...unseen,
  kind: 'panel',
  what: 'door',
  hinges: 'none',
  faces: 'front',
  wraps: { left: 'edge', right: 'edge', top: 'trimmed', bottom: 'trimmed' },
  grain: 'upright',
  head: 'any',
  besideId: null,
  fire: 'unknown',
  grooves: [],
  recesses: [],
  corrugation: null,
  dome: null,
  corners: null,
  hardware: [],
  ground: unknownGround,
  dry: null,
  ...known,
});

/** A wall nobody has looked at yet: its film stops at both ends, and is hung from the left. */
export const newWall = (known: NamedSurface & Partial<Omit<Wall, 'kind'>>): Wall => ({
  ...unseen,
  kind: 'wall',
  left: { is: 'stop', angleDeg: null, isFirst: true },
  right: { is: 'stop', angleDeg: null, isFirst: true },
  nextId: null,
  seam: 'overlap',
  hungFrom: 'left',
  lie: 'upright',
  hanging: 'one-way',
  fire: 'unknown',
  hardware: [],
  masonry: null,
  breaks: [],
  ground: unknownGround,
  dry: null,
  ...known,
});

/** A counter nobody has looked at yet: it stands at a wall, film goes over its front and its ends and on to their underside. @source common practice */
export const newCounter = (known: NamedSurface & Partial<Omit<Counter, 'kind'>>): Counter => ({
  ...unseen,
  kind: 'counter',
  what: 'counter',
  sides: { front: 'return', right: 'return', back: 'wall', left: 'return' },
  round: [],
  grain: 'along',
  besideId: null,
  seam: 'overlap',
  hardware: [],
  ground: unknownGround,
  dry: null,
  ...known,
});

/** A sign nobody has looked at yet: a canvas, which has texture, with nothing on it. @source common practice */
export const newSign = (known: NamedSurface & Partial<Omit<Sign, 'kind'>>): Sign => ({
  ...unseen,
  kind: 'sign',
  what: 'canvas',
  texture: 'fine',
  lines: [],
  hardware: [],
  ground: { ...unknownGround, material: 'canvas' },
  dry: null,
  ...known,
});

const beginnings: { readonly [K in SurfaceKind]: (known: NamedSurface) => SurfaceOf<K> } = {
  pane: newPane,
  column: newColumn,
  panel: newPanel,
  wall: newWall,
  counter: newCounter,
  sign: newSign,
};
/** A surface of a kind that nobody has looked at yet. */
export const newSurface = <K extends SurfaceKind>(kind: K, known: NamedSurface): SurfaceOf<K> => beginnings[kind](known);
