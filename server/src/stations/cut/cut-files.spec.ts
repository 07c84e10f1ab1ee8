import DxfParser from 'dxf-parser';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import type { JobDocument, Patch } from '@yellow-pane/contracts';
import { knifeOrder, takeFromStock } from '@yellow-pane/core';
import type { App } from '../../app.js';
import { ines, lanternStreetId, draftPlan, openBench, ternPointId, TestDevice, type TestDatabase } from '../../bench.testing.js';

let app: App;
let open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());

const get = (path: string) => request(app.http).get(`/api/jobs/${ternPointId}/${path}`).set('Host', 'localhost').buffer(true);
const binary = (path: string) =>
  get(path).parse((res, done) => {
    const chunks: Buffer[] = [];
    res.on('data', (c: Buffer) => chunks.push(c));
    res.on('end', () => done(null, Buffer.concat(chunks)));
  });
async function textOf(pdf: Buffer): Promise<{ pages: number; text: string }> {
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  let text = '';
  for (let i = 1; i <= document.numPages; i++) {
    const content = await (await document.getPage(i)).getTextContent();
    text += content.items.map((x) => ('str' in x ? x.str : '')).join(' ') + '\n';
  }
  return { pages: document.numPages, text: text.replace(/\s+/g, ' ') };
}

describe('what the bench cuts in the pieces of columns, read again from outside', () => {
  const interior = async () =>
    ((await request(app.http).get('/api/jobs?find=interior').set('Host', 'localhost')).body.jobs as { id: string; name: string }[]).find(
      (j) => j.name === 'Tern Point interior',
    )!.id;
  const fetched = async (path: string) =>
    request(app.http)
      .get(`/api/jobs/${await interior()}/${path}`)
      .set('Host', 'localhost')
      .buffer(true);
  test('as DXF: film cuts and liner cuts on layers of their own, the liner’s the whole length and 100 mm apart, all on their piece', async () => {
    const dxf = new DxfParser().parseSync((await fetched('cut-sheet.dxf')).text)!;
    const lines = dxf.entities.filter((e) => e.type === 'LWPOLYLINE') as unknown as { layer: string; vertices: { x: number; y: number }[] }[];
    const of = (layer: string) => lines.filter((l) => l.layer === layer);
    const pieces = of('PIECE').map((l) => ({ x0: Math.min(...l.vertices.map((v) => v.x)), x1: Math.max(...l.vertices.map((v) => v.x)), y0: Math.min(...l.vertices.map((v) => v.y)), y1: Math.max(...l.vertices.map((v) => v.y)) })); // prettier-ignore
    // six of columns, six doors, a pair of an archive, front and lid of its hut, a lift wall in two strips, three fronts, drops of six walls and three lengths along one, four tops and the strips of two edges, four sheets of letters
    expect(pieces).toHaveLength(52);
    // two for each column piece; one for each of the two drops that go into the corner of the lobby, one at an end of each top; three drops cut roughly below the stairs
    expect([of('LINER_CUT').length, of('FILM_CUT').length]).toEqual([18, 15]);
    const kinds = { column: 0, panel: 0, wall: 0, top: 0, strip: 0, letters: 0 };
    let rounded = 0;
    let roughs = 0;
    const later = { front: 0, leg: 0, ring: 0 };
    const laterOf = { '701 463': 'front', '901 463': 'front', '1320 819': 'leg', '2862 82': 'ring' } as const;
    const sheets = ['836 238', '1011 238', '838 167', '206 160'];
    for (const p of pieces) {
      const inside = (l: { vertices: { x: number; y: number }[] }) =>
        l.vertices.every((v) => v.x >= p.x0 - 1e-6 && v.x <= p.x1 + 1e-6 && v.y >= p.y0 - 1e-6 && v.y <= p.y1 + 1e-6);
      const slits = of('LINER_CUT').filter(inside);
      const pencil = of('PENCIL').filter(inside);
      // an arrow that says which end hangs at the ceiling is 200 mm long, no face is as small
      const longOf = (l: (typeof pencil)[number]) =>
        Math.max(...(['x', 'y'] as const).map((k) => Math.max(...l.vertices.map((v) => v[k])) - Math.min(...l.vertices.map((v) => v[k]))));
      const isFace = (l: (typeof pencil)[number]) => l.vertices.length > 2 && longOf(l) > 201;
      const size = [p.x1 - p.x0, p.y1 - p.y0].map(Math.round).sort((a, b) => b - a);
      const counted = laterOf[size.join(' ') as keyof typeof laterOf];
      if (counted) later[counted] += of('CUT_LATER').filter(inside).length;
      if (sheets.includes(size.join(' '))) {
        // what it stands on and its hinge; its letters are in a file of their own
        expect([pencil.length, slits.length, of('FILM_CUT').filter(inside).length]).toEqual([2, 0, 0]);
        kinds.letters++;
        continue;
      }
      if (pencil.some(isFace) && slits.length) {
        // sliced 50 mm from one end, from side to side; its rounds are more than corners
        const [[s]] = [slits];
        const along = Math.abs(s!.vertices[0]!.x - s!.vertices[1]!.x) > 1 ? 'y' : 'x';
        const [low, high] = along === 'x' ? [p.x0, p.x1] : [p.y0, p.y1];
        expect(Math.min(s!.vertices[0]![along] - low, high - s!.vertices[0]![along])).toBeCloseTo(50, 3);
        // the leg of the counter is square, the other three tops have rounds
        if (pencil.some((l) => l.vertices.length > 8)) rounded++;
        kinds.top++;
        continue;
      }
      if (pencil.length === 2 && [100, 82].includes(Math.min(...size))) {
        // both arrises, nothing that a plotter would cut
        expect([slits.length, of('FILM_CUT').filter(inside).length]).toEqual([0, 0]);
        kinds.strip++;
        continue;
      }
      if (pencil.length > 0 && !pencil.some(isFace)) {
        // the fold, and on one the arris that it goes round; at most the slit of a corner, 38 mm from its edge and the whole length
        // under the stairs what is far too long is cut off at the bench
        roughs += of('FILM_CUT').filter(inside).length;
        for (const s of slits) {
          expect(Math.abs(s.vertices[0]!.x - s.vertices[1]!.x)).toBeCloseTo(p.x1 - p.x0, 3);
          expect(Math.min(s.vertices[0]!.y - p.y0, p.y1 - s.vertices[0]!.y)).toBeCloseTo(38, 3);
        }
        kinds.wall++;
        continue;
      }
      if (pencil.length) {
        // face and fold; nothing that a plotter would cut
        expect([pencil.length, slits.length, of('FILM_CUT').filter(inside).length]).toEqual([2, 0, 0]);
        kinds.panel++;
        continue;
      }
      const through = of('FILM_CUT').filter(inside);
      if (slits.length === 0 && through.length === 1) {
        // its whole head lies under the stairs: no fold there
        roughs++;
        kinds.wall++;
        continue;
      }
      kinds.column++;
      expect(slits).toHaveLength(2);
      for (const s of slits) expect(Math.abs(s.vertices[0]!.x - s.vertices[1]!.x)).toBeCloseTo(p.x1 - p.x0, 3);
      expect(Math.abs(slits[0]!.vertices[0]!.y - slits[1]!.vertices[0]!.y)).toBeCloseTo(100, 3);
      expect(of('FILM_CUT').filter(inside)).toHaveLength(2);
    }
    expect(kinds).toEqual({ column: 6, panel: 15, wall: 21, top: 4, strip: 2, letters: 4 });
    expect([rounded, roughs]).toEqual([3, 3]);
    // of each door two frames of four corners, and four edges beside a trimmed end; round the peephole of one a cross; on walls
    // a door, a thermostat, a pipe, and a switch that lies where two drops lap; a socket in one length, a pipe where two lap
    // on the counter two corners, a round, three holes; on the strip of the table Vs above and below at four corners
    // of each drawer front four edges beside a trimmed end; on the leg of the counter its corners; on the strip of the round table Vs above and below
    expect(later).toEqual({ front: 3 * 4, leg: 4, ring: 8 });
    // a leaf of the archive goes over its top too: two for each corner up there, one at each end of its foot
    expect(of('CUT_LATER')).toHaveLength(6 * (8 + 4) + 2 * (4 + 2) + 1 + 5 + 3 + 6 + 8 + 12 + 4 + 8);
  });
  test('as PDF: the cuts in their order and which layer they go through, and where they are trimmed', async () => {
    const id = await interior();
    const pdf = await request(app.http).get(`/api/jobs/${id}/cut-sheet.pdf`).set('Host', 'localhost').buffer(true).parse((res, done) => {
      const chunks: Buffer[] = [];
      res.on('data', (c: Buffer) => chunks.push(c));
      res.on('end', () => done(null, Buffer.concat(chunks)));
    }); // prettier-ignore
    const { text } = await textOf(pdf.body as Buffer);
    expect(text).toMatch(
      /Bench cuts · Column 1 front.*LINER ONLY, the whole length: left side of the strip.*Through the film\. Foot: 45° outwards from 13 above the end/,
    );
    expect(text).toContain('Trimmed when it is on: top, bottom');
    expect(text).toContain('true scale: print without fitting to the page');
    // letters are drawn as they are read, and what is pencilled on their tape is told
    expect(text).toMatch(/Plot Gate canvas TERN POINT, 1 of 2, film side up/);
    expect(text).toMatch(/Drawn film side up, as it is plotted and read/);
    expect(text).toMatch(/Sheet of letters · Gate canvas TERN POINT, 2 of 2 Film side up.*Pencil on the transfer tape: the line it stands on, 19 above/);
  });
  test('the letters of a sign as DXF for a plotter, read as they will be: every outline closed, inside its sheet, the T left of the N', async () => {
    const id = await interior();
    const doc = (await request(app.http).get(`/api/jobs/${id}?personId=${ines}`).set('Host', 'localhost')).body as JobDocument;
    const sign = doc.surfaces.find((s) => s.kind === 'sign')!;
    const dxf = new DxfParser().parseSync((await fetched(`pieces/${sign.id}.1/plot.dxf`)).text)!;
    const lines = dxf.entities.filter((e) => e.type === 'LWPOLYLINE') as unknown as { layer: string; shape: boolean; vertices: { x: number; y: number }[] }[];
    const cuts = lines.filter((l) => l.layer === 'CUT');
    // T, E, R with its hole, N
    expect(cuts).toHaveLength(5);
    for (const l of cuts) expect([l.shape, l.vertices.every((v) => v.x > 14 && v.x < 822 && v.y > 14 && v.y < 224)]).toEqual([true, true]);
    const lefts = cuts.map((l) => Math.min(...l.vertices.map((v) => v.x)));
    const widths = cuts.map((l) => Math.max(...l.vertices.map((v) => v.x)) - Math.min(...l.vertices.map((v) => v.x)));
    // the T has the bar on top: eight corners, the first from the left
    expect(cuts[lefts.indexOf(Math.min(...lefts))]!.vertices).toHaveLength(8);
    expect(Math.max(...widths)).toBeLessThan(260);
    expect((await fetched(`pieces/${sign.id}.1/plot.hpgl`)).text).toMatch(/^IN;PA;SP1;/);
    expect((await fetched(`pieces/${doc.surfaces.find((s) => s.kind === 'column')!.id}/plot.dxf`)).body).toMatchObject({ code: 'not-plotted' });
  });
  test('as CSV a measure of a column goes to a column, and one of a pane does not', async () => {
    const id = await interior();
    const csv = (text: string) => request(app.http).post(`/api/jobs/${id}/measures.csv?personId=${ines}&deviceId=00000000-0000-7000-8000-0000000000ee`).set('Host', 'localhost').set('Content-Type', 'text/csv').send(text); // prettier-ignore
    expect((await csv('surface,measure,value\nColumn 2,widthTop,900\n')).body.faults[0].message).toBe('Column 2 is a column, and a column has no widthTop.');
    expect((await csv('surface,measure,value\nColumn 2,bow across 295,5\n')).body.faults[0].message).toContain('only curved glass has bows');
    expect((await csv('surface,measure,value\nColumn 9,girthFoot,1100\nColumn 9,heightFront,2400\n')).body).toEqual({ readings: 2, surfaces: 1 });
    const doc = (await request(app.http).get(`/api/jobs/${id}?personId=${ines}`).set('Host', 'localhost')).body as JobDocument;
    expect(doc.surfaces.find((s) => s.name === 'Column 9')!.kind).toBe('column');
    // what a new surface is, all of its rows say: a width alone is of a pane
    const rows =
      'surface,measure,value\nDoor 9,widthTop,860\nDoor 9,heightLeft,2040\nDoor 9,edgeThickness,40\nWall 9,widthTop,3000\nWall 9,upLeft,1500\nWall 9,downLeft,1000\nPane 9,widthTop,900\n';
    expect((await csv(rows)).body).toEqual({ readings: 7, surfaces: 3 });
    const now = (await request(app.http).get(`/api/jobs/${id}?personId=${ines}`).set('Host', 'localhost')).body as JobDocument;
    expect(['Door 9', 'Wall 9', 'Pane 9'].map((n) => now.surfaces.find((s) => s.name === n)!.kind)).toEqual(['panel', 'wall', 'pane']);
  });
  test('a surface stays of its kind, and takes no field of another', async () => {
    const id = await interior();
    const doc = (await request(app.http).get(`/api/jobs/${id}?personId=${ines}`).set('Host', 'localhost')).body as JobDocument;
    const column = doc.surfaces.find((s) => s.name === 'Column 2')!;
    const set = (field: string, value: unknown) => request(app.http).post(`/api/jobs/${id}/changes`).set('Host', 'localhost').send(new TestDevice(ines).draft(id, 'x', [{ op: 'set', kind: 'surface', id: column.id, field, value } as Patch], doc.revision)); // prettier-ignore
    expect((await set('kind', 'pane')).body.faults[0].message).toBe('A surface stays of the kind it is: write down a new one.');
    expect((await set('glazing', null)).body.faults[0].message).toContain('is not a field that can be set');
    const own = doc.readings.find((r) => r.surfaceId === column.id)!;
    const reading = { ...own, id: uuidv7(), measure: 'widthTop', supersedesId: null };
    const taped = await request(app.http).post(`/api/jobs/${id}/changes`).set('Host', 'localhost').send(new TestDevice(ines).draft(id, 'x', [{ op: 'add', kind: 'reading', id: reading.id, value: reading } as Patch], doc.revision)); // prettier-ignore
    expect(taped.body.faults[0].message).toBe('A column has no widthTop.');
  });
});

describe('the cut sheet, read again from outside', () => {
  test.each(['a4', 'letter'])(
    'as PDF on %s: every pane, face up, top arrow, knife order, roll and lot',
    async (paper) => {
      const answer = await binary(`cut-sheet.pdf?paper=${paper}`);
      expect(answer.status).toBe(200);
      const { text } = await textOf(answer.body as Buffer);
      for (const word of ['Tern Point terminal', 'Drawn liner up', 'Drawn film up', 'top of pane', 'Knife order', 'Roll S', 'L2608', 'Toilet 2', 'W6', 'D3'])
        expect(text).toContain(word);
      // the security film comes off film side up: its sheet lies turned over, so it is measured from the far edge
      expect(text).toMatch(/Breakwater 200.*from the far edge.*Quay Frost.*from the near edge/);
      expect(text).toMatch(/Pull 2\d\d\d, cut across/);
    },
    60_000,
  );

  test('as labels, one for each piece, with its room', async () => {
    const { text } = await textOf((await binary('labels.pdf')).body as Buffer);
    // bands and strips have a label each
    expect(text.match(/this way up/g)).toHaveLength(79);
    expect(text).toContain('Meeting room');
  });

  test('as DXF in millimetres: a closed outline for each piece, inside the roll, a layer for each purpose', async () => {
    const dxf = new DxfParser().parseSync((await get('cut-sheet.dxf')).text)!;
    expect(dxf.header['$INSUNITS']).toBe(4);
    const lines = dxf.entities.filter((e) => e.type === 'LWPOLYLINE') as unknown as { layer: string; shape: boolean; vertices: { x: number; y: number }[] }[];
    const pieces = lines.filter((l) => l.layer === 'PIECE');
    // six arches, two rakes, two stair panes, the round window and the customs house keep their true outline inside their rectangle
    const outlines = lines.filter((l) => l.layer === 'OUTLINE');
    expect(outlines).toHaveLength(20);
    for (const o of outlines) {
      const inside = pieces.some((p) =>
        o.vertices.every(
          (v) => v.x > p.vertices[0]!.x - 0.01 && v.x < p.vertices[2]!.x + 0.01 && v.y > p.vertices[0]!.y - 0.01 && v.y < p.vertices[2]!.y + 0.01,
        ),
      );
      expect([o.shape, inside]).toEqual([true, true]);
    }
    // 79 pieces: one needs a seam first, and three pairs share a rectangle
    expect(pieces).toHaveLength(75);
    for (const p of pieces) {
      expect([p.layer, p.shape, p.vertices.length]).toEqual(['PIECE', true, 4]);
      for (const v of p.vertices) expect(v.x).toBeGreaterThanOrEqual(0);
    }
    expect(new Set(dxf.entities.map((e) => e.layer))).toEqual(new Set(['ROLL_EDGE', 'CROSSCUT', 'PIECE', 'OUTLINE', 'TEXT']));
  });

  test('in an inch job the scale under the roll is in feet', async () => {
    const svg = (await request(app.http).get(`/api/jobs/${lanternStreetId}/cut-sheet.svg`).set('Host', 'localhost').buffer(true)).body.toString() as string;
    expect([...svg.matchAll(/>(\d+) ft</g)].slice(0, 4).map((m) => m[1])).toEqual(['0', '2', '4', '6']);
    expect(svg).not.toMatch(/>\d+ m</);
    expect((await binary('cut-sheet.svg')).body.toString()).toMatch(/>1 m</);
  });

  test('nothing has been kept yet: every paper and file says that it is a proposal', async () => {
    expect((await textOf((await binary('cut-sheet.pdf?paper=a4')).body as Buffer)).text).toContain('A PROPOSAL, not a plan');
    expect((await textOf((await binary('labels.pdf')).body as Buffer)).text).toContain('this way up · proposal');
    expect((await binary('cut-sheet.svg')).body.toString()).toContain('a proposal that nobody has kept');
    expect((await get('cut-sheet.dxf')).text).toContain('liner up, a proposal');
    expect((await get('cut-list.csv')).text.split('\r\n')[1]).toMatch(/,proposal$/);
  });

  test('as CSV: 79 pieces, sizes that hold their openings', async () => {
    const lines = (await get('cut-list.csv')).text.trim().split('\r\n');
    expect(lines).toHaveLength(80);
    const w1 = lines.find((l) => l.includes(',W1,'))!.split(',');
    expect(Number(w1[4])).toBeGreaterThanOrEqual(1184 + 50);
    expect(Number(w1[5])).toBeGreaterThanOrEqual(2046 + 50);
  });

  test('as SVG to scale in mm', async () => {
    const svg = (await binary('cut-sheet.svg')).body.toString() as string;
    expect(svg).toMatch(/^<svg[^>]*width="\d+(\.\d+)?mm"/);
    expect(svg.match(/fill="#FFFEFA" stroke="#1C2226"/g)).toHaveLength(75);
  });
});

describe('papers and files of a plan that the knife follows', () => {
  const device = new TestDevice(ines);
  const document = async () => (await request(app.http).get(`/api/jobs/${ternPointId}`).set('Host', 'localhost')).body as JobDocument;
  const change = async (label: string, patches: Patch[]) => {
    const draft = device.draft(ternPointId, label, patches, (await document()).revision);
    expect((await request(app.http).post(`/api/jobs/${ternPointId}/changes`).set('Host', 'localhost').send(draft)).status).toBe(200);
  };
  const lines = async () => (await get('cut-list.csv')).text.trim().split('\r\n');

  test('stand whatever else there is to cut from: a further roll of that film moves nothing; a pane taped anew is said, and its piece keeps the size the plan cuts', async () => {
    let doc = await document();
    const frost = doc.films.find((f) => f.name === 'Quay Frost plain')!;
    const plan = draftPlan(doc, frost.id, 30);
    await change('Lay', [{ op: 'add', kind: 'plan', id: plan.id, value: plan }]);
    const own = (all: readonly string[]) => all.filter((l) => l.includes(',Quay Frost plain,'));
    const kept = own(await lines());
    expect(kept.every((l) => l.endsWith(',kept'))).toBe(true);
    const roll = doc.rolls.find((r) => r.id === plan.layout.rolls.find((x) => x.drops.length > 0)!.rollId)!;
    doc = await document();
    await change('Take film', takeFromStock(plan, roll.id, doc, { personId: ines, at: new Date().toISOString(), newId: uuidv7 }));
    const stepKey = knifeOrder(plan.layout, plan.pieces, () => roll.widthMm, 'mm').find((s) => s.rollId === roll.id)!.key;
    const tick = {
      id: uuidv7(),
      jobId: ternPointId,
      at: new Date().toISOString(),
      personId: ines,
      kind: 'cut-done',
      planId: plan.id,
      stepKey,
      surfaceId: null,
      note: '',
    } as const;
    await change('Cut made', [{ op: 'add', kind: 'logEntry', id: tick.id, value: tick }]);
    // half the price, twice the width: a new layout would move nearly everything there
    const more = { ...roll, id: uuidv7(), label: 'F-999', lengthM: 60, widthMm: 1830, pricePerM: '0.10' };
    await change('A further roll', [{ op: 'add', kind: 'roll', id: more.id, value: more }]);
    expect(own(await lines())).toEqual(kept.map((l) => l.replace(/kept$/, 'committed')));
    expect((await get('cut-list.csv')).text).not.toContain('F-999');

    const isTaped = (id: string) => doc.readings.some((r) => r.surfaceId === id && r.measure === 'widthLargest');
    const piece = plan.pieces.find((p) => p.parts.length === 0 && p.method === 'overhang' && isTaped(p.surfaceId))!;
    const taped = doc.readings.find((r) => r.surfaceId === piece.surfaceId && r.measure === 'widthLargest')!;
    const reading = {
      ...taped,
      id: uuidv7(),
      typed: String(taped.lengthMm + 90),
      unit: 'mm' as const,
      lengthMm: taped.lengthMm + 90,
      at: new Date().toISOString(),
      supersedesId: taped.id,
    };
    await change('Taped anew', [{ op: 'add', kind: 'reading', id: reading.id, value: reading }]);
    expect(own(await lines())).toEqual(kept.map((l) => l.replace(/kept$/, 'committed')));
    const { text } = await textOf((await binary('cut-sheet.pdf?paper=a4')).body as Buffer);
    expect(text).toMatch(/This is the plan that the knife follows. Since it was committed: ?.{0,12}\b\w+.*: [\d ×]+ is now [\d ×]+\./);
  }, 120_000);
});
