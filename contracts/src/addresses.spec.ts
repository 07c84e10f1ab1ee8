import { addresses, addressFrom, routes } from './index';

describe('Addresses of the API', () => {
  it('puts each value in its place, and what is asked behind the question mark', () => {
    expect(addressFrom('/api/jobs/:jobId/pieces/:pieceId/plot.dxf', { jobId: '7', pieceId: 'a/b 2' }, { weeding: '0', registration: undefined })).toBe(
      '/api/jobs/7/pieces/a%2Fb%202/plot.dxf?weeding=0',
    );
  });
  it('leaves out what was not said, but not a nought or an empty text', () => {
    expect(addressFrom('/api/plotter', {}, { from: 0, jobId: null, note: '' })).toBe('/api/plotter?from=0&note=');
  });
  it('makes no half address: a call to /api/jobs//changes would be another call', () => {
    expect(() => addressFrom('/api/jobs/:jobId/changes', {})).toThrow('lacks its jobId');
    expect(() => addressFrom('/api/jobs/:jobId/changes', { jobId: '' })).toThrow('lacks its jobId');
  });
  it('names two calls by no one address', () => {
    const said = Object.values(addresses).map((a) => `${a.method} ${a.path}`);
    expect(new Set(said).size).toBe(said.length);
  });
  it.each(Object.entries(routes))('%s asks for exactly the values that its address has places for', (_, route) => {
    const places = [...route.path.matchAll(/:(\w+)/g)].map((m) => m[1]).sort();
    const asked = 'params' in route ? Object.keys(route.params.shape).sort() : [];
    expect(asked).toEqual(places);
  });
});
