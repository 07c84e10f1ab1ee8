import type { Plan, PrepareSettings, Surface } from '@yellow-pane/contracts';
import { formatRough } from '../ground/index.js';
import { isOfTheDay, kitOfDay, REACH_MM, type DayRecords, type KitLine, type SlipNeed } from '../prepare/index.js';
import { isDrySurface } from '../measure/index.js';
import { dryKit } from './dry-kit.js';
import { rollOfPane, sheetOfSurface } from './lay-job.js';
import type { LayRecords } from './lay-records.js';
import type { Step } from './run-sheet.js';

/** The records of a job from which its van is packed. */
export type KitRecords = DayRecords & LayRecords & { readonly plans?: readonly Plan[] };

/** A surface and what is done on it. */
interface WorkedPane {
  readonly surface: Surface;
  readonly steps: readonly Step[];
}

/** Tools that have their line already, counted by glass, edges and bottles: nothing is packed twice. */
const counted: readonly { readonly tool: RegExp; readonly line: RegExp }[] = [
  { tool: /^(hard )?squeegee\b/i, line: /^(squeegee-|hard-squeegee)/ },
  { tool: /^slip$|^spray/i, line: /^slip$/ },
  { tool: /^cleaner$/i, line: /^cleaner$/ },
  { tool: /^lint-free cloth/i, line: /^cloths$/ },
  { tool: /^new blade edge$/i, line: /^blades$/ },
  { tool: /^scraper/i, line: /^scraper$/ },
  { tool: /^(hard card|paper towel)/i, line: /^card$/ },
  { tool: /^silicone( cutter)?$/i, line: /^silicone$/ },
  { tool: /^film piece$/i, line: /^film-/ },
  { tool: /^tape measure$/i, line: /^tape$/ },
  { tool: /^level$/i, line: /^level$/ },
  { tool: /^straightedge$/i, line: /^straightedge$/ },
  { tool: /^alcohol\b/i, line: /^dry-alcohol$/ },
  { tool: /^adhesion promoter$/i, line: /^dry-promoter$/ },
];

const keyOf = (tool: string): string => `tool-${tool.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '')}`.slice(0, 60); // prettier-ignore
const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
const some = (names: readonly string[], most = 3): string => {
  const own = [...new Set(names)];
  return own.length <= most ? own.join(', ') : `${own.slice(0, most - 1).join(', ')} and ${own.length - most + 1} more`;
};

/** A gun is no tool by itself. @source common practice */
const hotWork: readonly Omit<KitLine, 'why'>[] = [
  { key: 'hot-extinguisher', what: 'Fire extinguisher', howMuch: '1, within reach', caution: null },
  { key: 'hot-detectors', what: 'Detectors and sprinklers: ask the building', howMuch: 'before the gun', caution: 'A hot-work permit where the building asks for one. Detectors are taken out and put back by the building; sprinkler heads are kept clear of hot air, they go at about 57 to 68 °C.' }, // prettier-ignore
  { key: 'hot-watch', what: 'Fire watch', howMuch: 'half an hour', caution: 'Somebody stays half an hour after the last heat and looks again.' },
  { key: 'hot-air', what: 'No vapour: air first', howMuch: 'before the gun', caution: 'Never a gun while alcohol, primer or solvent can be smelt; in a closed cabin open all doors and wait.' },
]; // prettier-ignore

/**
 * What has to be in the van for the day, summed from what is done: the lines that are counted by glass and bottles, then every tool that a step of one of
 * the day's panes names, the film with its rolls, and, where a gun is used, what hot work needs.
 * @returns lines in the order one packs, each key once
 */
export function dayKit(records: KitRecords, settings: PrepareSettings, need: Pick<SlipNeed, 'wetAreaM2'>): KitLine[] {
  const isToday = isOfTheDay(records, settings);
  const worked = records.surfaces.filter(isToday).flatMap((surface): WorkedPane[] => {
    const sheet = surface.filmId && !surface.deletedAt ? sheetOfSurface(surface, records) : null;
    return sheet ? [{ surface, steps: sheet.steps }] : [];
  });
  const base = kitOfDay(records, settings, need);
  if (base.length === 0 && worked.length === 0) return base;
  // no scraper in the van for panes on which no step scrapes
  const lines = worked.length && !worked.some((w) => w.steps.some((s) => s.tools.some((t) => /scraper/i.test(t)))) ? base.map(withoutScraper) : base;
  const dry = dryKit(worked.map((w) => w.surface).filter(isDrySurface), records, records.job.reachMm ?? REACH_MM).filter(
    (l) => !lines.some((b) => b.key === l.key),
  );
  const out = [...lines, ...dry, ...films(worked, records), ...survey(worked, records)];
  const byTool = new Map<string, { title: string; pane: string }[]>();
  for (const { surface, steps } of worked)
    for (const step of steps)
      for (const tool of step.tools) byTool.set(tool.toLowerCase(), [...(byTool.get(tool.toLowerCase()) ?? []), { title: step.title, pane: surface.name }]);
  for (const [tool, uses] of byTool) {
    if (counted.some((c) => c.tool.test(tool) && out.some((l) => c.line.test(l.key)))) continue;
    if (out.some((l) => l.key === keyOf(tool))) continue;
    out.push({ key: keyOf(tool), what: sentence(tool), howMuch: '1', why: `${some(uses.map((u) => u.title), 2)}: ${some(uses.map((u) => u.pane))}.`, caution: null }); // prettier-ignore
  }
  const hot = worked.filter((w) => w.steps.some(isHot));
  if (hot.length)
    for (const line of hotWork) out.push({ ...line, why: `A heat gun is used on ${some(hot.map((w) => w.surface.name))}, indoors or in a cabin.` });
  return out;
}

/** Whether a step brings the gun. */
const isHot = (step: Pick<Step, 'tools'>): boolean => step.tools.some((t) => /heat gun/i.test(t));

const withoutScraper = (line: KitLine): KitLine =>
  line.key === 'scraper'
    ? { ...line, what: 'Soft pads', why: 'No blade on any of these faces: pad and hand.', caution: 'Leave the scraper in the shop.' }
    : line;

/** Which film, and from which roll as far as it is planned. */
function films(worked: readonly WorkedPane[], records: KitRecords): KitLine[] {
  const ids = [...new Set(worked.map((w) => w.surface.filmId!))];
  return ids.flatMap((id): KitLine[] => {
    const film = records.films.find((f) => f.id === id);
    if (!film) return [];
    const mine = worked.filter((w) => w.surface.filmId === id);
    const rolls = new Set(mine.map((w) => (records.plans ? rollOfPane(w.surface.id, { plans: records.plans, rolls: records.rolls })?.label : undefined) ?? ''));
    const known = [...rolls].filter(Boolean);
    const from = known.length === 0 ? 'no plan names its roll yet' : `cut from ${known.join(', ')}${rolls.has('') ? ', the rest not planned yet' : ''}`;
    return [{ key: `film-${id}`.slice(0, 60), what: `Film: ${film.name}`, howMuch: piecesText(mine), why: `${some(mine.map((w) => w.surface.name))}; ${from}.`, caution: null }]; // prettier-ignore
  });
}

/** How many get it, by what they are called. */
function piecesText(mine: readonly WorkedPane[]): string {
  const word = mine.every((w) => w.surface.kind === 'pane') ? 'pane' : 'surface';
  return `${mine.length} ${mine.length === 1 ? word : `${word}s`}`;
}

/** What every pane is checked with before it is wet, and hung by. */
function survey(worked: readonly WorkedPane[], records: KitRecords): KitLine[] {
  if (worked.length === 0) return [];
  const f = (mm: number) => formatRough(mm, records.job.units);
  const line = (key: string, what: string, why: string): KitLine => ({ key, what, howMuch: '1', why, caution: null });
  return [
    line(
      'tape',
      'Tape measure',
      worked.some((w) => w.surface.kind === 'pane')
        ? 'Every piece is held against its opening once more before anything is wet.'
        : 'Every piece is held against its face once more before anything sticks.',
    ),
    line('level', 'Level', 'Film is hung level; bands and patterns show it at once.'),
    line('straightedge', `Straightedge, ${f(1000)}`, 'Sides that look bowed, bows of curved glass, cuts on the tailgate.'),
  ];
}
