/**
 * String tension against a string maker's published tables (unit weights in pounds per inch, tensions in pounds at a scale
 * of 25.5 inches, nickel-wound electric set 10 to 46). Values from memory of such a table; the formula gives them within the
 * tolerance stated at each.
 */
import { describe, expect, it } from 'vitest';
import { stringTension, unitWeight, USUAL_GAUGES } from '../../src/guitar';
import { midiToHz } from '../../src/theory';

const POUND_KG = 0.45359237;
const INCH_M = 0.0254;

describe('unit weights', () => {
  it.each([
    [0.01, false, 0.00002215, 0.01],
    [0.013, false, 0.00003744, 0.01],
    [0.017, false, 0.00006402, 0.01],
    [0.026, true, 0.00012671, 0.03],
    [0.036, true, 0.00023964, 0.03],
    [0.046, true, 0.00038216, 0.03],
  ])('of a string of %f inches (wound: %s) are %f lb/in', (inches, isWound, pounds, tolerance) => {
    const own = (unitWeight({ inches, isWound }) * INCH_M) / POUND_KG;
    expect(Math.abs(own / pounds - 1)).toBeLessThan(tolerance);
  });
});

describe('tensions in standard tuning', () => {
  const open = [64, 59, 55, 50, 45, 40];
  it.each([
    [1, 16.2],
    [2, 15.4],
    [3, 16.6],
    [4, 18.4],
    [5, 19.5],
    [6, 17.5],
  ])('string %i pulls %f lb', (string, pounds) => {
    const kg = stringTension(USUAL_GAUGES[string - 1], midiToHz(open[string - 1]));
    expect(Math.abs(kg / POUND_KG / pounds - 1)).toBeLessThan(0.035);
  });
});
