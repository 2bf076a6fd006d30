import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  editText,
  formatQuantity,
  fromCore,
  parseQuantity,
  pouringUnit,
  QUANTITIES,
  toCore,
  US_GALLON_L,
  type QuantityName,
  type UnitSystem,
} from '../index';

const read = (quantity: QuantityName, text: string, system: 'metric' | 'us' = 'metric') => {
  const parsed = parseQuantity({ quantity, text, system });
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.value;
};
const refusal = (quantity: QuantityName, text: string) => {
  const parsed = parseQuantity({ quantity, text, system: 'metric' });
  return parsed.ok ? `accepted as ${parsed.value}` : parsed.message;
};

describe('unit constants', () => {
  it('takes the US gallon as 231 cubic inches [P: NIST Handbook 44, App. C]', () => {
    expect(US_GALLON_L).toBeCloseTo(3.785411784, 9);
  });
  it('takes the imperial gallon and its ounce from the act [P: UK Weights and Measures Act 1985]', () => {
    expect(toCore('volume', 'galImp', 1)).toBe(4.54609);
    expect(toCore('volume', 'flozImp', 1) * 1000).toBeCloseTo(28.4131, 4);
  });
  it('has ounces of volume and of mass apart [P: NIST Handbook 44]', () => {
    expect(toCore('volume', 'flozUS', 1) * 1000).toBeCloseTo(29.5735, 4);
    expect(toCore('mass', 'oz', 1) * 1000).toBeCloseTo(28.3495, 4);
  });
  it('gives square feet and mils from the inch of 25.4 mm', () => {
    expect(toCore('area', 'ft2', 1)).toBeCloseTo(0.09290304, 10);
    expect(toCore('film', 'mil', 1)).toBe(25.4);
  });
  it('converts fixed points of the scale, and differences without an offset', () => {
    expect(fromCore('temperature', 'F', 0)).toBeCloseTo(32, 10);
    expect(fromCore('temperature', 'F', 100)).toBeCloseTo(212, 10);
    expect(fromCore('temperatureDifference', 'F', 3)).toBeCloseTo(5.4, 10);
  });
});

describe('typed figures', () => {
  it.each([
    ['film', '5 mil', 127],
    ['film', '125', 125],
    ['film', '125 µm', 125],
    ['volume', '8 oz', 8 * 0.0295735],
    ['mass', '8 oz', 8 * 0.0283495],
    ['volume', '750ml', 0.75],
    ['volume', '1 US gal', 3.785411784],
    ['length', '3\'6"', 1.0668],
    ['length', "3'6", 1.0668],
    ['length', '3 ft 6 1/2 in', 1.0795],
    ['length', '7 1/4 in', 0.18415],
    ['length', '7¼"', 0.18415],
    ['length', '9,6', 9.6],
    ['length', '9.6 m', 9.6],
    ['temperature', '64 F', 17.7778],
    ['temperature', '-3', -3],
    ['temperature', '−3 °C', -3],
    ['temperatureDifference', '5.4 f', 3],
    ['area', '258 sq ft', 23.969],
    ['duration', '90 min', 1.5],
    ['duration', '2 d', 48],
    ['percent', '45 %', 0.45],
    ['percent', '45', 0.45],
    ['density', '12 lb/gal', 1.43791],
    ['windSpeed', '10 kn', 5.14444],
  ] as [QuantityName, string, number][])('reads %s "%s"', (quantity, text, value) => {
    expect(read(quantity, text)).toBeCloseTo(value, 4);
  });
  it('reads a bare figure in the system shown', () => {
    expect(read('film', '5', 'us')).toBe(127);
    expect(read('temperature', '64', 'us')).toBeCloseTo(17.7778, 4);
    expect(read('length', '31', 'us')).toBeCloseTo(9.4488, 4);
  });
  it('asks about "1,500" instead of guessing', () => {
    expect(refusal('volume', '1,500')).toBe('"1,500" could be 1500 or 1.500. Type it without the comma.');
    expect(refusal('area', '1,500 ft2')).toContain('1500 or 1.500');
    expect(read('volume', '0,500')).toBe(0.5);
  });
  it.each([
    ['volume', '', 'Type a figure'],
    ['volume', 'lots', 'could not be read'],
    ['volume', '5 kg', 'is not a unit of volume'],
    ['film', '5 m2', 'is not a unit of film thickness'],
    ['length', '1.2.3', 'too many points'],
    ['length', '3 1/0 in', 'could not be read'],
    ['temperature', '5 C 3 F', 'could not be read'],
    ['length', '6 in 3 ft', 'could not be read'],
    ['length', "'; drop table", 'could not be read'],
  ] as [QuantityName, string, string][])('refuses %s "%s" with a sentence', (quantity, text, sentence) => {
    expect(refusal(quantity, text)).toContain(sentence);
  });
});

describe('how people type figures', () => {
  const read = (quantity: QuantityName, text: string, system: UnitSystem = 'metric') =>
    parseQuantity({ quantity, text, system });
  it.each([
    // Worked by hand: 1 ft = 0.3048 m, 1 in = 25.4 mm, US fluid ounce 29.5735 mL, US gallon 3.785412 L.
    ['length', `3'-6"`, 1.0668],
    ['length', `3’-6"`, 1.0668],
    ['length', '3 ft - 6 in', 1.0668],
    ['volume', '8 oz.', 0.236588],
    ['volume', '1.5 US gallons', 5.678118],
    ['volume', '1 imperial gallon', 4.54609],
    ['density', '1520 kg/m3', 1.52],
    ['film', '13/64 in', 5159.375],
    ['film', '3 um', 3],
  ] as const)('%s: %s', (quantity, text, value) => {
    const found = read(quantity, text);
    expect(found.ok && found.value).toBeCloseTo(value, 5);
  });
  it('asks about what can be read in two ways, or is absurd in the unit it would be in', () => {
    expect(read('length', "1'500")).toMatchObject({ ok: false, message: expect.stringMatching(/1500 or 1 ft 500 in/) });
    expect(read('volume', "1'500")).toMatchObject({ ok: false });
    for (const [quantity, text, system] of [
      ['film', '3', 'metric'],
      ['film', '250', 'us'],
      ['length', '960', 'metric'],
      ['temperature', '64', 'metric'],
      ['density', '1520', 'metric'],
    ] as const)
      expect(read(quantity, text, system)).toMatchObject({
        ok: false,
        message: expect.stringMatching(/type the unit/),
      });
    expect(read('film', '0')).toMatchObject({ ok: true, value: 0 });
  });
  it('names every unit that works when it knows the one typed not', () => {
    const found = read('volume', '3 buckets');
    expect(found.ok).toBe(false);
    for (const name of ['L', 'mL', 'US gal', 'US qt', 'fl oz', 'imp gal'])
      expect(!found.ok && found.message).toContain(name);
  });
});

describe('round trips', () => {
  const names = Object.keys(QUANTITIES) as QuantityName[];
  it('to a unit and back loses nothing, for every unit of every quantity', () => {
    fc.assert(
      fc.property(fc.constantFrom(...names), fc.double({ min: 0.001, max: 5000, noNaN: true }), (quantity, value) => {
        for (const unit of QUANTITIES[quantity].units) {
          expect(fromCore(quantity, unit.id, toCore(quantity, unit.id, value))).toBeCloseTo(value, 6);
        }
      }),
    );
  });
  it('what is put into a field is read back as the same value, in both systems', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...names),
        fc.constantFrom('metric' as const, 'us' as const),
        fc.double({ min: 0.01, max: 500, noNaN: true }),
        (quantity, system, core) => {
          const text = editText(quantity, core, { system });
          // Feet and inches are shown to a hundredth of an inch.
          const step = quantity === 'temperature' ? 1e-3 : quantity === 'length' ? 0.005 * 0.0254 : 0;
          const tolerance = Math.abs(core) * 1e-4 + step;
          expect(Math.abs(read(quantity, text, system) - core)).toBeLessThanOrEqual(tolerance);
        },
      ),
    );
  });
  it('pours all parts of a batch in one unit, fine enough for a scale', () => {
    expect(pouringUnit('volume', { system: 'metric' }, 1)).toMatchObject({ id: 'mL', digits: 0 });
    expect(pouringUnit('volume', { system: 'metric' }, 4)).toMatchObject({ id: 'L', digits: 3 });
    expect(pouringUnit('mass', { system: 'metric' }, 4)).toMatchObject({ id: 'g', digits: 0 });
    expect(pouringUnit('mass', { system: 'us' }, 4)).toMatchObject({ id: 'oz', digits: 1 });
    expect(pouringUnit('volume', { system: 'metric', except: { volume: 'us' } }, 1)).toMatchObject({ id: 'flozUS' });
  });
  it('shows small volumes in the small unit', () => {
    expect(formatQuantity('volume', 0.25, { system: 'metric' })).toBe('250 mL');
    expect(formatQuantity('volume', 2.5, { system: 'metric' })).toBe('2.50 L');
    expect(formatQuantity('volume', 0.25, { system: 'us' })).toBe('8.5 fl oz');
    expect(formatQuantity('film', 127, { system: 'metric', except: { film: 'us' } })).toBe('5.0 mil');
    expect(formatQuantity('temperatureDifference', -0.01, { system: 'metric' })).toBe('0.0 °C');
  });
});

describe('feet and inches', () => {
  it.each([
    // 1 ft = 0.3048 m, 1 in = 25.4 mm [P: international yard agreement, 1959].
    [9.6012, '31′ 6″'],
    [3.048, '10′'],
    [0.18, '7.1″'],
    [0.3047, '1′'],
    [0, '0″'],
    [-0.5, '−1′ 7.7″'],
  ])('%d m is %s', (metres, text) => {
    expect(formatQuantity('length', metres, { system: 'us' })).toBe(text);
  });
  it('what a field shows is read as the same length, to a quarter of a millimetre', () => {
    for (let metres = 0.01; metres < 40; metres *= 1.173) {
      const text = editText('length', metres, { system: 'us' });
      const read = parseQuantity({ quantity: 'length', text, system: 'us' });
      expect(read.ok && Math.abs(read.value - metres)).toBeLessThan(0.00026);
    }
  });
  it('a pot is so many cm or inches wide', () => {
    expect(formatQuantity('width', 0.18, { system: 'metric' })).toBe('18.0 cm');
    expect(formatQuantity('width', 0.18, { system: 'us' })).toBe('7.1 in');
    expect(parseQuantity({ quantity: 'width', text: '7', system: 'us' })).toMatchObject({
      value: expect.closeTo(0.1778, 9),
    });
  });
});
