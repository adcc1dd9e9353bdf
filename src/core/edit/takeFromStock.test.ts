import { describe, expect, it } from 'vitest';
import { found, foundOf, separated, start } from '../../../tests/fixtures/pennants.ts';
import { nearestStock, USUAL_STOCK } from '../film/stock.ts';
import { matchStock, takeFromStock } from './takeFromStock.ts';

describe('films on the shelf', () => {
  it('are ordered by how near they come', () => {
    const [first, second] = nearestStock('#24509a', USUAL_STOCK);
    expect(first).toMatchObject({ film: { name: 'Regatta blue' }, difference: 0 });
    expect(second.difference).toBeGreaterThan(first.difference);
    expect(nearestStock('#24509a', [])).toEqual([]);
  });

  it('give each film the nearest, and make one of those that find the same', () => {
    const matched = matchStock(start, found, USUAL_STOCK);
    expect(matched.films.map(({ name }) => name).sort()).toEqual(['Lamp yellow', 'Pennant red', 'Regatta blue']);
    const few = matchStock(
      start,
      found,
      USUAL_STOCK.filter(({ name }) => name === 'Tar black' || name === 'Lamp yellow'),
    );
    expect(few.films.map(({ name }) => name).sort()).toEqual(['Lamp yellow', 'Tar black']);
    expect(
      separated(few)
        .films.map(({ film }) => film.name)
        .sort(),
    ).toEqual(['Lamp yellow', 'Tar black']);
    expect(matchStock(start, found, [])).toMatchObject({ films: found.films });
  });

  it('take one film for two, when the other is that one already', () => {
    const red = USUAL_STOCK.find(({ name }) => name === 'Pennant red')!;
    const [a, b] = found.films;
    const once = takeFromStock(start, found, a.id, red);
    const twice = takeFromStock(once, foundOf(separated(once)), b.id, red);
    expect(twice.films.filter(({ name }) => name === 'Pennant red')).toHaveLength(1);
    expect(separated(twice).films).toHaveLength(2);
  });
});
