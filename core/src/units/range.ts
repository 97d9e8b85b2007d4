/** Checks for a caller's mistakes: they throw with the name, the allowed range and the given value. */

export function requireRange(name: string, value: number, min: number, max: number): number {
  if (!(value >= min && value <= max)) {
    throw new RangeError(`${name} must be from ${min} to ${max}, but was ${value}`);
  }
  return value;
}

export function clamp(value: number, min: number, max: number): number {
  return Math.min(max, Math.max(min, value));
}
