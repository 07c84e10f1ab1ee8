import { inFull, onlyWhatIsOther } from './as-before';

test('of several films only what is other is answered in full, and put together it is the whole answer each time', () => {
  const answered = new Map<string, string>();
  let here: ReadonlyMap<string, { pieces: number }> = new Map();
  const days: [Record<string, number>, string[]][] = [
    [{ shade: 24, frost: 37 }, ['shade', 'frost']],
    [{ shade: 25, frost: 37 }, ['shade']],
    [{ shade: 25, frost: 37 }, []],
    // a film that no pane has any more is forgotten, and told in full when it comes back as it was
    [{ shade: 25 }, []],
    [{ shade: 25, frost: 37 }, ['frost']],
  ];
  for (const [films, inOther] of days) {
    const parts = new Map(Object.entries(films).map(([id, pieces]) => [id, { pieces }]));
    const answer = onlyWhatIsOther(parts, answered);
    expect([...answer].flatMap(([id, part]) => (part === 'as before' ? [] : [id]))).toEqual(inOther);
    const before = here;
    here = inFull(answer, before);
    expect([...here]).toEqual([...parts]);
    for (const [id, part] of answer) if (part === 'as before') expect(here.get(id)).toBe(before.get(id));
  }
});
