/** Holds a schema to a type of the core at compile time, both ways: a field too many or too few does not compile. */

/** Without `readonly`, which schemas do not know. */
type Plain<T> = T extends (infer E)[] | readonly (infer E)[]
  ? Plain<E>[]
  : T extends object
    ? { -readonly [K in keyof T]: Plain<T[K]> }
    : T;

// The way the compiler itself compares types: by whether two generic functions are assignable to each other.
/* eslint-disable @typescript-eslint/no-unnecessary-type-parameters -- the parameters are what is compared */
type Same<A, B> = (<T>() => T extends A ? 1 : 2) extends <T>() => T extends B ? 1 : 2 ? true : false;

/** `true` where both are the same type. */
export type SameType<A, B> = Same<Plain<A>, Plain<B>>;

/** Does not compile unless it is told `true`: `assertSameType<SameType<z.infer<typeof schema>, Type>>()`. */
export function assertSameType<_IsSame extends true>(): void {
  // The types have said it all.
}
