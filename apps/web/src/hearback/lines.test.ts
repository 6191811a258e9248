import { dayTicks, running, spread } from './lines';

const hour = (at: string, opened: number) => ({ at, sent: 0, opened, clicked: 0, replied: 0, left: 0 });

test('a line runs up to the count that stands beside it', () => {
  const points = running(
    [hour('2026-11-08T10:00:00Z', 3), hour('2026-11-08T11:00:00Z', 0), hour('2026-11-08T12:00:00Z', 2)],
    'opened',
  );
  expect(points.map((point) => point.total)).toEqual([3, 3, 5]);
});

test('labels that would cover each other are moved apart, in their order', () => {
  const places = spread([
    { key: 'low', y: 100 },
    { key: 'high', y: 20 },
    { key: 'middle', y: 95 },
  ]);
  expect([places.get('high'), places.get('middle'), places.get('low')]).toEqual([20, 95, 110]);
});

test('no day stands twice on the axis', () => {
  const ticks = ['2026-11-08T00:00', '2026-11-08T12:00', '2026-11-09T00:00', '2026-11-09T12:00'].map(
    (text) => new Date(text),
  );
  expect(dayTicks({ ticks: () => ticks }).map((tick) => tick.getDate())).toEqual([8, 9]);
});
